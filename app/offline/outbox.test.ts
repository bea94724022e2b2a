import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { LogEntry } from "../../core/floor/entries";
import { TestDevice } from "../../core/floor/fixtures/session";
import { Outbox, type OutboxNews, type Tabs } from "./outbox";
import type { KeptEntry, OutboxStore, RefusedEntry } from "./outbox-store";
import type { PostLog, PostResult } from "./post-log";

/** A store in memory that refuses while it is told to. */
class FakeStore implements OutboxStore {
  full = false;
  readonly unsent = new Map<string, KeptEntry>();
  readonly away = new Map<string, RefusedEntry>();
  #check(): void {
    if (this.full) throw new Error("QuotaExceededError");
  }
  async keep(kept: KeptEntry) {
    this.#check();
    this.unsent.set(kept.entry.id, kept);
  }
  async waiting() {
    this.#check();
    return [...this.unsent.values()];
  }
  async settle(ids: readonly string[]) {
    this.#check();
    for (const id of ids) this.unsent.delete(id);
  }
  async refuse(rows: readonly RefusedEntry[]) {
    this.#check();
    for (const row of rows) {
      this.away.set(row.entry.id, row);
      this.unsent.delete(row.entry.id);
    }
  }
  async refused() {
    this.#check();
    return [...this.away.values()];
  }
  async forgetRefused(ids: readonly string[]) {
    this.#check();
    for (const id of ids) this.away.delete(id);
  }
}

const stop: Array<() => void> = [];
beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  for (const end of stop.splice(0)) end();
  vi.useRealTimers();
});
const settle = (ms = 0) => vi.advanceTimersByTimeAsync(ms);

/** A server that stores everything, or answers as it is told. */
function fakeServer() {
  const log = new Map<string, { sessionId: string; entry: LogEntry; seq: number }>();
  const server = {
    up: true,
    signedIn: true,
    /** Why an entry is not taken; undefined where it is. */
    refuses: (_: LogEntry): string | undefined => undefined,
    /** Batches with such an entry cannot be read at all. */
    chokesOn: (_: LogEntry) => false,
    log,
    batches: [] as number[],
  };
  const post: PostLog = async (sessionId, entries): Promise<PostResult> => {
    if (!server.up) return { kind: "away" };
    if (!server.signedIn) return { kind: "sign-in" };
    server.batches.push(entries.length);
    if (entries.some(server.chokesOn)) return { kind: "unreadable", reason: "It cannot be read." };
    return {
      kind: "answers",
      answers: entries.map((entry) => {
        const reason = server.refuses(entry);
        if (reason !== undefined) return { id: entry.id, status: "refused", reason };
        const known = log.get(entry.id);
        const seq = known?.seq ?? log.size + 1;
        if (!known) log.set(entry.id, { sessionId, entry, seq });
        // A server may write an id in its own case.
        return { id: entry.id.toUpperCase(), status: "stored", seq };
      }),
    };
  };
  return { server, post };
}

function open(over: { store?: FakeStore; tabs?: Tabs } = {}) {
  const { server, post } = fakeServer();
  const store = over.store ?? new FakeStore();
  const outbox = new Outbox({ store, post, ...(over.tabs ? { tabs: over.tabs } : {}) });
  const news: OutboxNews[] = [];
  outbox.listen((one) => news.push(one));
  stop.push(outbox.start());
  return { server, store, outbox, news };
}
const tablet = new TestDevice();
const rep = () => tablet.rep("ann", 1, 1, 0.8);

describe("what is logged", () => {
  it("waits at once, is kept, is sent, and leaves when it is acknowledged", async () => {
    const { server, store, outbox, news } = open();
    await settle();
    const entry = rep();
    const put = outbox.put("today", entry);
    expect(outbox.state().waiting.map((kept) => kept.entry.id)).toEqual([entry.id]);
    expect(outbox.state().keeping.size).toBe(1);
    await put;
    expect(server.log.get(entry.id)).toMatchObject({ sessionId: "today", seq: 1 });
    expect(outbox.state()).toMatchObject({ waiting: [], link: "ok" });
    expect(store.unsent.size).toBe(0);
    expect(news).toContainEqual({
      kind: "stored",
      sessionId: "today",
      answers: [{ id: entry.id, status: "stored", seq: 1 }],
    });
  });

  it("is sent of every session, whatever is on the screen, in the order it was made", async () => {
    const store = new FakeStore();
    const old = [rep(), rep()];
    for (const entry of old) store.unsent.set(entry.id, { sessionId: "last week", entry });
    const { server, outbox } = open({ store });
    await settle();
    await outbox.put("today", rep());
    expect([...server.log.values()].map((one) => one.sessionId)).toEqual([
      "last week",
      "last week",
      "today",
    ]);
    expect([...server.log.keys()].slice(0, 2)).toEqual(old.map((entry) => entry.id));
  });

  it("waits while nobody answers, and goes by itself once somebody does", async () => {
    const { server, outbox } = open();
    server.up = false;
    await outbox.put("today", rep());
    expect(outbox.state()).toMatchObject({ link: "away" });
    server.up = true;
    await settle(3100);
    expect(server.log.size).toBe(1);
    expect(outbox.state()).toMatchObject({ waiting: [], link: "ok" });
  });

  it("a sign-in that ran out says so and loses nothing", async () => {
    const { server, outbox } = open();
    server.signedIn = false;
    await outbox.put("today", rep());
    expect(outbox.state()).toMatchObject({ link: "sign-in" });
    server.signedIn = true;
    await outbox.flush();
    expect(server.log.size).toBe(1);
  });
});

describe("a store that refuses", () => {
  it("is said at once; the entry is sent from memory all the same", async () => {
    const { server, store, outbox } = open();
    await settle();
    store.full = true;
    server.up = false;
    const entry = rep();
    await outbox.put("today", entry);
    expect([...outbox.state().unkept]).toEqual([entry.id]);
    server.up = true;
    await settle(3100);
    expect(server.log.has(entry.id)).toBe(true);
    expect(outbox.state().waiting).toEqual([]);
    expect(outbox.state().unkept.size).toBe(0);
  });

  it("is tried again: what it takes then is kept", async () => {
    const { server, store, outbox } = open();
    await settle();
    store.full = true;
    server.up = false;
    const entry = rep();
    await outbox.put("today", entry);
    store.full = false;
    await settle(3100);
    expect(store.unsent.has(entry.id)).toBe(true);
    expect(outbox.state().unkept.size).toBe(0);
    expect(outbox.state().waiting).toHaveLength(1);
  });

  it("says saved of nothing that it gave back otherwise than it got", async () => {
    const { server, store, outbox } = open();
    await settle();
    server.up = false;
    store.keep = async () => {
      throw new Error("It was not found again in the store.");
    };
    const entry = rep();
    await outbox.put("today", entry);
    expect([...outbox.state().unkept]).toEqual([entry.id]);
  });
});

describe("what the server does not take", () => {
  const odd = (entry: LogEntry) => entry.deviceSeq % 2 === 1;

  it("is kept with its reason, and its neighbours go on", async () => {
    const { server, store, outbox, news } = open();
    await settle();
    server.up = false;
    const entries = [rep(), rep(), rep(), rep()];
    for (const entry of entries) await outbox.put("today", entry);
    server.up = true;
    server.refuses = (entry) => (odd(entry) ? "The session had ended." : undefined);
    await outbox.flush();
    expect(server.log.size).toBe(2);
    expect(outbox.state().refused.map((row) => row.reason)).toEqual([
      "The session had ended.",
      "The session had ended.",
    ]);
    expect(store.away.size).toBe(2);
    expect(news.filter((one) => one.kind === "refused")).toHaveLength(1);
  });

  it("one that cannot be read is found by halves; every other one is stored", async () => {
    const { server, outbox } = open();
    await settle();
    server.up = false;
    const entries = Array.from({ length: 9 }, rep);
    for (const entry of entries) await outbox.put("today", entry);
    server.up = true;
    server.chokesOn = (entry) => entry.id === entries[4]?.id;
    await outbox.flush();
    expect(server.log.size).toBe(8);
    expect(outbox.state().refused.map((row) => row.entry.id)).toEqual([entries[4]?.id]);
    expect(outbox.state().waiting).toEqual([]);
  });

  it("one session's trouble is not another's", async () => {
    const { server, outbox } = open();
    await settle();
    server.up = false;
    const [gone, good] = [rep(), rep()];
    await outbox.put("a session of another room", gone);
    await outbox.put("today", good);
    server.up = true;
    server.chokesOn = (entry) => entry.id === gone.id;
    await outbox.flush();
    expect([...server.log.keys()]).toEqual([good.id]);
  });

  it("can be sent again, moved to another set, or thrown away by a person", async () => {
    const { server, store, outbox, news } = open();
    await settle();
    server.refuses = () => "Not now.";
    const [again, moved, gone] = [rep(), rep(), rep()];
    for (const entry of [again, moved, gone]) await outbox.put("today", entry);
    expect(outbox.state().refused).toHaveLength(3);
    server.refuses = () => undefined;
    const row = (entry: LogEntry) => {
      const found = outbox.state().refused.find((one) => one.entry.id === entry.id);
      if (!found) throw new Error("It is listed.");
      return found;
    };
    const right = { ...moved, id: "moved", body: { ...moved.body, athleteId: "bo" } as never };
    await outbox.sendAgain([
      { refused: row(again), entry: again },
      { refused: row(moved), entry: right },
    ]);
    await outbox.throwAway([gone.id]);
    expect([...server.log.keys()].sort()).toEqual([again.id, "moved"].sort());
    expect(outbox.state().refused).toEqual([]);
    expect(store.away.size).toBe(0);
    expect(news).toContainEqual({ kind: "found", kept: [{ sessionId: "today", entry: right }] });
  });

  it("stays listed on the page where the store is gone", async () => {
    const { server, store, outbox } = open();
    await settle();
    store.full = true;
    server.refuses = () => "Not now.";
    await outbox.put("today", rep());
    await settle(3100);
    expect(outbox.state().refused).toHaveLength(1);
  });
});

describe("tabs of one browser", () => {
  function twoTabs() {
    const takes: Array<(news: OutboxNews) => void> = [];
    const tab = (): Tabs => {
      const mine = takes.length;
      return {
        tell: (news) => {
          for (const [i, take] of takes.entries()) if (i !== mine) take(structuredClone(news));
        },
        hear: (take) => {
          takes[mine] = take;
        },
      };
    };
    const store = new FakeStore();
    return [open({ store, tabs: tab() }), open({ store, tabs: tab() })] as const;
  }

  it("what one logs the other sends, and both know when it is there", async () => {
    const [cutOff, other] = twoTabs();
    await settle();
    cutOff.server.up = false;
    const entry = rep();
    await cutOff.outbox.put("today", entry);
    expect(cutOff.outbox.state()).toMatchObject({ link: "away" });
    await settle(3100);
    expect(other.server.log.has(entry.id)).toBe(true);
    expect(cutOff.outbox.state()).toMatchObject({ waiting: [], link: "ok" });
    expect(cutOff.news).toContainEqual(expect.objectContaining({ kind: "stored" }));
  });

  it("an entry put while the store is being read is not taken for one that was sent", async () => {
    const { server, store, outbox } = open();
    await settle();
    server.up = false;
    const read = store.waiting.bind(store);
    let entry: LogEntry | undefined;
    store.waiting = async () => {
      const before = await read();
      if (!entry) {
        entry = rep();
        void outbox.put("today", entry);
        await Promise.resolve();
      }
      return before;
    };
    await settle(3100);
    expect(outbox.state().waiting.map((kept) => kept.entry.id)).toEqual([entry?.id]);
  });
});
