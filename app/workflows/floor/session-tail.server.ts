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
const GATHER_MS = 80;
/** Entries that a tail remembers; a reader behind them reads from the database. */
const REMEMBERED = 2000;
/** Entries in one message, and in one read. */
export const CHUNK = 250;
/** After a failed read, the next try. */
const TRY_AGAIN_MS = 1000;

export interface SessionTail {
  /** Highest number read. */
  readonly last: number;
  readonly ended: boolean;
  /** What comes after a cursor, at most CHUNK entries; what the tail does not hold is read. */
  after(cursor: number): Chunk | Promise<Chunk>;
  /** Resolves with the next change, or when the signal is aborted. */
  changed(signal: AbortSignal): Promise<void>;
  /** Lets go of it; the last reader's leave closes the tail. */
  leave(): void;
}

/** Entries in a row as a message of the stream: written once, whoever reads them. */
export interface Chunk {
  /** Number of the last of them; undefined where there are none. */
  last: number | undefined;
  message: Uint8Array;
  full: boolean;
}

const encoder = new TextEncoder();

function chunkOf(entries: readonly LogEntry[]): Chunk {
  const last = entries.at(-1)?.seq;
  return {
    last,
    message: encoder.encode(`id: ${last}\nevent: entries\ndata: ${JSON.stringify(entries)}\n\n`),
    full: entries.length === CHUNK,
  };
}

const NOTHING: Chunk = { last: undefined, message: new Uint8Array(), full: false };

interface Tail {
  entries: LogEntry[];
  /** Chunks that were asked for since the last news, by the cursor before them. */
  chunks: Map<number, Chunk>;
  /** Chunks from before what the tail holds: the log is never changed, so they stay as read. */
  past: Map<number, Promise<Chunk>>;
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
      if (cursor < tail.from) return earlier(tail, teamId, sessionId, cursor);
      if (cursor >= tail.last) return NOTHING;
      let chunk = tail.chunks.get(cursor);
      if (!chunk) {
        const start = firstAfter(tail.entries, cursor);
        chunk = chunkOf(tail.entries.slice(start, start + CHUNK));
        tail.chunks.set(cursor, chunk);
      }
      return chunk;
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

/** Readers of the past in this process that may read at once: the log itself goes before them. */
const READS_AT_ONCE = 2;
/** Chunks of the past that are kept: readers come back from the same places. */
const PAST_KEPT = 20;
let reading = 0;
const waiting: Array<() => void> = [];

function earlier(tail: Tail, teamId: string, sessionId: string, cursor: number): Promise<Chunk> {
  const kept = tail.past.get(cursor);
  if (kept) return kept;
  const chunk = inTurn(() =>
    inTeam({ teamId }, (tx) => entriesAfter(tx, sessionId, cursor, { most: CHUNK })),
  ).then(chunkOf);
  tail.past.set(cursor, chunk);
  // One that was not full goes on growing: it serves those who asked, and nobody later.
  chunk.then(
    ({ full }) => full || tail.past.delete(cursor),
    () => tail.past.delete(cursor),
  );
  const [oldest] = tail.past.keys();
  if (tail.past.size > PAST_KEPT && oldest !== undefined) tail.past.delete(oldest);
  return chunk;
}

async function inTurn<T>(read: () => Promise<T>): Promise<T> {
  if (reading >= READS_AT_ONCE) await new Promise<void>((go) => waiting.push(go));
  reading++;
  try {
    return await read();
  } finally {
    reading--;
    waiting.shift()?.();
  }
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
    chunks: new Map(),
    past: new Map(),
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
        return { head, entries: await entriesAfter(tx, sessionId, tail.last, { most: CHUNK }) };
      });
      if (news.entries.length === CHUNK) asked = true;
      const ended = news.head?.status === "ended" && !asked;
      const changed = news.entries.length > 0 || ended !== tail.ended;
      tail.entries.push(...news.entries);
      tail.chunks.clear();
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
