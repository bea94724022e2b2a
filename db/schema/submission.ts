import { index, jsonb, pgTable, primaryKey, timestamp } from "drizzle-orm/pg-core";
import { teamKey } from "./keys";

/**
 * Forms that made something, by the key of what was sent: the same form sent again is answered
 * with what it made the first time. Kept for a day or two.
 */
export const submission = pgTable(
  "submission",
  {
    ...teamKey(),
    madeAt: timestamp("made_at", { withTimezone: true }).notNull(),
    /** What the workflow gave back. */
    result: jsonb("result"),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("submission_by_age").on(t.teamId, t.madeAt),
  ],
);
