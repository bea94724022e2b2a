import {
  date,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import type { RepMapping } from "../../core/reading/rep-rows";
import type { Mass } from "../../core/units/mass";
import type { LocalDate } from "../../core/units/time";
import { entered, teamKey } from "./keys";
import { liftVariant } from "./maxes";
import { athlete } from "./team";

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

export const IMPORT_KINDS = ["reps", "stream", "athletes", "sets", "records"] as const;

/** Every file that was taken in. */
export const importBatch = pgTable(
  "import_batch",
  {
    ...teamKey(),
    kind: text("kind", { enum: IMPORT_KINDS }).notNull(),
    fileName: text("file_name").notNull(),
    tests: integer("tests").notNull(),
    reps: integer("reps").notNull(),
    ...entered(),
  },
  (t) => [primaryKey({ columns: [t.teamId, t.id] })],
);

/** Sets from before Sprezza, as the coach's own sheet had them. Never changed. */
export const earlierSet = pgTable(
  "earlier_set",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    variantId: uuid("variant_id").notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    sets: integer("sets").notNull(),
    reps: integer("reps").notNull(),
    load: jsonb("load").$type<Mass>().notNull(),
    /** As the sheet has it; how it was measured is not known. */
    velocityMps: doublePrecision("velocity_mps"),
    batchId: uuid("batch_id").notNull(),
    /** The same line of the same athlete twice is told by this. */
    line: text("line").notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.athleteId, t.line),
    index("earlier_set_variant").on(t.teamId, t.variantId),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({
      columns: [t.teamId, t.variantId],
      foreignColumns: [liftVariant.teamId, liftVariant.id],
    }),
    foreignKey({
      columns: [t.teamId, t.batchId],
      foreignColumns: [importBatch.teamId, importBatch.id],
    }),
  ],
);
