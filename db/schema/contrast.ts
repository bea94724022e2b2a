import {
  date,
  doublePrecision,
  foreignKey,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import type { Complex, Output } from "../../core/contrast/complex";
import type { GapTestDay } from "../../core/contrast/gap-test";
import type { ItemNumber } from "../../core/contrast/item-load";
import type { RunEntry } from "../../core/contrast/run";
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

export interface RunAthlete {
  athleteId: string;
  /** A simpler version for who is not strong enough yet. */
  simpler: boolean;
  /** The athlete's own gap after the lift, s, where a test found one and it is used. */
  gapS?: number;
  /** Loads by item with their working, as they were when it was started; words alone in old runs. */
  loads: Array<ItemNumber | string>;
}

/** A pairing on the floor: what is run and by whom is frozen when it starts. */
export const complexRun = pgTable(
  "complex_run",
  {
    ...teamKey(),
    complex: jsonb("complex").$type<Complex>().notNull(),
    athletes: jsonb("athletes").$type<RunAthlete[]>().notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    endedAt: timestamp("ended_at", { withTimezone: true }),
    lastSeq: integer("last_seq").notNull().default(0),
    ...entered(),
  },
  (t) => [primaryKey({ columns: [t.teamId, t.id] })],
);

/** One tap of a pairing: append-only, numbered in the transaction that stores it. */
export const complexEntry = pgTable(
  "complex_entry",
  {
    ...teamKey(),
    runId: uuid("run_id").notNull(),
    seq: integer("seq").notNull(),
    body: jsonb("body").$type<RunEntry>().notNull(),
    receivedAt: timestamp("received_at", { withTimezone: true }).notNull(),
    enteredBy: text("entered_by").notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.runId, t.seq),
    foreignKey({
      columns: [t.teamId, t.runId],
      foreignColumns: [complexRun.teamId, complexRun.id],
    }),
  ],
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
