import { integer, jsonb, pgTable, primaryKey, text, unique } from "drizzle-orm/pg-core";
import type { RepMapping } from "../../core/reading/rep-rows";
import { entered, teamKey } from "./keys";

/** Which column is what, kept for the next file with the same header. */
export const importMapping = pgTable(
  "import_mapping",
  {
    ...teamKey(),
    /** The header line, its titles joined by a bar. */
    header: text("header").notNull(),
    mapping: jsonb("mapping").$type<RepMapping>().notNull(),
    ...entered(),
  },
  (t) => [primaryKey({ columns: [t.teamId, t.id] }), unique().on(t.teamId, t.header)],
);

/** Every file that was taken in. */
export const importBatch = pgTable(
  "import_batch",
  {
    ...teamKey(),
    kind: text("kind", { enum: ["reps", "stream"] }).notNull(),
    fileName: text("file_name").notNull(),
    tests: integer("tests").notNull(),
    reps: integer("reps").notNull(),
    ...entered(),
  },
  (t) => [primaryKey({ columns: [t.teamId, t.id] })],
);
