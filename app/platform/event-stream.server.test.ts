import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { endStreams, eventStream, SlowReader } from "./event-stream.server";

const text = (bytes: Uint8Array | undefined) => new TextDecoder().decode(bytes);
const turn = (ms = 0) => new Promise((resolve) => setTimeout(resolve, ms));

/** A stream of the numbers 1, 2, 3 … as fast as they are taken, or as `next` lets them. */
function counted(options: { signal?: AbortSignal; slowMs?: number; next?: () => Promise<void> }) {
  const seen = { made: 0, ended: 0, finished: false };
  const stream = eventStream(
    options.signal ?? new AbortController().signal,
    async function* () {
      try {
        for (;;) {
          await options.next?.();
          seen.made++;
          yield String(seen.made);
        }
      } finally {
        seen.finished = true;
      }
    },
    {
      slowMs: options.slowMs ?? 10_000,
      ended: () => {
        seen.ended++;
      },
    },
  );
  return { stream, seen };
}

describe("a stream of events", () => {
  // What nobody catches ends the process: here it fails the test.
  const thrown: unknown[] = [];
  const note = (error: unknown) => thrown.push(error);
  beforeEach(() => {
    thrown.length = 0;
    process.on("unhandledRejection", note);
    process.on("uncaughtException", note);
  });
  afterEach(async () => {
    await turn();
    process.off("unhandledRejection", note);
    process.off("uncaughtException", note);
    expect(thrown).toEqual([]);
  });

  it("makes a piece only when the reader takes it: nothing is queued", async () => {
    const { stream, seen } = counted({});
    await turn(20);
    expect(seen.made).toBe(0);
    const reader = stream.getReader();
    expect(text((await reader.read()).value)).toBe("1");
    expect(text((await reader.read()).value)).toBe("2");
    await turn(20);
    expect(seen.made).toBe(2);
    await reader.cancel();
    await turn();
    expect(seen).toEqual({ made: 2, ended: 1, finished: true });
  });

  it("ends a reader who takes nothing in time, and says so", async () => {
    const { stream, seen } = counted({ slowMs: 30 });
    const reader = stream.getReader();
    await reader.read();
    await turn(80);
    expect(seen.ended).toBe(1);
    await expect(reader.read()).rejects.toBeInstanceOf(SlowReader);
  });

  it("a reader who takes what there is may wait long for the next", async () => {
    let letGo = () => {};
    const { stream, seen } = counted({
      slowMs: 30,
      next: () =>
        new Promise((resolve) => {
          letGo = resolve;
        }),
    });
    const reader = stream.getReader();
    const first = reader.read();
    await turn(80);
    letGo();
    expect(text((await first).value)).toBe("1");
    expect(seen.ended).toBe(0);
    await reader.cancel();
    letGo();
  });

  it("is closed by the request's end while a piece is being made", async () => {
    const away = new AbortController();
    let letGo = () => {};
    const { stream, seen } = counted({
      signal: away.signal,
      next: () =>
        new Promise((resolve) => {
          letGo = resolve;
        }),
    });
    const reader = stream.getReader();
    const reading = reader.read();
    await turn();
    away.abort();
    letGo();
    expect((await reading).done).toBe(true);
    expect(seen.ended).toBe(1);
  });

  it("of a request that was over before it began makes nothing", async () => {
    const { stream, seen } = counted({ signal: AbortSignal.abort() });
    expect((await stream.getReader().read()).done).toBe(true);
    expect(seen).toMatchObject({ made: 0, ended: 1 });
  });

  it("tells its reader where a piece could not be made", async () => {
    const { stream, seen } = counted({ next: () => Promise.reject(new Error("no database")) });
    await expect(stream.getReader().read()).rejects.toThrow("no database");
    expect(seen.ended).toBe(1);
  });

  it("is ended with all others when the process stops", async () => {
    const { stream, seen } = counted({});
    const reader = stream.getReader();
    await reader.read();
    endStreams();
    expect((await reader.read()).done).toBe(true);
    expect(seen.ended).toBe(1);
  });
});
