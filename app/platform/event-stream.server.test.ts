import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { type EventWriter, eventStream } from "./event-stream.server";

const text = (bytes: Uint8Array | undefined) => new TextDecoder().decode(bytes);
const turn = () => new Promise((resolve) => setTimeout(resolve, 0));

/** A stream whose writer is at hand, and how often it was ended. */
function made(signal: AbortSignal = new AbortController().signal) {
  const seen = { ended: 0 };
  let out: EventWriter | undefined;
  const stream = eventStream(signal, async (writer) => {
    out = writer;
    return () => {
      seen.ended++;
    };
  });
  return { stream, seen, out: () => out as EventWriter };
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

  it("brings messages in order, and ends when it is closed", async () => {
    const { stream, seen, out } = made();
    const reader = stream.getReader();
    await turn();
    out().write("one");
    out().write("two");
    out().close();
    out().close();
    expect(text((await reader.read()).value)).toBe("one");
    expect(text((await reader.read()).value)).toBe("two");
    expect((await reader.read()).done).toBe(true);
    expect(seen.ended).toBe(1);
  });

  it("takes writes and closes after the reader has gone, and does nothing", async () => {
    const { stream, seen, out } = made();
    const reader = stream.getReader();
    await turn();
    await reader.cancel();
    expect(out().open).toBe(false);
    out().write("late");
    out().close();
    expect(seen.ended).toBe(1);
  });

  it("is closed by the request's end while a read is on its way", async () => {
    const away = new AbortController();
    const { stream, seen, out } = made(away.signal);
    const reader = stream.getReader();
    await turn();
    const reading = turn().then(() => out().write("too late"));
    away.abort();
    await reading;
    expect((await reader.read()).done).toBe(true);
    out().close();
    expect(seen.ended).toBe(1);
  });

  it("ends what was begun after the reader had gone already", async () => {
    const away = new AbortController();
    let ended = 0;
    let begun = () => {};
    const wait = new Promise<void>((resolve) => {
      begun = resolve;
    });
    const stream = eventStream(away.signal, async () => {
      await wait;
      return () => {
        ended++;
      };
    });
    away.abort();
    begun();
    await turn();
    expect(ended).toBe(1);
    expect((await stream.getReader().read()).done).toBe(true);
  });

  it("of a request that was over before it began writes nothing", async () => {
    const { stream, seen } = made(AbortSignal.abort());
    expect((await stream.getReader().read()).done).toBe(true);
    await turn();
    expect(seen.ended).toBe(1);
  });

  it("tells its reader where it could not be begun", async () => {
    const stream = eventStream(new AbortController().signal, () =>
      Promise.reject(new Error("no database")),
    );
    await expect(stream.getReader().read()).rejects.toThrow("no database");
  });
});
