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
  timestamp,
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import { MAX_KINDS } from "../../core/maxes/records";
import { BASE_KINDS } from "../../core/maxes/variants";
import { LIFTS } from "../../core/profile/threshold";
import type { Mass } from "../../core/units/mass";
import type { LocalDate } from "../../core/units/time";
import { SYSTEM_MASSES } from "../../core/velocity/force";
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
    lift: text("lift", { enum: LIFTS }).notNull(),
    bar: text("bar").notNull(),
    grip: text("grip").notNull().default(""),
    stance: text("stance").notNull().default(""),
    boxStyle: text("box_style").notNull().default(""),
    resistance: text("resistance").notNull().default(""),
    /** Where its max comes from: own records, a ratio to another variant's, or the same. */
    baseKind: text("base_kind", { enum: BASE_KINDS }).notNull().default("own"),
    baseId: uuid("base_id"),
    ratio: doublePrecision("ratio"),
    /** What counts as moved when force and power are computed. */
    systemMass: text("system_mass", { enum: SYSTEM_MASSES }).notNull().default("bar"),
    /** The team's own velocity threshold for MCV, where it differs from the group mean. */
    thresholdMps: doublePrecision("threshold_mps"),
    /** The processing under which that was set. */
    thresholdProcessing: text("threshold_processing"),
    start: text("start", { enum: ["top", "bottom"] }).notNull(),
    /** Said where the decision is made: spotters, safeties, collars. */
    caution: text("caution").notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.name),
    foreignKey({ columns: [t.teamId, t.baseId], foreignColumns: [t.teamId, t.id] }),
  ],
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
    date: date("date").$type<LocalDate>().notNull(),
    kind: text("kind", { enum: MAX_KINDS }).notNull(),
    note: text("note").notNull().default(""),
    enteredBy: text("entered_by").notNull(),
    enteredAt: timestamp("entered_at", { withTimezone: true }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("max_record_of_athlete").on(t.teamId, t.athleteId),
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
    index("working_max_choice_of_athlete").on(t.teamId, t.athleteId, t.variantId),
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
    date: date("date").$type<LocalDate>().notNull(),
    metric: text("metric", { enum: ["MCV", "MPV", "PV"] }).notNull(),
    source: text("source").notNull(),
    processing: text("processing").notNull(),
    /** Mass moved besides the bar when force and power were taken, kg. */
    addedKg: doublePrecision("added_kg").notNull().default(0),
    note: text("note").notNull().default(""),
    /** Loads, speeds and reps as one text: the same test is not kept twice. */
    fingerprint: text("fingerprint").notNull(),
    enteredBy: text("entered_by").notNull(),
    enteredAt: timestamp("entered_at", { withTimezone: true }).notNull(),
  },
  (t) => [
    unique().on(t.teamId, t.athleteId, t.variantId, t.date, t.metric, t.fingerprint),
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
    /** Order within the test. */
    rep: integer("rep").notNull(),
    velocityMps: doublePrecision("velocity_mps").notNull(),
    forceN: doublePrecision("force_n"),
    powerW: doublePrecision("power_w"),
    /** Left out of the line: why, by whom, when. It stays visible. */
    excludedReason: text("excluded_reason"),
    excludedBy: text("excluded_by"),
    excludedAt: timestamp("excluded_at", { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("profile_point_of_test").on(t.teamId, t.testId),
    foreignKey({
      columns: [t.teamId, t.testId],
      foreignColumns: [profileTest.teamId, profileTest.id],
    }),
  ],
);
