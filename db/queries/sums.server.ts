import { isDeepStrictEqual } from "node:util";
import { and, asc, desc, eq, gte, inArray, isNull, lt, lte, or, sql } from "drizzle-orm";
import type { SessionFacts } from "../../core/review/session-facts";
import {
  type ExerciseSum,
  type LiftPoints,
  type LiftSum,
  type LineSum,
  type PairingSum,
  pointsOf,
  type SessionSum,
} from "../../core/review/session-sum";
import type { LocalDate } from "../../core/units/time";
import { sessionSum, trainingSession, workSum } from "../schema";
import type { TeamTransaction } from "../team.server";
import { anyOf, inParts } from "./any-of.server";

/**
 * Sessions whose log went on since they were summed, the newest first. One that runs is behind with
 * every rep: it is left until its sum is so old.
 */
export async function behindSums(
  tx: TeamTransaction,
  asked: { most: number; runningBefore: Date },
): Promise<string[]> {
  const rows = await tx
    .select({ id: sessionSum.sessionId })
    .from(sessionSum)
    .innerJoin(
      trainingSession,
      and(
        eq(trainingSession.teamId, sessionSum.teamId),
        eq(trainingSession.id, sessionSum.sessionId),
      ),
    )
    .where(
      and(
        eq(sessionSum.behind, true),
        or(
          eq(trainingSession.status, "ended"),
          isNull(sessionSum.summedAt),
          lt(sessionSum.summedAt, asked.runningBefore),
        ),
      ),
    )
    .orderBy(desc(trainingSession.date))
    .limit(asked.most);
  return rows.map((row) => row.id);
}

const KEYS = { slotId: workSum.slotId, athleteId: workSum.athleteId, sum: workSum.sum };

/**
 * Keeps what a session came to up to an entry, unless a newer sum is there. Writers of the log wait for
 * these few rows at most: only lines that changed are written.
 */
export async function keepSum(
  tx: TeamTransaction,
  of: {
    sessionId: string;
    date: LocalDate;
    seq: number;
    at: Date;
    facts: SessionFacts;
    sum: SessionSum;
    /** What the session's row says of its plan, for slots from before each said it of itself. */
    plan: { planId: string; week: number } | undefined;
  },
): Promise<{ written: number }> {
  const { sessionId, seq } = of;
  const [session] = await tx
    .select({ lastSeq: trainingSession.lastSeq })
    .from(trainingSession)
    .where(eq(trainingSession.id, sessionId))
    .for("share");
  if (!session) return { written: 0 };
  const kept = await tx
    .update(sessionSum)
    .set({ behind: session.lastSeq > seq, seq, summedAt: of.at, facts: of.facts })
    .where(
      and(
        eq(sessionSum.sessionId, sessionId),
        or(isNull(sessionSum.seq), sql`${sessionSum.seq} <= ${seq}`),
      ),
    )
    .returning({ id: sessionSum.sessionId });
  if (kept.length === 0) return { written: 0 };
  const there = new Map(
    (await tx.select(KEYS).from(workSum).where(eq(workSum.sessionId, sessionId))).map((row) => [
      `${row.slotId}/${row.athleteId}`,
      row.sum,
    ]),
  );
  const heads = new Map(of.sum.slots.map((head) => [head.slotId, head]));
  const rows = of.sum.lines.flatMap((line) => {
    const key = `${line.slotId}/${line.athleteId}`;
    // As the database gives it back: without what is undefined.
    const sum = JSON.parse(JSON.stringify(line.sum)) as LineSum["sum"];
    const before = there.get(key);
    there.delete(key);
    if (before !== undefined && isDeepStrictEqual(before, sum)) return [];
    const head = heads.get(line.slotId);
    const from = head?.from ?? (of.plan && { ...of.plan, slotId: line.slotId });
    return [
      {
        teamId: tx.teamId,
        sessionId,
        slotId: line.slotId,
        athleteId: line.athleteId,
        date: of.date,
        kind: line.kind,
        planId: from?.planId ?? null,
        planSlotId: from?.slotId ?? null,
        week: from?.week ?? null,
        variantId: (head?.kind === "lift" && head.variantId) || null,
        // The teaching ladder is no exercise of the library.
        exerciseId: (head?.kind === "exercise" && head.exerciseId) || null,
        sum,
        points: line.kind === "lift" ? pointsOf(line.sum) : null,
      },
    ];
  });
  for (const part of inParts(rows))
    await tx
      .insert(workSum)
      .values(part)
      .onConflictDoUpdate({
        target: [workSum.teamId, workSum.sessionId, workSum.slotId, workSum.athleteId],
        set: { sum: sql`excluded.sum`, points: sql`excluded.points` },
      });
  for (const gone of there.keys()) {
    const [slotId = "", athleteId = ""] = gone.split("/");
    await tx
      .delete(workSum)
      .where(
        and(
          eq(workSum.sessionId, sessionId),
          eq(workSum.slotId, slotId),
          eq(workSum.athleteId, athleteId),
        ),
      );
  }
  return { written: rows.length };
}

/** A session's kept sum; undefined where it was never summed. */
export async function sumOfSession(tx: TeamTransaction, sessionId: string) {
  const [head] = await tx
    .select({ facts: sessionSum.facts, seq: sessionSum.seq, behind: sessionSum.behind })
    .from(sessionSum)
    .where(eq(sessionSum.sessionId, sessionId));
  if (!head?.facts) return undefined;
  const lines = await tx
    .select({ ...KEYS, kind: workSum.kind })
    .from(workSum)
    .where(eq(workSum.sessionId, sessionId));
  return { ...head, facts: head.facts, lines: lines as LineSum[] };
}

/** One athlete's lift on one day, in the few numbers that trends ask for. */
export interface LiftPoint {
  sessionId: string;
  athleteId: string;
  date: LocalDate;
  planId: string | null;
  planSlotId: string | null;
  week: number | null;
  variantId: string | null;
  points: LiftPoints;
}

/** The same with every set. */
export interface LiftDay {
  sessionId: string;
  slotId: string;
  athleteId: string;
  date: LocalDate;
  planId: string | null;
  planSlotId: string | null;
  week: number | null;
  variantId: string | null;
  sum: LiftSum;
}

const LIFT_DAY = {
  sessionId: workSum.sessionId,
  slotId: workSum.slotId,
  athleteId: workSum.athleteId,
  date: sql<LocalDate>`${workSum.date}`,
  planId: workSum.planId,
  planSlotId: workSum.planSlotId,
  week: workSum.week,
  variantId: workSum.variantId,
  sum: sql<LiftSum>`${workSum.sum}`,
};

/** Days of some athletes' lifts from a date on (to another), the oldest first. */
export function liftPoints(
  tx: TeamTransaction,
  asked: {
    athleteIds: readonly string[];
    from: LocalDate;
    to?: LocalDate;
    variantIds?: readonly string[];
  },
): Promise<LiftPoint[]> {
  const { sum: _, slotId: __, ...head } = LIFT_DAY;
  return tx
    .select({ ...head, points: sql<LiftPoints>`${workSum.points}` })
    .from(workSum)
    .where(
      and(
        anyOf(workSum.athleteId, asked.athleteIds),
        gte(workSum.date, asked.from),
        asked.to === undefined ? undefined : lte(workSum.date, asked.to),
        eq(workSum.kind, "lift"),
        asked.variantIds ? inArray(workSum.variantId, [...asked.variantIds]) : undefined,
      ),
    )
    .orderBy(asc(workSum.date), asc(workSum.sessionId));
}

/** One athlete's days of one lift from a date on, with every set, the oldest first. */
export function liftDaysOf(
  tx: TeamTransaction,
  of: { athleteId: string; variantId: string; from: LocalDate },
): Promise<LiftDay[]> {
  return tx
    .select(LIFT_DAY)
    .from(workSum)
    .where(
      and(
        eq(workSum.athleteId, of.athleteId),
        gte(workSum.date, of.from),
        eq(workSum.kind, "lift"),
        eq(workSum.variantId, of.variantId),
      ),
    )
    .orderBy(asc(workSum.date), asc(workSum.sessionId));
}

/** Every athlete's days of one slot of a plan, the oldest first. */
export function liftDaysOfSlot(
  tx: TeamTransaction,
  of: { planId: string; slotId: string },
): Promise<LiftDay[]> {
  return tx
    .select(LIFT_DAY)
    .from(workSum)
    .where(
      and(
        eq(workSum.planId, of.planId),
        eq(workSum.planSlotId, of.slotId),
        eq(workSum.kind, "lift"),
      ),
    )
    .orderBy(asc(workSum.date), asc(workSum.sessionId));
}

/** Every athlete's days of some slots' weeks, the oldest first. */
export async function liftDaysOfWeeks(
  tx: TeamTransaction,
  of: ReadonlyArray<{ planId: string; slotId: string; weeks: readonly number[] }>,
): Promise<LiftDay[]> {
  if (of.length === 0) return [];
  return tx
    .select(LIFT_DAY)
    .from(workSum)
    .where(
      and(
        eq(workSum.kind, "lift"),
        or(
          ...of.map(({ planId, slotId, weeks }) =>
            and(
              eq(workSum.planId, planId),
              eq(workSum.planSlotId, slotId),
              inArray(workSum.week, [...weeks]),
            ),
          ),
        ),
      ),
    )
    .orderBy(asc(workSum.date), asc(workSum.sessionId));
}

/** What some athletes did without a bar and in pairings from a date on, the oldest first. */
export async function otherWork(
  tx: TeamTransaction,
  asked: { athleteIds: readonly string[]; from: LocalDate; to?: LocalDate },
) {
  const rows = await tx
    .select({ ...LIFT_DAY, kind: workSum.kind, exerciseId: workSum.exerciseId, sum: workSum.sum })
    .from(workSum)
    .where(
      and(
        anyOf(workSum.athleteId, asked.athleteIds),
        gte(workSum.date, asked.from),
        asked.to === undefined ? undefined : lte(workSum.date, asked.to),
        inArray(workSum.kind, ["exercise", "pairing"]),
      ),
    )
    .orderBy(asc(workSum.date), asc(workSum.sessionId));
  return {
    exercises: rows.flatMap((row) =>
      row.kind === "exercise" ? [{ ...row, sum: row.sum as ExerciseSum }] : [],
    ),
    pairings: rows.flatMap((row) =>
      row.kind === "pairing" ? [{ ...row, sum: row.sum as PairingSum }] : [],
    ),
  };
}

/** The newest day on which some athletes did anything; undefined where they never did. */
export async function newestWork(
  tx: TeamTransaction,
  athleteIds: readonly string[],
): Promise<LocalDate | undefined> {
  const [row] = await tx
    .select({ date: sql<LocalDate | null>`max(${workSum.date})` })
    .from(workSum)
    .where(anyOf(workSum.athleteId, athleteIds));
  return row?.date ?? undefined;
}
