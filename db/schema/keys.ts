import { text, timestamp, uuid } from "drizzle-orm/pg-core";
import { team } from "./team";

/** The two columns that every team table's key is made of. */
export const teamKey = () => ({
  teamId: uuid("team_id")
    .notNull()
    .references(() => team.id),
  id: uuid("id").notNull(),
});

/** Who wrote a row, as the team writes the name, and when. */
export const entered = () => ({
  enteredBy: text("entered_by").notNull(),
  enteredAt: timestamp("entered_at", { withTimezone: true }).notNull(),
});
