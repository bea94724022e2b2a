import { isDeepStrictEqual } from "node:util";
import type { LogEntry } from "../../../core/floor/entries";
import {
  allotSeq,
  entriesById,
  insertEntries,
  lockSession,
} from "../../../db/queries/sessions.server";
import type { EntryAnswer } from "../../forms/entries";
import { now } from "../../platform/clock.server";
import { isDatabaseAway, loggingInTeam } from "../../platform/database.server";
import { log } from "../../platform/log.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

/**
 * Writes what racks send into a session's log. All racks of a session write under one lock, and a
 * commit takes as long as the disk: so whatever comes while a transaction runs is gathered, and
 * written by the next one together. Forty racks then cost no more transactions than one.
 */

export type Unsent = Omit<LogEntry, "seq">;
type Answers = Outcome<{ answers: EntryAnswer[] }>;

interface Sent {
  principal: Principal;
  entries: readonly Unsent[];
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
): Promise<Answers> {
  return new Promise((settle, fail) => {
    const key = `${principal.teamId}/${sessionId}`;
    const sent = { principal, entries, settle, fail };
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
    const mayNot = batch.map(
      ({ principal }) =>
        !session || (principal.kind === "rack" && session.roomId !== principal.roomId),
    );
    const there = new Set((await entriesById(tx, ids)).map((row) => row.entry.id));
    const fresh: Array<Unsent & { author: string }> = [];
    batch.forEach(({ principal, entries }, i) => {
      if (mayNot[i]) return;
      const author = principal.kind === "rack" ? `rack:${principal.deviceId}` : principal.userId;
      for (const entry of entries) {
        if (there.has(entry.id)) continue;
        const late = tooLate(entry, session?.endedAt ?? null, principal);
        if (late) refused[i]?.set(entry.id, late);
        else {
          there.add(entry.id);
          fresh.push({ ...entry, author });
        }
      }
    });
    if (fresh.length > 0) {
      const first = await allotSeq(tx, sessionId, fresh.length);
      const rows = fresh.map((entry, i) => ({ ...entry, seq: first + i }));
      await insertEntries(tx, sessionId, now(), rows);
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
  const { seq, ...stored } = row.entry;
  if (row.sessionId !== sessionId || !isDeepStrictEqual(stored, entry)) return refused(TAKEN);
  return { id: entry.id, status: "stored", seq };
}

/** After the end of a session, or the revoking of its tablet, only what was made before counts. */
function tooLate(entry: Unsent, endedAt: Date | null, principal: Principal): string | undefined {
  const made = Date.parse(entry.wallTime);
  if (endedAt && made > endedAt.getTime()) {
    return "The session had ended before this was logged.";
  }
  if (principal.kind === "rack" && principal.revokedAt && made > principal.revokedAt.getTime()) {
    return "This tablet was taken off the team before this was logged.";
  }
  return undefined;
}
