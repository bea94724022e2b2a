import type { LogEntry } from "../../core/floor/entries";
import type { EntryAnswer } from "../forms/entries";
import type { KeptEntry, OutboxStore, RefusedEntry } from "./outbox-store";
import type { PostLog, PostResult } from "./post-log";

export type LinkState = "ok" | "waiting" | "away" | "sign-in";

export interface OutboxState {
  /** Everything that the server has not acknowledged, of every session. */
  waiting: readonly KeptEntry[];
  /** Of those, what this browser's store did not take: it lives on this page only. */
  unkept: ReadonlySet<string>;
  /** Of those, what is on its way into the store. */
  keeping: ReadonlySet<string>;
  refused: readonly RefusedEntry[];
  link: LinkState;
}

/** What a session learns of its entries: stored under a number, or not taken. */
export type OutboxNews =
  | { kind: "stored"; sessionId: string; answers: Stored[] }
  | { kind: "refused"; sessionId: string; ids: string[] }
  /** Entries of this browser that were found in its store, or put there by another tab. */
  | { kind: "found"; kept: readonly KeptEntry[] };

type Stored = Extract<EntryAnswer, { status: "stored" }>;

/** Other tabs of this browser: what one of them settles, all of them know. */
export interface Tabs {
  tell(news: OutboxNews): void;
  hear(take: (news: OutboxNews) => void): void;
}

const BATCH = 100;
const TRY_AGAIN_MS = 3000;

/**
 * One outbox a browser, for every session it ever logged to, on whatever page it is. An entry is
 * here from the tap on, is "kept" once it was read back from the browser's store, and leaves only
 * when the server has acknowledged it or refused it with a reason. What the store does not take is
 * sent from memory.
 */
export class Outbox {
  readonly #store: OutboxStore;
  readonly #post: PostLog;
  readonly #tabs: Tabs | undefined;
  /** Lets one tab send at a time. */
  readonly #inTurn: <T>(work: () => Promise<T>) => Promise<T>;
  readonly #waiting = new Map<string, KeptEntry>();
  readonly #unkept = new Set<string>();
  readonly #keeping = new Set<string>();
  readonly #watchers = new Set<() => void>();
  readonly #listeners = new Set<(news: OutboxNews) => void>();
  #refused: readonly RefusedEntry[] = [];
  #link: LinkState = "ok";
  #sending: Promise<void> | undefined;
  #again = false;
  #state: OutboxState | undefined;

  constructor(input: {
    store: OutboxStore;
    post: PostLog;
    tabs?: Tabs;
    inTurn?: <T>(work: () => Promise<T>) => Promise<T>;
  }) {
    this.#store = input.store;
    this.#post = input.post;
    this.#tabs = input.tabs;
    this.#inTurn = input.inTurn ?? ((work) => work());
    this.#tabs?.hear((news) => {
      if (news.kind !== "found") this.#settle(news);
      else for (const kept of news.kept) this.#waiting.set(kept.entry.id, kept);
      this.#listen(news);
      if (news.kind === "refused") void this.#readRefused();
      this.#changed();
    });
  }

  /** Reads what is in the store and sends it, then and again; gives back how to stop. */
  start(): () => void {
    void this.#look().then(() => this.flush());
    const timer = setInterval(() => {
      void this.#keepAgain()
        .then(() => this.#look())
        .then(() => (this.#waiting.size > 0 ? this.flush() : undefined));
    }, TRY_AGAIN_MS);
    return () => clearInterval(timer);
  }

  subscribe(watch: () => void): () => void {
    this.#watchers.add(watch);
    return () => this.#watchers.delete(watch);
  }

  /** Hears what becomes of entries; what waits already is told at once. */
  listen(take: (news: OutboxNews) => void): () => void {
    this.#listeners.add(take);
    if (this.#waiting.size > 0) take({ kind: "found", kept: [...this.#waiting.values()] });
    return () => this.#listeners.delete(take);
  }

  state(): OutboxState {
    this.#state ??= {
      waiting: [...this.#waiting.values()],
      unkept: new Set(this.#unkept),
      keeping: new Set(this.#keeping),
      refused: this.#refused,
      link: this.#link,
    };
    return this.#state;
  }

  /** Takes an entry: shown as waiting at once, kept in the store, and sent. */
  put(sessionId: string, entry: LogEntry): Promise<void> {
    const kept = { sessionId, entry };
    this.#waiting.set(entry.id, kept);
    this.#changed();
    return this.#keep(kept).then(() => this.flush());
  }

  /** Sends what waits, oldest first. */
  flush(): Promise<void> {
    if (this.#sending) {
      this.#again = true;
      return this.#sending;
    }
    const run = async () => {
      do {
        this.#again = false;
        await this.#inTurn(() => this.#sendAll());
      } while (this.#again);
    };
    this.#sending = run().finally(() => {
      this.#sending = undefined;
    });
    return this.#sending;
  }

  /** Sends refused entries again, as they are or as a person has put them right. */
  async sendAgain(rows: ReadonlyArray<{ refused: RefusedEntry; entry: LogEntry }>): Promise<void> {
    for (const { refused, entry } of rows) {
      const kept = { sessionId: refused.sessionId, entry };
      this.#waiting.set(entry.id, kept);
      await this.#keep(kept);
      this.#listen({ kind: "found", kept: [kept] });
    }
    await this.throwAway(rows.map((row) => row.refused.entry.id));
    await this.flush();
  }

  /** Forgets refused entries; a person asked for it. */
  async throwAway(ids: readonly string[]): Promise<void> {
    await this.#store.forgetRefused(ids).catch(() => {});
    const gone = new Set(ids);
    this.#refused = this.#refused.filter((row) => !gone.has(row.entry.id));
    await this.#readRefused();
  }

  async #keep(kept: KeptEntry): Promise<void> {
    const { id } = kept.entry;
    this.#keeping.add(id);
    try {
      await this.#store.keep(kept);
      this.#unkept.delete(id);
      this.#tabs?.tell({ kind: "found", kept: [kept] });
    } catch {
      if (this.#waiting.has(id)) this.#unkept.add(id);
    } finally {
      this.#keeping.delete(id);
      this.#changed();
    }
  }

  async #keepAgain(): Promise<void> {
    for (const id of [...this.#unkept]) {
      const kept = this.#waiting.get(id);
      if (kept && !this.#keeping.has(id)) await this.#keep(kept);
    }
  }

  /** What is in the store counts as waiting, whoever put it there, and on whatever page. */
  async #look(): Promise<void> {
    // Only what waited before the store was read can be missing from it.
    const before = [...this.#waiting.keys()].filter(
      (id) => !this.#unkept.has(id) && !this.#keeping.has(id),
    );
    try {
      const stored = await this.#store.waiting();
      const ids = new Set(stored.map((kept) => kept.entry.id));
      const found = stored.filter((kept) => !this.#waiting.has(kept.entry.id));
      for (const kept of found) this.#waiting.set(kept.entry.id, kept);
      // What is there no more was settled by another tab.
      for (const id of before) if (!ids.has(id)) this.#waiting.delete(id);
      if (found.length > 0) this.#listen({ kind: "found", kept: found });
    } catch {
      // A store that cannot be read: memory has what this page logged.
    }
    await this.#readRefused();
  }

  async #readRefused(): Promise<void> {
    try {
      const inMemory = this.#refused.filter((row) => this.#unkept.has(row.entry.id));
      this.#refused = [...(await this.#store.refused()), ...inMemory];
    } catch {
      // As it was.
    }
    this.#changed();
  }

  async #sendAll(): Promise<void> {
    await this.#look();
    const bySession = new Map<string, LogEntry[]>();
    for (const { sessionId, entry } of this.#waiting.values()) {
      const list = bySession.get(sessionId) ?? [];
      bySession.set(sessionId, list);
      list.push(entry);
    }
    let link: LinkState = "ok";
    // One session's trouble is not another's.
    for (const [sessionId, entries] of bySession) {
      entries.sort((a, b) => a.deviceSeq - b.deviceSeq);
      for (let i = 0; i < entries.length; i += BATCH) {
        const sent = await this.#sendBatch(sessionId, entries.slice(i, i + BATCH));
        if (sent === "ok") continue;
        link = sent;
        break;
      }
    }
    this.#link = link;
    this.#changed();
  }

  async #sendBatch(sessionId: string, batch: readonly LogEntry[]): Promise<LinkState> {
    const result: PostResult = await this.#post(sessionId, batch);
    if (result.kind === "away" || result.kind === "sign-in") return result.kind;
    if (result.kind === "unreadable") {
      if (batch.length === 1 && batch[0]) {
        await this.#refuse(sessionId, [{ entry: batch[0], reason: result.reason }]);
        return "ok";
      }
      // One entry that cannot be read never holds up its neighbours.
      const half = Math.ceil(batch.length / 2);
      const first = await this.#sendBatch(sessionId, batch.slice(0, half));
      return first === "ok" ? this.#sendBatch(sessionId, batch.slice(half)) : first;
    }
    const answers = new Map(result.answers.map((answer) => [answer.id.toLowerCase(), answer]));
    const stored: Stored[] = [];
    const refused: Array<{ entry: LogEntry; reason: string }> = [];
    for (const entry of batch) {
      const answer = answers.get(entry.id.toLowerCase());
      if (answer?.status === "stored") stored.push({ ...answer, id: entry.id });
      else if (answer) refused.push({ entry, reason: answer.reason });
    }
    if (stored.length > 0) {
      await this.#store.settle(stored.map((answer) => answer.id)).catch(() => {});
      this.#tell({ kind: "stored", sessionId, answers: stored });
    }
    if (refused.length > 0) await this.#refuse(sessionId, refused);
    return stored.length + refused.length > 0 ? "ok" : "away";
  }

  async #refuse(
    sessionId: string,
    rows: ReadonlyArray<{ entry: LogEntry; reason: string }>,
  ): Promise<void> {
    const refused = rows.map((row) => ({ sessionId, ...row }));
    try {
      await this.#store.refuse(refused);
    } catch {
      // The store is gone: what was refused stays on this page, and is said to.
      for (const row of refused) this.#unkept.add(row.entry.id);
    }
    const known = new Set(this.#refused.map((row) => row.entry.id));
    this.#refused = [...this.#refused, ...refused.filter((row) => !known.has(row.entry.id))];
    this.#tell({ kind: "refused", sessionId, ids: rows.map((row) => row.entry.id) });
  }

  #tell(news: Exclude<OutboxNews, { kind: "found" }>): void {
    this.#settle(news);
    this.#listen(news);
    this.#tabs?.tell(news);
    this.#changed();
  }

  #settle(news: Exclude<OutboxNews, { kind: "found" }>): void {
    const ids = news.kind === "stored" ? news.answers.map((answer) => answer.id) : news.ids;
    for (const id of ids) {
      this.#waiting.delete(id);
      if (news.kind === "stored") this.#unkept.delete(id);
    }
    // Another tab may have sent what this one could not.
    if (this.#waiting.size === 0) this.#link = "ok";
  }

  #listen(news: OutboxNews): void {
    for (const take of [...this.#listeners]) take(news);
  }

  #changed(): void {
    this.#state = undefined;
    for (const watch of [...this.#watchers]) watch();
  }
}
