import { sql } from "drizzle-orm";
import { check, foreignKey, pgTable, primaryKey, text, uuid } from "drizzle-orm/pg-core";
import { entered, teamKey } from "./keys";
import { plan } from "./plan";
import { athlete } from "./team";

/** An answer of the bench that was sent to an athlete or to a plan, with the way back to it. */
export const labAnswer = pgTable(
  "lab_answer",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id"),
    planId: uuid("plan_id"),
    tool: text("tool").notNull(),
    /** The tool's state, as in the bench's address: numbers only, nobody's name or id. */
    state: text("state").notNull(),
    answer: text("answer").notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    check("lab_answer_of_one", sql`(athlete_id IS NULL) <> (plan_id IS NULL)`),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({ columns: [t.teamId, t.planId], foreignColumns: [plan.teamId, plan.id] }),
  ],
);
