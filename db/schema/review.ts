import { sql } from "drizzle-orm";
import {
  bigint,
  boolean,
  check,
  date,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from "drizzle-orm/pg-core";
import type { CallEffect, CallEvidence, CallKind } from "../../core/review/calls";
import type { SessionFacts } from "../../core/review/session-facts";
import type { ExerciseSum, LiftPoints, LiftSum, PairingSum } from "../../core/review/session-sum";
import type { LocalDate } from "../../core/units/time";
import type { Text } from "../../core/units/written";
import { entered, teamKey } from "./keys";
import { plan } from "./plan";
import { trainingSession } from "./session";
import { athlete, squad, team } from "./team";

/**
 * How far a session's log has been summed. Derived from the log alone: a trigger marks a session
 * whose log goes on, and a reader works out anew what is behind. No archive takes it along.
 */
export const sessionSum = pgTable(
  "session_sum",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    sessionId: uuid("session_id").notNull(),
    /** The log has gone on since, or was never summed. */
    behind: boolean("behind").notNull(),
    /** Number of the last entry that is in it; null until it was summed first. */
    seq: bigint("seq", { mode: "number" }),
    summedAt: timestamp("summed_at", { withTimezone: true }),
    facts: jsonb("facts").$type<SessionFacts>(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.sessionId] }),
    index("session_sum_behind").on(t.teamId).where(sql`behind`),
    foreignKey({
      columns: [t.teamId, t.sessionId],
      foreignColumns: [trainingSession.teamId, trainingSession.id],
    }),
  ],
);

/** One athlete's work in one slot of a session, as its review has it; derived as above. */
export const workSum = pgTable(
  "work_sum",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    sessionId: uuid("session_id").notNull(),
    slotId: text("slot_id").notNull(),
    athleteId: uuid("athlete_id").notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    kind: text("kind", { enum: ["lift", "exercise", "pairing"] }).notNull(),
    /** The plan's slot that it was, and its week. */
    planId: uuid("plan_id"),
    planSlotId: text("plan_slot_id"),
    week: integer("week"),
    variantId: uuid("variant_id"),
    exerciseId: uuid("exercise_id"),
    sum: jsonb("sum").$type<LiftSum | ExerciseSum | PairingSum>().notNull(),
    /** Of a lift: the few numbers that trends ask for. */
    points: jsonb("points").$type<LiftPoints>(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.sessionId, t.slotId, t.athleteId] }),
    index("work_sum_of_athlete").on(t.teamId, t.athleteId, t.date),
    index("work_sum_of_plan").on(t.teamId, t.planId, t.planSlotId),
    index("work_sum_by_date").on(t.teamId, t.date),
    foreignKey({
      columns: [t.teamId, t.sessionId],
      foreignColumns: [trainingSession.teamId, trainingSession.id],
    }),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);

/** A call of a review with the coach's word on it: what it stood on, what it changed, what became of it. */
export const reviewCall = pgTable(
  "review_call",
  {
    ...teamKey(),
    kind: text("kind").$type<CallKind>().notNull(),
    /** What it is about, so that one that is decided is not asked again. */
    about: text("about").notNull(),
    athleteId: uuid("athlete_id"),
    squadId: uuid("squad_id"),
    planId: uuid("plan_id"),
    slotId: text("slot_id"),
    variantId: uuid("variant_id"),
    /** The day of the team when it was decided. */
    date: date("date").$type<LocalDate>().notNull(),
    proposal: jsonb("proposal").$type<Text>().notNull(),
    evidence: jsonb("evidence").$type<CallEvidence>().notNull(),
    decision: text("decision", { enum: ["taken", "changed", "declined"] }).notNull(),
    reason: text("reason").notNull().default(""),
    effect: jsonb("effect").$type<CallEffect>().notNull(),
    undoneBy: text("undone_by"),
    undoneAt: timestamp("undone_at", { withTimezone: true }),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    // Of two coaches who decide at once, one does.
    uniqueIndex("review_call_stands").on(t.teamId, t.about).where(sql`undone_at IS NULL`),
    index("review_call_by_date").on(t.teamId, t.date),
    index("review_call_of_athlete").on(t.teamId, t.athleteId),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({ columns: [t.teamId, t.squadId], foreignColumns: [squad.teamId, squad.id] }),
    foreignKey({ columns: [t.teamId, t.planId], foreignColumns: [plan.teamId, plan.id] }),
    check("declined_has_a_reason", sql`decision <> 'declined' OR length(reason) > 0`),
  ],
);

/** What a note may be about. */
export const NOTE_ABOUT = ["athlete", "squad", "session", "plan"] as const;

/** A coach's note; those on health are kept apart: no search, no digest, no print. */
export const note = pgTable(
  "note",
  {
    ...teamKey(),
    about: text("about", { enum: NOTE_ABOUT }).notNull(),
    aboutId: uuid("about_id").notNull(),
    /** Whom it speaks of; with the athlete it is erased. */
    athleteId: uuid("athlete_id"),
    kind: text("kind", { enum: ["note", "hand-over", "health"] }).notNull(),
    /** The day it speaks of. */
    date: date("date").$type<LocalDate>().notNull(),
    words: text("words").notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("note_about").on(t.teamId, t.aboutId),
    index("note_by_date").on(t.teamId, t.date),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);
