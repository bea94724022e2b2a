import { describe, expect, it } from "vitest";
import type { EntryBody, LogEntry, SetAddress } from "./entries";
import { RACK, SLOT, stored, TestDevice, testSession } from "./fixtures/session";
import { FloorFold, reduceFloor } from "./state";
import { lastAct } from "./undo";

const at = (athleteId: string, set: number): SetAddress => ({
  athleteId,
  slotId: SLOT,
  stationId: RACK,
  setKey: `w1.a.${set}`,
});
const pain = (athleteId: string, set: number): EntryBody => ({
  kind: "pain",
  ...at(athleteId, set),
});

/** Sets that rise: 60, 65, 70 kg. */
function rising() {
  const session = testSession();
  for (const slot of session.slots)
    if (slot.kind === "lift")
      for (const group of slot.groups)
        for (const lifter of group.lifters)
          lifter.sets = lifter.sets.map((set, i) => ({ ...set, loadKg: 60 + 5 * i }));
  return session;
}
const loadsOf = (entries: LogEntry[], athleteId: string, session = rising()) =>
  reduceFloor(session, entries)
    .racks[0]?.lifters.find((one) => one.lifter.athleteId === athleteId)
    ?.sets.map((set) => set.loadKg);

describe("pain", () => {
  it("holds the load of its set for those that follow, and of nobody else", () => {
    const tablet = new TestDevice();
    const log = stored([...tablet.set("ann", 1, [0.8]), tablet.entry(pain("ann", 1))]);
    expect(loadsOf(log, "ann")).toEqual([60, 60, 60]);
    expect(loadsOf(log, "bo")).toEqual([60, 65, 70]);
    const state = reduceFloor(rising(), log).racks[0]?.lifters[0];
    expect(state?.held).toEqual([log[2]?.id]);
  });

  it("lets a load fall", () => {
    const tablet = new TestDevice();
    const session = rising();
    for (const slot of session.slots)
      if (slot.kind === "lift")
        for (const lifter of slot.groups[0]?.lifters ?? [])
          lifter.sets = lifter.sets.map((set, i) => ({ ...set, loadKg: 70 - 5 * i }));
    const log = stored([...tablet.set("ann", 1, [0.8], 70), tablet.entry(pain("ann", 1))]);
    expect(loadsOf(log, "ann", session)).toEqual([70, 65, 60]);
  });

  it("is over when a coach says so, whichever of the two arrives first", () => {
    const tablet = new TestDevice();
    const said = tablet.entry(pain("ann", 1));
    const word = tablet.entry({ kind: "pain-over", of: [said.id], ...at("ann", 1) });
    expect(loadsOf(stored([said, word]), "ann")).toEqual([60, 65, 70]);
    const fold = new FloorFold(rising());
    fold.add([word]);
    fold.state();
    fold.add([said]);
    expect(fold.state().racks[0]?.lifters[0]?.held).toEqual([]);
  });

  it("is not taken back by undo, and a correction that wants it does nothing, in either order", () => {
    const tablet = new TestDevice();
    const said = tablet.entry(pain("ann", 1));
    const rep = tablet.rep("ann", 1, 1, 0.8);
    const both = tablet.entry({ kind: "void" }, [said.id, rep.id]);
    for (const order of [
      [said, rep, both],
      [both, rep, said],
    ]) {
      const fold = new FloorFold(rising());
      for (const entry of order) {
        fold.add([entry]);
        fold.state();
      }
      const state = fold.state().racks[0]?.lifters[0];
      expect(state?.held).toEqual([said.id]);
      expect(state?.sets[0]?.reps).toHaveLength(1);
    }
    const fold = new FloorFold(rising()).add([rep, said]);
    expect(
      lastAct(fold, tablet.id, { slotId: SLOT, athleteId: "ann", setKey: "w1.a.1" })?.of.id,
    ).toBe(rep.id);
  });

  it("offers no heavier load while it holds", () => {
    const tablet = new TestDevice();
    const session = testSession(["ann"], 3, { velocityLed: true });
    for (const slot of session.slots)
      if (slot.kind === "lift")
        for (const lifter of slot.groups[0]?.lifters ?? [])
          lifter.sets = lifter.sets.map((set) => ({
            ...set,
            target: { lowMps: 0.5, highMps: 0.6, source: "coach" as const },
          })) as typeof lifter.sets;
    const fast = tablet.set("ann", 1, [0.9, 0.9, 0.9]);
    expect(reduceFloor(session, stored(fast)).calls.map((call) => call.kind)).toEqual(["add-load"]);
    const held = [...fast, tablet.entry(pain("ann", 1))];
    expect(reduceFloor(session, stored(held)).calls).toEqual([]);
  });
});
