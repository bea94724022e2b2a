import { describe, expect, it } from "vitest";
import type { LogEntry } from "../../core/floor/entries";
import { TestDevice, testSession } from "../../core/floor/fixtures/session";
import { DeviceClock } from "./clock";
import type { LiveMessage } from "./live";
import { Outbox } from "./outbox";
import type { KeptEntry, RefusedEntry } from "./outbox-store";
import type { PostResult } from "./post-log";
import { SessionLog } from "./session-log";

const SESSION = "today";

/** A session's log over an outbox in memory; the server answers as the test says. */
function open(entries: LogEntry[] = []) {
  const unsent = new Map<string, KeptEntry>();
  const away: RefusedEntry[] = [];
  let answer: (entry: LogEntry) => "stored" | string = () => "stored";
  let seq = 100;
  const outbox = new Outbox({
    store: {
      keep: async (kept) => void unsent.set(kept.entry.id, kept),
      waiting: async () => [...unsent.values()],
      settle: async (ids) => ids.forEach((id) => void unsent.delete(id)),
      refuse: async (rows) => {
        away.push(...rows);
        for (const row of rows) unsent.delete(row.entry.id);
      },
      refused: async () => away,
      forgetRefused: async () => {},
    },
    post: async (_, sent): Promise<PostResult> => ({
      kind: "answers",
      answers: sent.map((entry) => {
        const said = answer(entry);
        return said === "stored"
          ? { id: entry.id, status: "stored", seq: ++seq }
          : { id: entry.id, status: "refused", reason: said };
      }),
    }),
  });
  const tablet = new TestDevice("tablet");
  const log = new SessionLog({
    sessionId: SESSION,
    frozen: testSession(),
    entries,
    ended: false,
    outbox,
    clock: new DeviceClock({ wallMs: () => 0, monoMs: () => 0 }, () => "boot", "tablet"),
    stamp: (body, supersedes) => tablet.entry(body, supersedes),
  });
  let hear: (message: LiveMessage) => void = () => {};
  let heard = () => 0;
  const stop = log.start((cursor, take) => {
    heard = cursor;
    hear = take;
    return () => {};
  });
  return {
    log,
    outbox,
    stop,
    unsent,
    tell: (message: LiveMessage) => hear(message),
    heard: () => heard(),
    answers: (say: typeof answer) => {
      answer = say;
    },
  };
}
const other = new TestDevice("other");
const rep = other.rep("ann", 1, 1, 0.8);
const speeds = (log: SessionLog) =>
  log.view().floor.racks[0]?.lifters[0]?.sets[0]?.reps.map((one) => one.velocityMps);

describe("a session in one browser", () => {
  it("shows what is appended when append returns, and sends it", async () => {
    const { log, outbox } = open();
    const entry = log.append(rep.body);
    expect(speeds(log)).toEqual([0.8]);
    expect(log.view()).toMatchObject({ unsent: 1 });
    await outbox.flush();
    await Promise.resolve();
    expect(log.view()).toMatchObject({ unsent: 0, link: "ok" });
    expect(log.fold.entry(entry.id)?.seq).toBeGreaterThan(100);
  });

  it("takes out again what the server refused: the screen shows what counts", async () => {
    const { log, outbox, answers } = open();
    answers(() => "The session had ended.");
    log.append(rep.body);
    await outbox.flush();
    await outbox.flush();
    expect(speeds(log)).toEqual([]);
    expect(log.view().refused.map((row) => row.reason)).toEqual(["The session had ended."]);
  });

  it("shows what waits in the browser's store of this session, and counts that of others", async () => {
    const { outbox, unsent, log } = open();
    unsent.set("mine", { sessionId: SESSION, entry: { ...rep, id: "mine" } });
    unsent.set("old", { sessionId: "last week", entry: { ...rep, id: "old" } });
    // Before anything is sent: the store is read first.
    const seen: unknown[] = [];
    outbox.listen((news) => seen.push(news.kind));
    const done = outbox.flush();
    await done;
    expect(seen).toContain("found");
    expect(log.fold.has("mine")).toBe(true);
    expect(log.fold.has("old")).toBe(false);
  });

  it("goes on from the highest number it was told, not from its own", async () => {
    const { log, outbox, tell, heard } = open([{ ...rep, seq: 7 }]);
    expect(heard()).toBe(7);
    log.append({ ...rep.body, rep: 2 } as LogEntry["body"]);
    await outbox.flush();
    expect(heard()).toBe(7);
    tell({ kind: "entries", entries: [{ ...other.rep("bo", 1, 1, 0.7), seq: 9 }] });
    expect(heard()).toBe(9);
  });

  it("is told of the end, of being opened again, and of a broken stream", () => {
    const { log, tell } = open();
    tell({ kind: "status", ended: true });
    expect(log.view().ended).toBe(true);
    tell({ kind: "status", ended: false });
    expect(log.view().ended).toBe(false);
    tell({ kind: "link", up: false });
    expect(log.view().link).toBe("away");
    tell({ kind: "link", up: true });
    expect(log.view().link).toBe("ok");
  });

  it("gives the same view until something changes", () => {
    const { log, tell } = open();
    const before = log.view();
    expect(log.view()).toBe(before);
    tell({ kind: "status", ended: true });
    expect(log.view()).not.toBe(before);
    expect(log.view().floor).toBe(before.floor);
  });
});
