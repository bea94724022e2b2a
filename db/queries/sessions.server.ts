import { and, asc, desc, eq, gt, inArray, sql } from "drizzle-orm";
import type { LogEntry } from "../../core/floor/entries";
import type { FrozenSession } from "../../core/floor/frozen";
import type { LocalDate } from "../../core/units/time";
import { logEntry, plan, simulatedLifter, trainingSession } from "../schema";
import type { TeamTransaction } from "../team.server";
import { anyOf } from "./any-of.server";

export interface SessionHead {
  id: string;
  planId: string;
  week: number;
  slotId: string;
  date: LocalDate;
  roomId: string;
  status: "running" | "ended";
  title: string;
  zone: string;
  startedAt: Date;
  endedAt: Date | null;
  lastSeq: number;
}

const head = {
  id: trainingSession.id,
  planId: trainingSession.planId,
  week: trainingSession.week,
  slotId: trainingSession.slotId,
  date: sql<LocalDate>`${trainingSession.date}`,
  roomId: trainingSession.roomId,
  status: trainingSession.status,
  title: sql<string>`${trainingSession.title}`,
  zone: sql<string>`${trainingSession.zone}`,
  startedAt: trainingSession.startedAt,
  endedAt: trainingSession.endedAt,
  lastSeq: trainingSession.lastSeq,
};

export function listSessions(tx: TeamTransaction, most: number): Promise<SessionHead[]> {
  return tx
    .select(head)
    .from(trainingSession)
    .orderBy(desc(trainingSession.date), desc(trainingSession.startedAt))
    .limit(most);
}

export function runningSessions(tx: TeamTransaction): Promise<SessionHead[]> {
  return tx
    .select(head)
    .from(trainingSession)
    .where(eq(trainingSession.status, "running"))
    .orderBy(desc(trainingSession.startedAt));
}

export function sessionsOfPlan(tx: TeamTransaction, planId: string): Promise<SessionHead[]> {
  return tx
    .select(head)
    .from(trainingSession)
    .where(eq(trainingSession.planId, planId))
    .orderBy(asc(trainingSession.week));
}

/** The last sessions of a squad's plans, the newest first. */
export function sessionsOfSquad(
  tx: TeamTransaction,
  squadId: string,
  most: number,
): Promise<SessionHead[]> {
  return tx
    .select(head)
    .from(trainingSession)
    .innerJoin(
      plan,
      and(eq(plan.teamId, trainingSession.teamId), eq(plan.id, trainingSession.planId)),
    )
    .where(eq(plan.squadId, squadId))
    .orderBy(desc(trainingSession.date), desc(trainingSession.startedAt))
    .limit(most);
}

export async function sessionHead(tx: TeamTransaction, id: string) {
  const [row] = await tx.select(head).from(trainingSession).where(eq(trainingSession.id, id));
  return row;
}

export async function frozenOf(tx: TeamTransaction, id: string) {
  const [row] = await tx
    .select({ ...head, frozen: trainingSession.frozen })
    .from(trainingSession)
    .where(eq(trainingSession.id, id));
  return row;
}

/** The frozen sessions of some ids, by id. */
export async function frozenById(
  tx: TeamTransaction,
  ids: readonly string[],
): Promise<Map<string, FrozenSession>> {
  const rows = await tx
    .select({ id: trainingSession.id, frozen: trainingSession.frozen })
    .from(trainingSession)
    .where(anyOf(trainingSession.id, ids));
  return new Map(rows.map((one) => [one.id, one.frozen]));
}

/** Starts a session once: undefined when this week of the plan was started already. */
export async function insertSession(
  tx: TeamTransaction,
  row: Omit<typeof trainingSession.$inferInsert, "teamId"> & { frozen: FrozenSession },
): Promise<string | undefined> {
  const rows = await tx
    .insert(trainingSession)
    .values({ teamId: tx.teamId, ...row })
    .onConflictDoNothing({
      target: [
        trainingSession.teamId,
        trainingSession.planId,
        trainingSession.week,
        trainingSession.slotId,
      ],
    })
    .returning({ id: trainingSession.id });
  return rows[0]?.id;
}

/** A guarded change of state: only a running session ends. */
export async function endSession(tx: TeamTransaction, id: string, at: Date): Promise<boolean> {
  const rows = await tx
    .update(trainingSession)
    .set({ status: "ended", endedAt: at })
    .where(and(eq(trainingSession.id, id), eq(trainingSession.status, "running")))
    .returning({ id: trainingSession.id });
  return rows.length === 1;
}

/** Locks the session against other writers of its log until the transaction ends. */
export async function lockSession(tx: TeamTransaction, id: string) {
  const [row] = await tx
    .select({
      status: trainingSession.status,
      roomId: trainingSession.roomId,
      endedAt: trainingSession.endedAt,
    })
    .from(trainingSession)
    .where(eq(trainingSession.id, id))
    .for("update");
  return row;
}

/** Allots the next `count` sequence numbers of a locked session; returns the first. */
export async function allotSeq(tx: TeamTransaction, id: string, count: number): Promise<number> {
  const [row] = await tx
    .update(trainingSession)
    .set({ lastSeq: sql`${trainingSession.lastSeq} + ${count}` })
    .where(eq(trainingSession.id, id))
    .returning({ last: trainingSession.lastSeq });
  return (row?.last ?? 0) - count + 1;
}

/** What an entry is made of again: a long session has thousands, and only these are read. */
const ENTRY = {
  id: logEntry.id,
  deviceId: logEntry.deviceId,
  bootId: logEntry.bootId,
  deviceSeq: logEntry.deviceSeq,
  monoMs: logEntry.monoMs,
  wallTime: logEntry.wallTime,
  supersedes: logEntry.supersedes,
  schemaVersion: logEntry.schemaVersion,
  body: logEntry.body,
  seq: logEntry.seq,
};

function toEntry(row: Pick<typeof logEntry.$inferSelect, keyof typeof ENTRY>): LogEntry {
  return {
    id: row.id,
    deviceId: row.deviceId,
    bootId: row.bootId,
    deviceSeq: row.deviceSeq,
    monoMs: row.monoMs,
    wallTime: new Date(row.wallTime).toISOString(),
    supersedes: row.supersedes,
    schemaVersion: row.schemaVersion,
    body: row.body,
    seq: row.seq,
  };
}

/** Entries with these ids, wherever in the team they are. */
export async function entriesById(tx: TeamTransaction, ids: string[]) {
  if (ids.length === 0) return [];
  const rows = await tx
    .select({ sessionId: logEntry.sessionId, ...ENTRY })
    .from(logEntry)
    .where(inArray(logEntry.id, ids));
  return rows.map((row) => ({ sessionId: row.sessionId, entry: toEntry(row) }));
}

export async function insertEntries(
  tx: TeamTransaction,
  sessionId: string,
  receivedAt: Date,
  /** With who sent each: a person, or `rack:` and a tablet. */
  entries: ReadonlyArray<LogEntry & { seq: number; author: string }>,
): Promise<void> {
  if (entries.length === 0) return;
  const rows = tx.insert(logEntry).values(
    entries.map((entry) => ({
      teamId: tx.teamId,
      id: entry.id,
      sessionId,
      seq: entry.seq,
      deviceId: entry.deviceId,
      bootId: entry.bootId,
      deviceSeq: entry.deviceSeq,
      monoMs: entry.monoMs,
      wallTime: entry.wallTime,
      receivedAt,
      supersedes: entry.supersedes,
      schemaVersion: entry.schemaVersion,
      kind: entry.body.kind,
      body: entry.body,
      author: entry.author,
    })),
  );
  // An id that another session took a moment ago is left out; who reads back sees it.
  await rows.onConflictDoNothing({ target: [logEntry.teamId, logEntry.id] });
}

/** What comes after a sequence number, in order: everything, or the first `most`. */
export async function entriesAfter(
  tx: TeamTransaction,
  sessionId: string,
  seq: number,
  most?: number,
): Promise<LogEntry[]> {
  const all = tx
    .select(ENTRY)
    .from(logEntry)
    .where(and(eq(logEntry.sessionId, sessionId), gt(logEntry.seq, seq)))
    .orderBy(asc(logEntry.seq));
  const rows = await (most === undefined ? all : all.limit(most));
  return rows.map(toEntry);
}

/** Every entry of some sessions, by session and in order. */
export async function entriesOfSessions(
  tx: TeamTransaction,
  ids: readonly string[],
): Promise<Map<string, LogEntry[]>> {
  const rows = await tx
    .select({ sessionId: logEntry.sessionId, ...ENTRY })
    .from(logEntry)
    .where(anyOf(logEntry.sessionId, ids))
    .orderBy(asc(logEntry.sessionId), asc(logEntry.seq));
  const bySession = new Map<string, LogEntry[]>(ids.map((id) => [id, []]));
  for (const row of rows) bySession.get(row.sessionId)?.push(toEntry(row));
  return bySession;
}

/** The stand-in lifters of some athletes for one variant. */
export async function simulatedLifters(
  tx: TeamTransaction,
  variantId: string,
  athleteIds: string[],
) {
  if (athleteIds.length === 0) return [];
  return tx
    .select({ athleteId: simulatedLifter.athleteId, truth: simulatedLifter.truth })
    .from(simulatedLifter)
    .where(
      and(eq(simulatedLifter.variantId, variantId), inArray(simulatedLifter.athleteId, athleteIds)),
    );
}

/** Of a squat, with the box or without: what the depth ledger and the fault history look at. */
const SQUATS = inArray(trainingSession.lift, ["squat", "box-squat"]);

/** Taken back, or corrected by a later entry. */
const STANDS = sql`NOT EXISTS (
  SELECT 1 FROM log_entry later
  WHERE later.team_id = ${logEntry.teamId} AND later.session_id = ${logEntry.sessionId}
    AND later.supersedes <> '{}' AND ${logEntry.id} = ANY (later.supersedes)
)`;

/** The share of the max of the set that an entry speaks of, as it was frozen. */
const PERCENT = sql<number | null>`(
  SELECT (one_set->>'truePercent')::float8
  FROM jsonb_array_elements(${trainingSession.frozen}->'racks') rack,
    jsonb_array_elements(rack->'lifters') lifter,
    jsonb_array_elements(lifter->'sets') one_set
  WHERE lifter->>'athleteId' = ${logEntry.body}->>'athleteId'
    AND one_set->>'key' = ${logEntry.body}->>'setKey'
  LIMIT 1
)`;

const ofAthletes = (athleteIds: readonly string[], kind: "set-done" | "fault") =>
  and(
    anyOf(logEntry.athleteId, athleteIds),
    eq(logEntry.kind, kind),
    // Named as the index names it, so that it serves.
    sql`${logEntry.kind} IN ('set-done', 'fault')`,
    SQUATS,
    STANDS,
  );

const sessionOfEntry = and(
  eq(trainingSession.teamId, logEntry.teamId),
  eq(trainingSession.id, logEntry.sessionId),
);

/** Faults that some athletes were tagged with at their squats, with the share of the max. */
export async function faultsTagged(tx: TeamTransaction, athleteIds: readonly string[]) {
  if (athleteIds.length === 0) return [];
  const rows = await tx
    .select({
      athleteId: sql<string>`${logEntry.athleteId}`,
      date: trainingSession.date,
      fault: sql<string>`${logEntry.body}->>'fault'`,
      percent: PERCENT,
    })
    .from(logEntry)
    .innerJoin(trainingSession, sessionOfEntry)
    .where(ofAthletes(athleteIds, "fault"))
    .orderBy(asc(trainingSession.date), asc(logEntry.seq));
  return rows.map((row) => ({ ...row, percent: row.percent ?? undefined }));
}

/** Days on which some athletes squatted, with the sets done, by lift. */
export function squatDays(tx: TeamTransaction, athleteIds: readonly string[]) {
  return tx
    .select({
      athleteId: sql<string>`${logEntry.athleteId}`,
      date: trainingSession.date,
      lift: sql<string>`${trainingSession.lift}`,
      sets: sql<number>`count(*)::int`,
    })
    .from(logEntry)
    .innerJoin(trainingSession, sessionOfEntry)
    .where(ofAthletes(athleteIds, "set-done"))
    .groupBy(logEntry.athleteId, trainingSession.date, trainingSession.lift)
    .orderBy(asc(trainingSession.date));
}
