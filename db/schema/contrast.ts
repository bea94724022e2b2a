import {
  date,
  doublePrecision,
  foreignKey,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import type { Complex } from "../../core/contrast/complex";
import type { GapTestDay } from "../../core/contrast/gap-test";
import type { Output } from "../../core/contrast/outputs";
import type { LocalDate } from "../../core/units/time";
import { entered, teamKey } from "./keys";
import { athlete } from "./team";

/** The team's complexes: the shipped ones are copied in; each change is a version. */
export const teamComplex = pgTable(
  "team_complex",
  {
    ...teamKey(),
    lineageId: uuid("lineage_id").notNull(),
    version: integer("version").notNull(),
    complex: jsonb("complex").$type<Complex>().notNull(),
    awayOn: date("away_on").$type<LocalDate>(),
    ...entered(),
  },
  (t) => [primaryKey({ columns: [t.teamId, t.id] }), unique().on(t.teamId, t.lineageId, t.version)],
);

/** One day of a gap test; days of the same trial belong together. */
export const gapTestDay = pgTable(
  "gap_test_day",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    /** What is measured, and the heavy set before it, in words. */
    trial: text("trial").notNull(),
    output: text("output").$type<Output>().notNull(),
    heavySet: text("heavy_set").notNull(),
    baseline: doublePrecision("baseline").array().notNull(),
    trials: jsonb("trials").$type<GapTestDay["trials"]>().notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.athleteId, t.trial, t.date),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);
