import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { LogEntry } from "../../core/floor/entries";
import { followSession, type LiveMessage } from "./live";

/** A stand-in for the browser's event stream: remembers where each was opened from. */
class FakeSource {
  static all: FakeSource[] = [];
  readonly after: number;
  closed = false;
  onopen: (() => void) | undefined;
  onerror: (() => void) | undefined;
  #heard = new Map<string, (event: { data: string }) => void>();
  constructor(url: string) {
    this.after = Number(new URL(url, "http://here").searchParams.get("after"));
    FakeSource.all.push(this);
  }
  addEventListener(kind: string, hear: (event: { data: string }) => void) {
    this.#heard.set(kind, hear);
  }
  close() {
    this.closed = true;
  }
  send(...seqs: number[]) {
    const entries = seqs.map((seq) => ({ id: String(seq), seq }) as LogEntry);
    this.#heard.get("entries")?.({ data: JSON.stringify(entries) });
  }
}

/** One lock after the other, as the browser hands them out. */
function fakeLocks() {
  let tail: Promise<unknown> = Promise.resolve();
  return {
    request(_: string, __: unknown, hold: () => Promise<void>) {
      const mine = tail.then(hold);
      tail = mine.catch(() => {});
      return mine;
    },
  };
}

const stops: Array<() => void> = [];
const settle = () => vi.advanceTimersByTimeAsync(20);
const newest = () => FakeSource.all[FakeSource.all.length - 1] as FakeSource;

function tab(session: string, start: number) {
  const heard: number[] = [];
  let cursor = start;
  const stop = followSession(
    session,
    () => cursor,
    (message: LiveMessage) => {
      if (message.kind !== "entries") return;
      for (const entry of message.entries) {
        heard.push(entry.seq ?? 0);
        cursor = Math.max(cursor, entry.seq ?? 0);
      }
    },
  );
  stops.push(stop);
  return { heard, stop };
}

beforeEach(() => {
  FakeSource.all = [];
  vi.useFakeTimers({ shouldAdvanceTime: true });
  vi.stubGlobal("EventSource", FakeSource);
  vi.stubGlobal("navigator", { locks: fakeLocks() });
});
afterEach(() => {
  for (const stop of stops.splice(0)) stop();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("one stream for the tabs of a browser", () => {
  it("is passed on to a second tab, which opens none of its own", async () => {
    const first = tab("a", 10);
    await settle();
    const second = tab("a", 10);
    await settle();
    newest().send(11, 12);
    await settle();
    expect(first.heard).toEqual([11, 12]);
    expect(second.heard).toEqual([11, 12]);
    expect(FakeSource.all).toHaveLength(1);
  });

  it("starts again after a break from what it passed on, not from what a tab sent itself", async () => {
    let acknowledged = 10;
    stops.push(
      followSession(
        "b",
        () => acknowledged,
        () => {},
      ),
    );
    await settle();
    newest().send(11);
    // This tab's own entries were stored as 15 and 16; others wrote 12 to 14 meanwhile.
    acknowledged = 16;
    newest().onerror?.();
    await vi.advanceTimersByTimeAsync(2100);
    expect(FakeSource.all.map((one) => one.after)).toEqual([10, 11]);
  });

  it("goes back for a tab that joins with less than it has passed on", async () => {
    tab("c", 10);
    await settle();
    newest().send(11, 12, 13);
    await settle();
    const late = tab("c", 11);
    await settle();
    expect(newest().after).toBe(11);
    expect(FakeSource.all[0]?.closed).toBe(true);
    newest().send(12, 13);
    await settle();
    expect(late.heard).toEqual([12, 13]);
    // One that is up to date changes nothing.
    tab("c", 13);
    await settle();
    expect(FakeSource.all).toHaveLength(2);
  });

  it("is taken over by another tab when its own closes", async () => {
    const first = tab("d", 10);
    await settle();
    const second = tab("d", 10);
    await settle();
    newest().send(11);
    await settle();
    first.stop();
    await settle();
    expect(FakeSource.all).toHaveLength(2);
    expect(newest().after).toBe(11);
    newest().send(12);
    await settle();
    expect(second.heard).toEqual([11, 12]);
  });
});
