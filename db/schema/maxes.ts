import {
  boolean,
  date,
  doublePrecision,
  foreignKey,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import { MAX_KINDS } from "../../core/maxes/records";
import type { Mass } from "../../core/units/mass";
import { athlete, team } from "./team";

/** A lift variant: lift, bar, grip, stance, box style and resistance together. */
export const liftVariant = pgTable(
  "lift_variant",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    lift: text("lift", { enum: ["bench", "squat", "box-squat", "deadlift", "press"] }).notNull(),
    bar: text("bar").notNull(),
    start: text("start", { enum: ["top", "bottom"] }).notNull(),
    /** Said where the decision is made: spotters, safeties, collars. */
    caution: text("caution").notNull(),
  },
  (t) => [primaryKey({ columns: [t.teamId, t.id] }), unique().on(t.teamId, t.name)],
);

/** What an athlete was once known to lift. Kept for ever: a mistake is withdrawn, not changed. */
export const maxRecord = pgTable(
  "max_record",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    athleteId: uuid("athlete_id").notNull(),
    variantId: uuid("variant_id").notNull(),
    load: jsonb("load").$type<Mass>().notNull(),
    date: date("date").notNull(),
    kind: text("kind", { enum: MAX_KINDS }).notNull(),
    note: text("note").notNull().default(""),
    enteredBy: text("entered_by").notNull(),
    enteredAt: timestamp("entered_at", { withTimezone: true }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({
      columns: [t.teamId, t.variantId],
      foreignColumns: [liftVariant.teamId, liftVariant.id],
    }),
  ],
);

/** The record that percentages stand on, chosen by a coach. The newest choice holds. */
export const workingMaxChoice = pgTable(
  "working_max_choice",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    athleteId: uuid("athlete_id").notNull(),
    variantId: uuid("variant_id").notNull(),
    recordId: uuid("record_id").notNull(),
    /** Undefined: the default factor of the record's kind. */
    factor: doublePrecision("factor"),
    chosenBy: text("chosen_by").notNull(),
    chosenAt: timestamp("chosen_at", { withTimezone: true }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({
      columns: [t.teamId, t.recordId],
      foreignColumns: [maxRecord.teamId, maxRecord.id],
    }),
  ],
);

/** One load–velocity test: one athlete, one variant, one day, one metric. */
export const profileTest = pgTable(
  "profile_test",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    athleteId: uuid("athlete_id").notNull(),
    variantId: uuid("variant_id").notNull(),
    date: date("date").notNull(),
    metric: text("metric", { enum: ["MCV", "MPV", "PV"] }).notNull(),
    source: text("source").notNull(),
    processing: text("processing").notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({
      columns: [t.teamId, t.variantId],
      foreignColumns: [liftVariant.teamId, liftVariant.id],
    }),
  ],
);

export const profilePoint = pgTable(
  "profile_point",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    testId: uuid("test_id").notNull(),
    loadKg: doublePrecision("load_kg").notNull(),
    velocityMps: doublePrecision("velocity_mps").notNull(),
    excluded: boolean("excluded").notNull().default(false),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({
      columns: [t.teamId, t.testId],
      foreignColumns: [profileTest.teamId, profileTest.id],
    }),
  ],
);
