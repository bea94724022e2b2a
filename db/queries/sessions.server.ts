import {
  and,
  asc,
  desc,
  eq,
  gt,
  gte,
  inArray,
  isNotNull,
  isNull,
  lte,
  ne,
  or,
  sql,
} from "drizzle-orm";
import { putCopies, takeCopies } from "../../core/floor/display-copy";
import { type EntryBody, type LogEntry, RAMP_KEY, withoutPlace } from "../../core/floor/entries";
import type { FrozenSession } from "../../core/floor/frozen";
import type { LocalDate } from "../../core/units/time";
import {
  entryWords,
  logEntry,
  plan,
  sessionChange,
  sessionPerson,
  simulatedLifter,
  trainingSession,
} from "../schema";
import type { TeamTransaction } from "../team.server";
import { anyOf } from "./any-of.server";
import { type InSquads, squadsOf } from "./squads.server";

/** A slot of a plan's week that a session puts on the floor. */
export interface SessionPart {
  planId: string;
  week: number;
  slotId: string;
}

/** Of any session: a plan's day, or a pairing that has neither plan nor room. */
export interface SessionHead {
  id: string;
  planId: string | null;
  week: number | null;
  slotId: string;
  date: LocalDate;
  roomId: string | null;
  status: "running" | "ended";
  title: string;
  zone: string;
  startedAt: Date;
  endedAt: Date | null;
  lastSeq: number;
  /** Who trains it alone; null where a coach put it on the floor. */
  ownOf: string | null;
}

/** Of a session that a plan put on the floor of a room. */
export interface PlanSession extends SessionHead {
  planId: string;
  week: number;
  roomId: string;
  /** Every slot of it that a plan asked for. */
  parts: SessionPart[];
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
  ownOf: trainingSession.ownOf,
};

/** What plans asked for: a session of one slot from before a session was a day says so in its row. */
const PARTS = sql<SessionPart[]>`CASE WHEN jsonb_array_length(${trainingSession.parts}) > 0
  THEN ${trainingSession.parts}
  ELSE jsonb_build_array(jsonb_build_object('planId', ${trainingSession.planId},
    'week', ${trainingSession.week}, 'slotId', ${trainingSession.slotId})) END`;

const planHead = {
  ...head,
  parts: PARTS,
  planId: sql<string>`${trainingSession.planId}`,
  week: sql<number>`${trainingSession.week}`,
  roomId: sql<string>`${trainingSession.roomId}`,
};

/**
 * Sessions of plans, the newest first.
 * @param of those of floors or those of who trains alone; both where left out
 */
export function listSessions(
  tx: TeamTransaction,
  most: number,
  of?: "floor" | "alone",
): Promise<PlanSession[]> {
  return tx
    .select(planHead)
    .from(trainingSession)
    .where(
      and(
        isNotNull(trainingSession.planId),
        of === "floor" ? isNull(trainingSession.ownOf) : undefined,
        of === "alone" ? isNotNull(trainingSession.ownOf) : undefined,
      ),
    )
    .orderBy(desc(trainingSession.date), desc(trainingSession.startedAt))
    .limit(most);
}

/** Sessions of some days with their names, the oldest first. */
export function sessionsBetween(tx: TeamTransaction, from: LocalDate, to: LocalDate) {
  return tx
    .select({ id: head.id, date: head.date, title: head.title })
    .from(trainingSession)
    .where(and(gte(trainingSession.date, from), lte(trainingSession.date, to)))
    .orderBy(asc(trainingSession.date), asc(trainingSession.startedAt));
}

/** Sessions that run on the floors of rooms now, the newest first: not who trains alone. */
export function runningSessions(tx: TeamTransaction): Promise<PlanSession[]> {
  return tx
    .select(planHead)
    .from(trainingSession)
    .where(
      and(
        isNotNull(trainingSession.planId),
        isNull(trainingSession.ownOf),
        eq(trainingSession.status, "running"),
      ),
    )
    .orderBy(desc(trainingSession.startedAt));
}

export function sessionsOfPlan(tx: TeamTransaction, planId: string): Promise<PlanSession[]> {
  return tx
    .select(planHead)
    .from(trainingSession)
    .where(
      or(
        eq(trainingSession.planId, planId),
        sql`${trainingSession.parts} @> ${JSON.stringify([{ planId }])}::jsonb`,
      ),
    )
    .orderBy(asc(trainingSession.week));
}

/** The last sessions of somebody's plans (their squads' and their own), the newest first. */
export function sessionsFor(
  tx: TeamTransaction,
  person: InSquads,
  most: number,
): Promise<PlanSession[]> {
  return tx
    .select(planHead)
    .from(trainingSession)
    .innerJoin(
      plan,
      and(eq(plan.teamId, trainingSession.teamId), eq(plan.id, trainingSession.planId)),
    )
    .where(
      and(
        or(anyOf(plan.squadId, squadsOf(person)), eq(plan.athleteId, person.id)),
        or(isNull(trainingSession.ownOf), eq(trainingSession.ownOf, person.id)),
      ),
    )
    .orderBy(desc(trainingSession.date), desc(trainingSession.startedAt))
    .limit(most);
}

/** What somebody trains or trained alone, the newest first. */
export function sessionsAlone(
  tx: TeamTransaction,
  athleteId: string,
  most: number,
): Promise<PlanSession[]> {
  return tx
    .select(planHead)
    .from(trainingSession)
    .where(eq(trainingSession.ownOf, athleteId))
    .orderBy(desc(trainingSession.startedAt))
    .limit(most);
}

export async function sessionHead(tx: TeamTransaction, id: string) {
  const [row] = await tx.select(head).from(trainingSession).where(eq(trainingSession.id, id));
  return row;
}

/** Frozen sessions with the names they show, which stand in a table of their own. */
async function withCopies<T extends { id: string; frozen: FrozenSession }>(
  tx: TeamTransaction,
  rows: readonly T[],
): Promise<T[]> {
  if (rows.length === 0) return [];
  const copies = await tx
    .select()
    .from(sessionPerson)
    .where(
      anyOf(
        sessionPerson.sessionId,
        rows.map((row) => row.id),
      ),
    );
  const bySession = new Map<string, typeof copies>(rows.map((row) => [row.id, []]));
  for (const copy of copies) bySession.get(copy.sessionId)?.push(copy);
  return rows.map((row) => ({
    ...row,
    frozen: putCopies(
      row.frozen,
      (bySession.get(row.id) ?? []).map(({ setup, setups, ...copy }) => ({
        ...copy,
        setups: setups ?? {},
        setup: setup ?? undefined,
      })),
    ),
  }));
}

export async function frozenOf(tx: TeamTransaction, id: string) {
  const rows = await tx
    .select({ ...head, frozen: trainingSession.frozen })
    .from(trainingSession)
    .where(eq(trainingSession.id, id));
  return (await withCopies(tx, rows))[0];
}

/** What a session calls those who are in it; who was erased has no name there. */
export async function namesInSession(
  tx: TeamTransaction,
  sessionId: string,
): Promise<Map<string, string>> {
  const rows = await tx
    .select({ id: sessionPerson.athleteId, name: sessionPerson.name })
    .from(sessionPerson)
    .where(eq(sessionPerson.sessionId, sessionId));
  return new Map(rows.map((row) => [row.id, row.name]));
}

/** Why some calls were declined or changed, by entry. */
export async function reasonsOf(
  tx: TeamTransaction,
  entryIds: readonly string[],
): Promise<Map<string, string>> {
  if (entryIds.length === 0) return new Map();
  const rows = await tx
    .select({ id: entryWords.id, reason: entryWords.reason })
    .from(entryWords)
    .where(anyOf(entryWords.id, entryIds));
  return new Map(rows.flatMap((row) => (row.reason ? [[row.id, row.reason] as const] : [])));
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
  return new Map((await withCopies(tx, rows)).map((one) => [one.id, one.frozen]));
}

/** Every session of the team with its day and title, the oldest first. */
export function sessionIds(tx: TeamTransaction) {
  return tx
    .select({ id: trainingSession.id, date: trainingSession.date, title: trainingSession.title })
    .from(trainingSession)
    .orderBy(asc(trainingSession.date), asc(trainingSession.startedAt), asc(trainingSession.id));
}

/**
 * Starts a session once: undefined when this week of the plan was started already, by the coach or,
 * of one who trains alone, by that athlete.
 */
export async function insertSession(
  tx: TeamTransaction,
  row: Omit<typeof trainingSession.$inferInsert, "teamId"> & { frozen: FrozenSession },
): Promise<string | undefined> {
  const { frozen, copies } = takeCopies(row.frozen);
  const rows = await tx
    .insert(trainingSession)
    .values({ teamId: tx.teamId, ...row, frozen })
    .onConflictDoNothing()
    .returning({ id: trainingSession.id });
  const id = rows[0]?.id;
  if (id !== undefined && copies.length > 0)
    await tx
      .insert(sessionPerson)
      .values(
        copies.map(({ setup: _, ...copy }) => ({ teamId: tx.teamId, sessionId: id, ...copy })),
      );
  return id;
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

/** A guarded change of state: only an ended session is opened again. */
export async function reopenSession(tx: TeamTransaction, id: string): Promise<boolean> {
  const rows = await tx
    .update(trainingSession)
    .set({ status: "running", endedAt: null })
    .where(and(eq(trainingSession.id, id), eq(trainingSession.status, "ended")))
    .returning({ id: trainingSession.id });
  return rows.length === 1;
}

export async function addSessionChange(
  tx: TeamTransaction,
  row: Omit<typeof sessionChange.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(sessionChange).values({ teamId: tx.teamId, ...row });
}

/** Who ended a session or opened it again, the newest last. */
export function sessionChanges(tx: TeamTransaction, sessionId: string) {
  return tx
    .select()
    .from(sessionChange)
    .where(eq(sessionChange.sessionId, sessionId))
    .orderBy(asc(sessionChange.enteredAt));
}

/** The newest pairings. */
export async function listPairings(tx: TeamTransaction, most: number) {
  const rows = await tx
    .select({ ...head, frozen: trainingSession.frozen })
    .from(trainingSession)
    .where(isNull(trainingSession.planId))
    .orderBy(desc(trainingSession.startedAt))
    .limit(most);
  return withCopies(tx, rows);
}

/** The newest pairings that an athlete took part in. */
export async function pairingsOfAthlete(tx: TeamTransaction, athleteId: string, most = 60) {
  const part = { slots: [{ groups: [{ athletes: [{ athleteId }] }] }] };
  const rows = await tx
    .select({ ...head, frozen: trainingSession.frozen })
    .from(trainingSession)
    .where(sql`${trainingSession.frozen} @> ${JSON.stringify(part)}::jsonb`)
    .orderBy(desc(trainingSession.date), desc(trainingSession.startedAt))
    .limit(most);
  return withCopies(tx, rows);
}

/** The newest sessions since a day in which an athlete had a variant to lift. */
export function sessionsOfLift(
  tx: TeamTransaction,
  of: { athleteId: string; variantId: string; since: LocalDate; most: number },
): Promise<Array<{ id: string; date: LocalDate }>> {
  const lift = { slots: [{ variantId: of.variantId }] };
  return tx
    .select({ id: trainingSession.id, date: trainingSession.date })
    .from(trainingSession)
    .innerJoin(
      sessionPerson,
      and(
        eq(sessionPerson.teamId, trainingSession.teamId),
        eq(sessionPerson.sessionId, trainingSession.id),
      ),
    )
    .where(
      and(
        eq(sessionPerson.athleteId, of.athleteId),
        gte(trainingSession.date, of.since),
        sql`${trainingSession.frozen} @> ${JSON.stringify(lift)}::jsonb`,
      ),
    )
    .orderBy(desc(trainingSession.date), desc(trainingSession.startedAt))
    .limit(of.most);
}

/** Locks the session against other writers of its log until the transaction ends. */
export async function lockSession(tx: TeamTransaction, id: string) {
  const [row] = await tx
    .select({
      status: trainingSession.status,
      roomId: trainingSession.roomId,
      endedAt: trainingSession.endedAt,
      ownOf: trainingSession.ownOf,
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
  madeAt: logEntry.madeAt,
  doubt: logEntry.doubt,
  author: logEntry.author,
  why: entryWords.why,
  reason: entryWords.reason,
};

/** What a person wrote with an entry stands beside the log, from where it can be erased. */
const withWords = and(eq(entryWords.teamId, logEntry.teamId), eq(entryWords.id, logEntry.id));

type EntryRow = Pick<typeof logEntry.$inferSelect, Exclude<keyof typeof ENTRY, "why" | "reason">> &
  Record<"why" | "reason", string | null>;

/** A body as the log keeps it, and the words that go beside it. */
function apart(body: EntryBody): { body: EntryBody; why?: string; reason?: string } {
  const { why, ...rest } = body;
  const words = why === undefined ? {} : { why };
  if (rest.kind !== "call" && rest.kind !== "pairing-stop" && rest.kind !== "note")
    return { body: rest, ...words };
  const { reason, ...bare } = rest;
  return { body: bare as EntryBody, ...words, ...(reason === "" ? {} : { reason }) };
}

function together({ body, why, reason }: Pick<EntryRow, "body" | "why" | "reason">): EntryBody {
  const asked = body.kind === "call" || body.kind === "pairing-stop" || body.kind === "note";
  return {
    ...body,
    ...(asked ? { reason: reason ?? "" } : {}),
    ...(why === null ? {} : { why }),
  } as EntryBody;
}

function toEntry(row: EntryRow): LogEntry {
  return {
    id: row.id,
    deviceId: row.deviceId,
    bootId: row.bootId,
    deviceSeq: row.deviceSeq,
    monoMs: row.monoMs,
    wallTime: new Date(row.wallTime).toISOString(),
    supersedes: row.supersedes,
    schemaVersion: row.schemaVersion,
    body: together(row),
    seq: row.seq,
    ...(row.madeAt ? { madeAt: row.madeAt.toISOString() } : {}),
    ...(row.doubt ? { doubt: row.doubt } : {}),
    by: row.author,
  };
}

/** Entries with these ids, wherever in the team they are. */
export async function entriesById(tx: TeamTransaction, ids: string[]) {
  if (ids.length === 0) return [];
  const rows = await tx
    .select({ sessionId: logEntry.sessionId, ...ENTRY })
    .from(logEntry)
    .leftJoin(entryWords, withWords)
    .where(inArray(logEntry.id, ids));
  return rows.map((row) => ({ sessionId: row.sessionId, entry: toEntry(row) }));
}

export async function insertEntries(
  tx: TeamTransaction,
  sessionId: string,
  receivedAt: Date,
  /** With who sent each: a person, or `rack:` and a tablet. */
  entries: ReadonlyArray<Omit<LogEntry, "by"> & { seq: number; author: string }>,
): Promise<void> {
  if (entries.length === 0) return;
  const words = new Map<string, { why?: string; reason?: string }>();
  const rows = tx.insert(logEntry).values(
    entries.map((entry) => {
      // Where it hurts is kept with the reasons of limits, by the workflow that takes it.
      const { body, ...beside } = apart(withoutPlace(entry).body);
      if (Object.keys(beside).length > 0) words.set(entry.id, beside);
      return {
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
        kind: body.kind,
        body,
        author: entry.author,
        madeAt: entry.madeAt === undefined ? null : new Date(entry.madeAt),
        doubt: entry.doubt ?? null,
      };
    }),
  );
  // An id that another session took a moment ago is left out; who reads back sees it.
  const stored = await rows
    .onConflictDoNothing({ target: [logEntry.teamId, logEntry.id] })
    .returning({ id: logEntry.id });
  const beside = stored.flatMap(({ id }) => {
    const own = words.get(id);
    return own ? [{ teamId: tx.teamId, id, ...own }] : [];
  });
  if (beside.length > 0) await tx.insert(entryWords).values(beside);
}

/** Which entries of a session are read; everything where left out. */
interface EntriesWanted {
  /** The first so many. */
  most?: number;
  /** What speaks of these athletes, or of nobody: voids, notes, a coach's word. */
  of?: readonly string[];
  /**
   * The reps of these athletes alone, and all that is no rep: what a station needs to know of the
   * others is which sets are done.
   */
  repsOf?: readonly string[];
}

/** What comes after a sequence number, in order. */
export async function entriesAfter(
  tx: TeamTransaction,
  sessionId: string,
  seq: number,
  { most, of, repsOf }: EntriesWanted = {},
): Promise<LogEntry[]> {
  const all = tx
    .select(ENTRY)
    .from(logEntry)
    .leftJoin(entryWords, withWords)
    .where(
      and(
        eq(logEntry.sessionId, sessionId),
        gt(logEntry.seq, seq),
        of && or(isNull(logEntry.athleteId), anyOf(logEntry.athleteId, of)),
        // A correction may give a rep to somebody else: it is read wherever it stands.
        repsOf &&
          or(
            ne(logEntry.kind, "rep"),
            sql`${logEntry.supersedes} <> '{}'`,
            anyOf(logEntry.athleteId, repsOf),
          ),
      ),
    )
    .orderBy(asc(logEntry.seq));
  const rows = await (most === undefined ? all : all.limit(most));
  return rows.map(toEntry);
}

/** Who was sent to a station in a session, or came in at it. */
export async function movedTo(
  tx: TeamTransaction,
  sessionId: string,
  stationId: string,
): Promise<string[]> {
  const rows = await tx
    .selectDistinct({ athleteId: logEntry.athleteId })
    .from(logEntry)
    .where(
      and(
        eq(logEntry.sessionId, sessionId),
        eq(logEntry.kind, "move"),
        sql`${logEntry.body}->>'stationId' = ${stationId}`,
      ),
    );
  return rows.flatMap((row) => row.athleteId ?? []);
}

/** Every entry of some sessions, by session and in order. */
export async function entriesOfSessions(
  tx: TeamTransaction,
  ids: readonly string[],
): Promise<Map<string, LogEntry[]>> {
  const rows = await tx
    .select({ sessionId: logEntry.sessionId, ...ENTRY })
    .from(logEntry)
    .leftJoin(entryWords, withWords)
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
const SQUATS = ["squat", "box-squat"];

/** Which lift an entry of a session's log speaks of. */
const LIFT_OF_ENTRY = sql<string>`(
  SELECT slot->>'lift' FROM jsonb_array_elements(${trainingSession.frozen}->'slots') slot
  WHERE slot->>'slotId' = ${logEntry.body}->>'slotId' LIMIT 1
)`;

/** Taken back, or corrected by a later entry. */
const STANDS = sql`NOT EXISTS (
  SELECT 1 FROM log_entry later
  WHERE later.team_id = ${logEntry.teamId} AND later.session_id = ${logEntry.sessionId}
    AND later.supersedes <> '{}' AND ${logEntry.id} = ANY (later.supersedes)
)`;

/** The share of the max of the set that an entry speaks of, as it was frozen. */
const PERCENT = sql<number | null>`(
  SELECT (one_set->>'truePercent')::float8
  FROM jsonb_array_elements(${trainingSession.frozen}->'slots') slot,
    jsonb_array_elements(slot->'groups') of_station,
    jsonb_array_elements(of_station->'lifters') lifter,
    jsonb_array_elements(lifter->'sets') one_set
  WHERE slot->>'slotId' = ${logEntry.body}->>'slotId'
    AND lifter->>'athleteId' = ${logEntry.body}->>'athleteId'
    AND one_set->>'key' = ${logEntry.body}->>'setKey'
  LIMIT 1
)`;

const ofAthletes = (athleteIds: readonly string[], kind: "set-done" | "fault") =>
  and(
    anyOf(logEntry.athleteId, athleteIds),
    eq(logEntry.kind, kind),
    // Named as the index names it, so that it serves.
    sql`${logEntry.kind} IN ('set-done', 'fault')`,
    or(...SQUATS.map((lift) => sql`${trainingSession.lifts} @> ${JSON.stringify([lift])}::jsonb`)),
    inArray(LIFT_OF_ENTRY, SQUATS),
    // A warm-up is no set of the plan.
    sql`${logEntry.body}->>'setKey' NOT LIKE ${`${RAMP_KEY}%`}`,
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
  const eachSet = tx
    .select({
      athleteId: sql<string>`${logEntry.athleteId}`.as("of_athlete"),
      sessionId: trainingSession.id,
      date: trainingSession.date,
      lift: LIFT_OF_ENTRY.as("lift"),
      /** Of the seat as it was built that day, over the athlete's own height, cm. */
      overCm: sql<number | null>`jsonb_path_query_first(
        ${trainingSession.frozen},
        '$.slots[*] ? (@.lift == "box-squat" && @.slotId == $slot)
          .groups[*].lifters[*] ? (@.athleteId == $athlete).box.overCm',
        jsonb_build_object('athlete', ${logEntry.athleteId},
          'slot', ${logEntry.body}->>'slotId'))::float8`.as("over_cm"),
    })
    .from(logEntry)
    .innerJoin(trainingSession, sessionOfEntry)
    .where(ofAthletes(athleteIds, "set-done"))
    .as("each_set");
  const { athleteId, sessionId, date, lift, overCm } = eachSet;
  return tx
    .select({ athleteId, date, lift, overCm, sets: sql<number>`count(*)::int` })
    .from(eachSet)
    .groupBy(athleteId, sessionId, date, lift, overCm)
    .orderBy(asc(date));
}
