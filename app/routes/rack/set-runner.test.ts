import { describe, expect, it } from "vitest";
import type { EntryBody, LogEntry, SetAddress } from "../../../core/floor/entries";
import { RACK, SLOT, TestDevice, testSession } from "../../../core/floor/fixtures/session";
import { FloorFold } from "../../../core/floor/state";
import { SetRunner } from "./set-runner";

/** A rack's log without a server: what is appended is in the fold at once. */
function rack(athletes = ["ann", "bo"]) {
  const fold = new FloorFold(testSession(athletes));
  const tablet = new TestDevice("rack");
  const log = {
    ended: false,
    appended: [] as LogEntry[],
    append(body: EntryBody, supersedes: string[] = []) {
      const entry = tablet.entry(body, supersedes);
      log.appended.push(entry);
      fold.add([entry]);
      return entry;
    },
    view: () => ({ floor: fold.state(), ended: log.ended }),
  };
  return { log, fold, runner: new SetRunner(log) };
}
const at = (athleteId: string, set = 1): SetAddress => ({
  athleteId,
  slotId: SLOT,
  stationId: RACK,
  setKey: `w1.a.${set}`,
});
const counted = (mcvMps: number) => ({ outcome: "counted", source: "typed", mcvMps }) as const;

describe("sets at a rack", () => {
  it("ends a set by the earliest rule, and by it alone", () => {
    const { log, runner } = rack();
    expect(runner.takeRep(at("ann"), counted(0.9), "hand")).toBe("logged");
    expect(runner.takeRep(at("ann"), counted(0.6), "hand")).toBe("ended");
    expect(runner.takeRep(at("ann"), counted(0.9), "hand")).toBe("refused");
    expect(log.appended.map((one) => one.body.kind)).toEqual(["rep", "rep", "set-done"]);
    expect(log.appended[2]?.body).toMatchObject({ endedBy: "loss", cut: true, loadKg: 60 });
  });

  it("a rep goes to the lifter whose set it was, though another stands on the screen", () => {
    const { log, runner } = rack();
    // Same slot, same set number, other lifter: the sensor was started for Ann.
    runner.takeRep(at("bo"), counted(0.8), "hand");
    runner.takeRep(at("ann"), counted(0.9), "sensor");
    runner.takeRep(at("bo"), counted(0.82), "hand");
    expect(log.appended.map((one) => "athleteId" in one.body && one.body.athleteId)).toEqual([
      "bo",
      "ann",
      "bo",
    ]);
    expect(log.appended.map((one) => one.body.kind === "rep" && one.body.rep)).toEqual([1, 1, 2]);
  });

  it("what was undone is forgotten: the set is not ended early", () => {
    const { log, fold, runner } = rack();
    runner.takeRep(at("ann"), counted(0.9), "hand");
    runner.takeRep(at("ann"), counted(0.6), "hand");
    const [, slow, done] = log.appended;
    log.append({ kind: "void" }, [done?.id ?? ""]);
    log.append({ kind: "void" }, [slow?.id ?? ""]);
    // Of three reps one is left: the next is the second, and no rule is met.
    expect(runner.takeRep(at("ann"), counted(0.88), "hand")).toBe("logged");
    const set = fold.state().racks[0]?.lifters[0]?.sets[0];
    expect(set).toMatchObject({ stage: "running" });
    expect(set?.reps.map((rep) => [rep.number, rep.velocityMps])).toEqual([
      [1, 0.9],
      [2, 0.88],
    ]);
    expect(runner.takeRep(at("ann"), counted(0.87), "hand")).toBe("ended");
  });

  it("the sensor's reps stay with a set that another tablet ended", () => {
    const { log, fold, runner } = rack();
    runner.takeRep(at("ann"), counted(0.9), "sensor");
    const other = new TestDevice("floor");
    fold.add([{ ...other.done("ann", 1, 60, true), seq: 1 }]);
    expect(runner.takeRep(at("ann"), counted(0.88), "sensor")).toBe("logged");
    const set = fold.state().racks[0]?.lifters[0]?.sets[0];
    expect(set).toMatchObject({ stage: "done" });
    expect(set?.reps.map((rep) => rep.velocityMps)).toEqual([0.9, 0.88]);
    // And nobody ends it a second time.
    runner.end(at("ann"));
    expect(log.appended.filter((one) => one.body.kind === "set-done")).toEqual([]);
  });

  it("a failed rep is a fault that ends the set", () => {
    const { log, runner } = rack();
    runner.takeRep(at("ann"), { outcome: "failed", source: "sensor" }, "sensor");
    expect(log.appended.map((one) => one.body.kind)).toEqual(["rep", "fault", "set-done"]);
    expect(log.appended[2]?.body).toMatchObject({ endedBy: "fault", cut: true });
  });

  it("a fault cuts a set that has begun, and only tags one that has not", () => {
    const { log, runner } = rack();
    runner.tagFault(at("ann"), "Short range", true);
    expect(log.appended.map((one) => one.body.kind)).toEqual(["fault"]);
    runner.takeRep(at("bo"), counted(0.9), "hand");
    runner.tagFault(at("bo"), "Short range", true);
    expect(log.appended.at(-1)?.body).toMatchObject({ kind: "set-done", endedBy: "fault" });
  });

  it("takes nothing once the session has ended", () => {
    const { log, runner } = rack();
    log.ended = true;
    runner.takeRep(at("ann"), counted(0.9), "sensor");
    runner.tagFault(at("ann"), "Short range", true);
    runner.end(at("ann"));
    expect(log.appended).toEqual([]);
  });
});
