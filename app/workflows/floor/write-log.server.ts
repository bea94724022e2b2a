import { isDeepStrictEqual } from "node:util";
import { type EntryDoubt, type LogEntry, withoutPlace } from "../../../core/floor/entries";
import {
  allotSeq,
  entriesById,
  insertEntries,
  lockSession,
} from "../../../db/queries/sessions.server";
import type { EntryAnswer, SenderClock } from "../../forms/entries";
import { now } from "../../platform/clock.server";
import { isDatabaseAway, loggingInTeam } from "../../platform/database.server";
import { log } from "../../platform/log.server";
import { noteEntries } from "../../platform/metrics.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { keepRungs } from "./ladder.server";
import { type MadeAt, openClocks } from "./made-at.server";
import { mayKnow } from "./may-know.server";
import { keepPains } from "./pain.server";

/**
 * Writes what racks send into a session's log. All racks of a session write under one lock, and a
 * commit takes as long as the disk: so whatever comes while a transaction runs is gathered, and
 * written by the next one together. Forty racks then cost no more transactions than one.
 */

export type Unsent = Omit<LogEntry, "seq" | "madeAt" | "doubt" | "by">;
type Answers = Outcome<{ answers: EntryAnswer[] }>;

interface Sent {
  principal: Principal;
  entries: readonly Unsent[];
  clock: SenderClock | undefined;
  settle: (answers: Answers) => void;
  fail: (error: unknown) => void;
}

/** Entries in one transaction; what is over waits for the next. */
const MOST_AT_ONCE = 2000;

export const TAKEN = "Another entry with this number is stored already.";

const queues = new Map<string, Sent[]>();

/** Stores entries of one sender; each is acknowledged after it was read back equal. */
export function writeLog(
  principal: Principal,
  sessionId: string,
  entries: readonly Unsent[],
  clock?: SenderClock,
): Promise<Answers> {
  return new Promise((settle, fail) => {
    const key = `${principal.teamId}/${sessionId}`;
    const sent = { principal, entries, clock, settle, fail };
    const queue = queues.get(key);
    if (queue) queue.push(sent);
    else {
      queues.set(key, [sent]);
      void writeInTurn(key, sessionId);
    }
  });
}

async function writeInTurn(key: string, sessionId: string): Promise<void> {
  const queue = queues.get(key) ?? [];
  while (queue.length > 0) {
    const batch: Sent[] = [];
    let count = 0;
    while (queue[0] && (batch.length === 0 || count + queue[0].entries.length <= MOST_AT_ONCE)) {
      const sent = queue.shift() as Sent;
      count += sent.entries.length;
      batch.push(sent);
    }
    await writeBatch(sessionId, batch);
  }
  queues.delete(key);
}

async function writeBatch(sessionId: string, batch: readonly Sent[]): Promise<void> {
  try {
    const answers = await store(sessionId, batch);
    batch.forEach((sent, i) => {
      sent.settle(answers[i] as Answers);
    });
  } catch (error) {
    if (batch.length === 1 || isDatabaseAway(error)) {
      for (const sent of batch) sent.fail(error);
      return;
    }
    // What one sender's entries did to the database is not the others' fault.
    log.error({ err: error, sessionId }, "a gathered write failed; each is written by itself");
    for (const sent of batch) await writeBatch(sessionId, [sent]);
  }
}

/** One answer a sender, in their order. */
async function store(sessionId: string, batch: readonly Sent[]): Promise<Answers[]> {
  const teamId = batch[0]?.principal.teamId ?? "";
  const ids = [...new Set(batch.flatMap((sent) => sent.entries.map((entry) => entry.id)))];
  const refused = batch.map(() => new Map<string, string>());

  const outside = await loggingInTeam({ teamId }, async (tx) => {
    const session = await lockSession(tx, sessionId);
    const mayNot = batch.map(({ principal }) => !session || !mayKnow(principal, session));
    const receivedAt = now();
    const there = new Set((await entriesById(tx, ids)).map((row) => row.entry.id));
    const welcome = batch.filter((_, i) => !mayNot[i]);
    const madeAt = await openClocks(
      tx,
      welcome.flatMap((sent) => sent.entries.filter((entry) => !there.has(entry.id))),
      welcome.flatMap((sent) => sent.clock ?? []),
      receivedAt,
    );
    const fresh: Array<Omit<LogEntry, "seq"> & { author: string; principal: Principal }> = [];
    for (const [i, { principal, entries }] of batch.entries()) {
      if (mayNot[i]) continue;
      const author = principal.kind === "rack" ? `rack:${principal.deviceId}` : principal.userId;
      for (const entry of entries) {
        if (there.has(entry.id)) continue;
        const made = await madeAt(entry);
        const verdict = judge({
          entry,
          made,
          endedAt: session?.endedAt ?? undefined,
          principal,
          receivedAt,
        });
        if (!verdict.ok) refused[i]?.set(entry.id, verdict.reason);
        else {
          there.add(entry.id);
          fresh.push({
            ...entry,
            author,
            principal,
            madeAt: made.at.toISOString(),
            ...(verdict.doubt ? { doubt: verdict.doubt } : {}),
          });
        }
      }
    }
    if (fresh.length > 0) {
      const first = await allotSeq(tx, sessionId, fresh.length);
      const rows = fresh.map((entry, i) => ({ ...entry, seq: first + i }));
      await insertEntries(tx, sessionId, receivedAt, rows);
      await keepPains(tx, sessionId, fresh, receivedAt);
      // What comes after the end, and was made before it, is kept as the end would have kept it.
      if (session?.endedAt) await keepRungs(tx, sessionId, "late entry", receivedAt);
    }
    return mayNot;
  });

  // In a new transaction, so that what is acknowledged is what any other reader sees.
  const readBack = new Map(
    (await loggingInTeam({ teamId }, (tx) => entriesById(tx, ids))).map((row) => [
      row.entry.id,
      row,
    ]),
  );
  noteEntries(readBack.size);
  return batch.map(({ entries }, i) => {
    if (outside[i]) return failed("no-session", "This session is not in your room.");
    const late = refused[i] ?? new Map<string, string>();
    return done({
      answers: entries.map((entry) => {
        const reason = late.get(entry.id);
        if (reason !== undefined) return { id: entry.id, status: "refused", reason };
        return answerTo(entry, sessionId, readBack.get(entry.id));
      }),
    });
  });
}

function answerTo(
  entry: Unsent,
  sessionId: string,
  row: { sessionId: string; entry: LogEntry } | undefined,
): EntryAnswer {
  const refused = (reason: string) => ({ id: entry.id, status: "refused" as const, reason });
  if (row?.entry.seq === undefined) return refused("It was not found again after storing.");
  const { seq, madeAt, doubt, by: _, ...stored } = row.entry;
  // Where it hurts is not in the log: it went to the reasons of limits in the same transaction.
  if (row.sessionId !== sessionId || !isDeepStrictEqual(stored, withoutPlace(entry)))
    return refused(TAKEN);
  return {
    id: entry.id,
    status: "stored",
    seq,
    ...(madeAt === undefined ? {} : { madeAt }),
    ...(doubt === undefined ? {} : { doubt }),
  };
}

/** A tablet that was taken off the team may hand in what it held for this long. */
export const HAND_IN_DAYS = 7;

type Verdict = { ok: true; doubt?: EntryDoubt } | { ok: false; reason: string };

/** Whether an entry is taken, and whether it waits for a coach's word. */
function judge(input: {
  entry: Unsent;
  made: MadeAt;
  endedAt: Date | undefined;
  principal: Principal;
  receivedAt: Date;
}): Verdict {
  const { entry, made, endedAt, principal, receivedAt } = input;
  const refused = (reason: string): Verdict => ({ ok: false, reason });
  const coach =
    principal.kind === "person" && (principal.role === "coach" || principal.role === "owner");
  const corrects = entry.supersedes.length > 0 || entry.body.kind === "void";
  if (principal.kind === "person" && principal.role === "athlete" && !speaksOf(entry, principal))
    return refused("You log your own training, and nobody else's.");
  if (entry.body.kind === "pain-over" && !coach)
    return refused("Only a coach says that a pain is over.");
  if ((entry.body.kind === "note" || entry.body.kind === "pause") && principal.kind === "rack")
    return refused("A word to every station comes from a person, not from a tablet.");
  if (entry.body.kind === "admit")
    return coach ? { ok: true } : refused("Only a coach decides whether this counts.");
  if (principal.kind === "rack" && principal.revokedAt) {
    const until = principal.revokedAt.getTime() + HAND_IN_DAYS * 86_400_000;
    if (corrects) return refused("A tablet that was taken off the team corrects nothing.");
    if (receivedAt.getTime() > until)
      return refused(`This tablet was taken off the team more than ${HAND_IN_DAYS} days ago.`);
    if (made.by !== "unknown" && made.at > principal.revokedAt)
      return refused("This tablet was taken off the team before this was logged.");
    if (endedAt && made.by !== "unknown" && made.at > endedAt) return refused(ENDED_BEFORE);
    return { ok: true, doubt: "revoked-tablet" };
  }
  if (!endedAt) return { ok: true };
  // A coach looks through an ended session and puts it right.
  if (coach && corrects) return { ok: true };
  if (made.by === "unknown") return { ok: true, doubt: "time-unknown" };
  return made.at > endedAt ? refused(ENDED_BEFORE) : { ok: true };
}

/** Whether an entry is about an athlete alone, or a word that takes back one of theirs. */
const speaksOf = ({ body }: Unsent, { athleteId }: { athleteId: string | undefined }) =>
  "athleteId" in body ? body.athleteId === athleteId : body.kind === "void";

const ENDED_BEFORE = "The session had ended before this was logged.";
