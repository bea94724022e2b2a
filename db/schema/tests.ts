import {
  boolean,
  date,
  doublePrecision,
  foreignKey,
  index,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import type { Mass } from "../../core/units/mass";
import type { LocalDate } from "../../core/units/time";
import { entered, teamKey } from "./keys";
import { liftVariant, profileTest } from "./maxes";
import { athlete } from "./team";

/** A single that a coach confirmed as maximal, with its speed. Kept for ever. */
export const ownSingle = pgTable(
  "own_single",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    variantId: uuid("variant_id").notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    load: jsonb("load").$type<Mass>().notNull(),
    velocityMps: doublePrecision("velocity_mps").notNull(),
    metric: text("metric", { enum: ["MCV", "MPV", "PV"] }).notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("own_single_of_athlete").on(t.teamId, t.athleteId),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({
      columns: [t.teamId, t.variantId],
      foreignColumns: [liftVariant.teamId, liftVariant.id],
    }),
  ],
);

/** What today's warm-up said and what the coach made of it. The stored max stays. */
export const readinessDecision = pgTable(
  "readiness_decision",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    testId: uuid("test_id").notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    readings: jsonb("readings").$type<Array<{ loadKg: number; velocityMps: number }>>().notNull(),
    targetMps: doublePrecision("target_mps").notNull(),
    plannedKg: doublePrecision("planned_kg").notNull(),
    /** What was proposed, with its 90 % interval, and what was decided. */
    proposedKg: doublePrecision("proposed_kg").notNull(),
    lowKg: doublePrecision("low_kg").notNull(),
    highKg: doublePrecision("high_kg").notNull(),
    decision: text("decision", { enum: ["take", "change", "decline"] }).notNull(),
    decidedKg: doublePrecision("decided_kg").notNull(),
    reason: text("reason").notNull().default(""),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("readiness_decision_of_athlete").on(t.teamId, t.athleteId),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({
      columns: [t.teamId, t.testId],
      foreignColumns: [profileTest.teamId, profileTest.id],
    }),
  ],
);

/** A test other than a profile: a jump, a throw, a sprint. The shipped ones are copied in. */
export const physicalTest = pgTable(
  "physical_test",
  {
    ...teamKey(),
    name: text("name").notNull(),
    family: text("family", { enum: ["jump", "loaded-jump", "throw", "sprint"] }).notNull(),
    unit: text("unit", { enum: ["cm", "m", "s"] }).notNull(),
    higherIsBetter: boolean("higher_is_better").notNull(),
    /** Done left and right, each recorded apart. */
    sides: boolean("sides").notNull().default(false),
    /** Sprints: the distance, and where splits are taken, m. */
    distanceM: doublePrecision("distance_m"),
    splitM: doublePrecision("split_m"),
    /** Best of the trials, or their mean. */
    take: text("take", { enum: ["best", "mean"] }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.teamId, t.id] }), unique().on(t.teamId, t.name)],
);

/** One athlete's trials of one test on one day, in the order done. */
export const physicalResult = pgTable(
  "physical_result",
  {
    ...teamKey(),
    testId: uuid("test_id").notNull(),
    athleteId: uuid("athlete_id").notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    side: text("side", { enum: ["", "left", "right"] })
      .notNull()
      .default(""),
    /** Jumps: with an approach run. */
    approach: boolean("approach").notNull().default(false),
    /** Load of a loaded jump or a thrown ball, kg; 0 for none. */
    loadKg: doublePrecision("load_kg").notNull().default(0),
    trials: jsonb("trials").$type<number[]>().notNull(),
    /** Split times of the same trials, s. */
    splits: jsonb("splits").$type<number[]>().notNull().default([]),
    /** Cut short: what was reached is a lower bound. */
    atLeast: boolean("at_least").notNull().default(false),
    note: text("note").notNull().default(""),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("physical_result_of_athlete").on(t.teamId, t.athleteId),
    unique().on(t.teamId, t.testId, t.athleteId, t.date, t.side, t.approach, t.loadKg),
    foreignKey({
      columns: [t.teamId, t.testId],
      foreignColumns: [physicalTest.teamId, physicalTest.id],
    }),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);
