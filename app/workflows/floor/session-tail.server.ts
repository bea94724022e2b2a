import type { LogEntry } from "../../../core/floor/entries";
import { entriesAfter, sessionHead } from "../../../db/queries/sessions.server";
import { inTeam } from "../../platform/database.server";
import { onNewEntries } from "../../platform/live.server";
import { log } from "../../platform/log.server";

/**
 * The newest entries of one session, read once for all who follow it in this process. The
 * database tells that there is something new; the tail gathers for a moment, reads under the
 * team's isolation, and wakes its readers. Who is further behind than the tail remembers reads
 * chunks of their own until they have caught up.
 */

/** News is gathered for this long before it is read: one read for many reps. */
const GATHER_MS = 40;
/** Entries that a tail remembers; a reader behind them reads from the database. */
const REMEMBERED = 2000;
/** Entries in one message, and in one read. */
export const CHUNK = 500;
/** After a failed read, the next try. */
const TRY_AGAIN_MS = 1000;

export interface SessionTail {
  /** Highest number read. */
  readonly last: number;
  readonly ended: boolean;
  /** Entries after a cursor, at most CHUNK; undefined where the tail does not reach back to it. */
  after(cursor: number): LogEntry[] | undefined;
  /** Resolves with the next change, or when the signal is aborted. */
  changed(signal: AbortSignal): Promise<void>;
  /** Lets go of it; the last reader's leave closes the tail. */
  leave(): void;
}

interface Tail {
  entries: LogEntry[];
  /** The number after which the tail holds everything. */
  from: number;
  last: number;
  ended: boolean;
  readers: number;
  wake: Set<() => void>;
  close: () => void;
}

const tails = new Map<string, Promise<Tail>>();

/** Follows a session; the right to see it is the caller's to have checked. */
export async function followTail(teamId: string, sessionId: string): Promise<SessionTail> {
  const key = `${teamId}/${sessionId}`;
  let opening = tails.get(key);
  if (!opening) {
    opening = openTail(teamId, sessionId);
    tails.set(key, opening);
    opening.catch(() => tails.delete(key));
  }
  const tail = await opening;
  tail.readers++;
  let left = false;
  return {
    get last() {
      return tail.last;
    },
    get ended() {
      return tail.ended;
    },
    after(cursor) {
      if (cursor < tail.from) return undefined;
      const start = firstAfter(tail.entries, cursor);
      return tail.entries.slice(start, start + CHUNK);
    },
    changed: (signal) => nextChange(tail, signal),
    leave() {
      if (left) return;
      left = true;
      tail.readers--;
      if (tail.readers > 0) return;
      tail.close();
      if (tails.get(key) === opening) tails.delete(key);
    },
  };
}

function nextChange(tail: Tail, signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    const done = () => {
      tail.wake.delete(done);
      signal.removeEventListener("abort", done);
      resolve();
    };
    if (signal.aborted) return resolve();
    tail.wake.add(done);
    signal.addEventListener("abort", done);
  });
}

/** Index of the first entry with a number over `cursor`; the list rises. */
function firstAfter(entries: readonly LogEntry[], cursor: number): number {
  let low = 0;
  let high = entries.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((entries[middle]?.seq ?? 0) > cursor) high = middle;
    else low = middle + 1;
  }
  return low;
}

async function openTail(teamId: string, sessionId: string): Promise<Tail> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let busy = false;
  let asked = false;
  let closed = false;
  const tail: Tail = {
    entries: [],
    from: 0,
    last: 0,
    ended: false,
    readers: 0,
    wake: new Set(),
    close: () => {},
  };
  const soon = (ms: number) => {
    if (closed) return;
    if (busy) asked = true;
    else timer ??= setTimeout(() => void read(), ms);
  };
  const read = async () => {
    timer = undefined;
    busy = true;
    asked = false;
    let wait = GATHER_MS;
    try {
      const news = await inTeam({ teamId }, async (tx) => {
        // The head first: an end is told only with every entry that came before it.
        const head = await sessionHead(tx, sessionId);
        return { head, entries: await entriesAfter(tx, sessionId, tail.last, CHUNK) };
      });
      if (news.entries.length === CHUNK) asked = true;
      const ended = news.head?.status === "ended" && !asked;
      const changed = news.entries.length > 0 || ended !== tail.ended;
      tail.entries.push(...news.entries);
      tail.last = tail.entries.at(-1)?.seq ?? tail.last;
      tail.ended = ended;
      forget(tail);
      if (changed) for (const wake of [...tail.wake]) wake();
    } catch (error) {
      log.warn({ err: error, sessionId }, "new entries could not be read; trying again");
      asked = true;
      wait = TRY_AGAIN_MS;
    } finally {
      busy = false;
      if (asked) soon(wait);
    }
  };

  // News counts from here on; what is older is read by whoever needs it.
  const unsubscribe = await onNewEntries(teamId, sessionId, () => soon(GATHER_MS));
  tail.close = () => {
    closed = true;
    clearTimeout(timer);
    unsubscribe();
  };
  try {
    const head = await inTeam({ teamId }, (tx) => sessionHead(tx, sessionId));
    tail.from = head?.lastSeq ?? 0;
    tail.last = tail.from;
    tail.ended = head?.status === "ended";
  } catch (error) {
    tail.close();
    throw error;
  }
  return tail;
}

function forget(tail: Tail): void {
  const over = tail.entries.length - REMEMBERED;
  if (over < REMEMBERED / 4) return;
  tail.from = tail.entries[over - 1]?.seq ?? tail.from;
  tail.entries.splice(0, over);
}
