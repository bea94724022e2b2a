import { describe, expect, it } from "vitest";
import { correctSet, type WantedSet } from "./correct-set";
import type { LogEntry } from "./entries";
import { RACK, SLOT, TestDevice, testSession } from "./fixtures/session";
import { FloorFold } from "./state";

const at = (athleteId: string, set = 1) => ({
  athleteId,
  slotId: SLOT,
  stationId: RACK,
  setKey: `w1.a.${set}`,
});

/** A floor with Ann's first set done, and a desk that puts it right. */
function floor() {
  const fold = new FloorFold(testSession());
  const rack = new TestDevice("rack");
  const desk = new TestDevice("desk");
  const logged = rack.set("ann", 1, [0.84, 0.48, 0.81]);
  fold.add(logged);
  const setOf = (who: string, set = 1) =>
    fold.state().racks[0]?.lifters.find((one) => one.lifter.athleteId === who)?.sets[set - 1];
  const asItIs = (who: string): WantedSet => {
    const set = setOf(who);
    return {
      reps: (set?.reps ?? []).map(({ entryId, velocityMps, outcome }) => ({
        entryId,
        velocityMps,
        outcome,
      })),
      faults: (set?.faults ?? []).map(({ entryId, fault }) => ({ entryId, fault })),
      loadKg: set?.stage === "done" ? set.loadKg : undefined,
      moveTo: undefined,
      why: "Typed wrong",
    };
  };
  const correct = (who: string, change: Partial<WantedSet>): LogEntry[] => {
    const made = correctSet({
      at: at(who),
      line: fold.counting(SLOT, who),
      metric: "MCV",
      plannedReps: 3,
      wanted: { ...asItIs(who), ...change },
    }).map(({ body, supersedes }) => desk.entry(body, supersedes));
    fold.add(made);
    return made;
  };
  return { fold, logged, setOf, asItIs, correct };
}
const speeds = (set: ReturnType<ReturnType<typeof floor>["setOf"]>) =>
  set?.reps.map((rep) => rep.velocityMps);

describe("a set put right", () => {
  it("that stands as it is wanted is left alone", () => {
    const { correct } = floor();
    expect(correct("ann", {})).toEqual([]);
  });

  it("changes one speed, and only that; who corrected and why stand in the log", () => {
    const { logged, setOf, asItIs, correct } = floor();
    const [first, second, third] = asItIs("ann").reps;
    if (!first || !second || !third) throw new Error("Three reps.");
    const made = correct("ann", { reps: [first, { ...second, velocityMps: 0.86 }, third] });
    expect(made).toHaveLength(1);
    expect(made[0]).toMatchObject({
      supersedes: [logged[1]?.id],
      body: { kind: "rep", rep: 2, mcvMps: 0.86, source: "typed", why: "Typed wrong" },
    });
    expect(speeds(setOf("ann"))).toEqual([0.84, 0.86, 0.81]);
  });

  it("takes a rep out, adds one, changes the load and the faults", () => {
    const { setOf, asItIs, correct } = floor();
    const reps = asItIs("ann").reps;
    correct("ann", {
      reps: [
        ...reps.slice(0, 1),
        ...reps.slice(2),
        { entryId: undefined, velocityMps: 0.83, outcome: "counted" },
        { entryId: undefined, velocityMps: undefined, outcome: "failed" },
      ],
      loadKg: 55,
      faults: [{ entryId: undefined, fault: "Short range" }],
    });
    expect(speeds(setOf("ann"))).toEqual([0.84, 0.81, 0.83, undefined]);
    expect(setOf("ann")).toMatchObject({ loadKg: 55, cut: false });
    expect(setOf("ann")?.faults.map((one) => one.fault)).toEqual(["Short range"]);
    correct("ann", { faults: [], reps: [] });
    expect(setOf("ann")?.faults).toEqual([]);
    expect(setOf("ann")).toMatchObject({ reps: [], cut: true });
  });

  it("goes to another athlete whole, and can be undone entry by entry", () => {
    const { fold, setOf, correct } = floor();
    const before = fold.state().racks;
    const made = correct("ann", { moveTo: at("bo"), why: "Wrong athlete" });
    expect(setOf("ann")).toMatchObject({ stage: "to-come", reps: [] });
    expect(speeds(setOf("bo"))).toEqual([0.84, 0.48, 0.81]);
    expect(setOf("bo")).toMatchObject({ stage: "done" });
    expect(fold.state().conflicts).toEqual([]);
    const undo = new TestDevice("undo");
    fold.add(made.map((entry) => undo.entry({ kind: "void" }, [entry.id])));
    expect(fold.state().racks).toEqual(before);
  });

  it("opens a set that was ended by mistake, and ends one that nobody ended", () => {
    const { setOf, correct } = floor();
    correct("ann", { loadKg: undefined });
    expect(setOf("ann")).toMatchObject({ stage: "running" });
    correct("ann", { loadKg: 60 });
    expect(setOf("ann")).toMatchObject({ stage: "done", loadKg: 60, endedBy: "cap" });
    correct("bo", {
      reps: [{ entryId: undefined, velocityMps: 0.8, outcome: "counted" }],
      loadKg: 62.5,
    });
    expect(setOf("bo")).toMatchObject({ stage: "done", loadKg: 62.5, endedBy: "hand", cut: true });
  });

  it("corrected twice stands as it was corrected last", () => {
    const { fold, setOf, asItIs, correct } = floor();
    const change = (velocityMps: number) => {
      const reps = asItIs("ann").reps;
      correct("ann", { reps: reps.map((rep, i) => (i === 1 ? { ...rep, velocityMps } : rep)) });
    };
    change(0.86);
    change(0.85);
    expect(speeds(setOf("ann"))).toEqual([0.84, 0.85, 0.81]);
    expect(fold.state().conflicts).toEqual([]);
  });
});
