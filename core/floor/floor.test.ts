import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { upcastBody } from "./entries";
import { RACK, SLOT, stored, TestDevice, testSession } from "./fixtures/session";
import { setTimes } from "./forecast";
import { FloorFold, type FloorState, reduceFloor } from "./state";

const lifter = (floor: FloorState, id: string) => {
  const found = floor.racks[0]?.lifters.find((one) => one.lifter.athleteId === id);
  if (!found) throw new Error(`no ${id}`);
  return found;
};

describe("the running session", () => {
  it("begins with nobody done and the first lifter up", () => {
    const floor = reduceFloor(testSession(), []);
    expect(floor.racks[0]?.upId).toBe("ann");
    expect(floor.racks[0]?.onBar).toBeUndefined();
    expect(lifter(floor, "ann").sets.map((set) => set.stage)).toEqual([
      "to-come",
      "to-come",
      "to-come",
    ]);
  });

  it("follows a set rep by rep", () => {
    const tablet = new TestDevice();
    const entries = [tablet.rep("ann", 1, 1, 0.84), tablet.rep("ann", 1, 2, 0.86)];
    const floor = reduceFloor(testSession(), stored(entries));
    const set = lifter(floor, "ann").sets[0];
    expect(set?.stage).toBe("running");
    expect(set?.reps.map((rep) => rep.velocityMps)).toEqual([0.84, 0.86]);
    expect(set?.advice?.advice).toBe("last-one");
    expect(floor.racks[0]?.upId).toBe("ann");
  });

  it("takes turns: the one with the fewest sets, then the rack's order", () => {
    const tablet = new TestDevice();
    const first = tablet.set("ann", 1, [0.84, 0.86, 0.81]);
    const second = tablet.set("bo", 1, [0.84, 0.86, 0.81]);
    expect(reduceFloor(testSession(), stored(first)).racks[0]?.upId).toBe("bo");
    expect(reduceFloor(testSession(), stored([...first, ...second])).racks[0]?.upId).toBe("ann");
  });

  it("knows what the last set left on the bar", () => {
    const tablet = new TestDevice();
    const entries = stored(tablet.set("ann", 1, [0.84, 0.86, 0.81]));
    expect(reduceFloor(testSession(), entries).racks[0]?.onBar).toMatchObject({
      callName: "ann",
      side: [{ amount: 20, unit: "kg" }],
    });
  });

  it("is over when everybody is through", () => {
    const tablet = new TestDevice();
    const entries = [1, 2, 3].flatMap((n) => [
      ...tablet.set("ann", n, [0.84]),
      ...tablet.set("bo", n, [0.84]),
    ]);
    const floor = reduceFloor(testSession(), stored(entries));
    expect(floor.racks[0]?.upId).toBeUndefined();
    expect(lifter(floor, "bo").current).toBeUndefined();
  });

  it("keeps a failed rep, and does not count it", () => {
    const tablet = new TestDevice();
    const entries = [
      tablet.rep("ann", 1, 1, 0.84),
      tablet.entry({
        kind: "rep",
        athleteId: "ann",
        slotId: SLOT,
        stationId: RACK,
        setKey: "w1.a.1",
        rep: 2,
        mcvMps: 0.2,
        outcome: "failed",
        source: "simulated",
      }),
    ];
    const set = lifter(reduceFloor(testSession(), stored(entries)), "ann").sets[0];
    expect(set?.reps).toHaveLength(2);
    expect(set?.advice?.best).toBe(0.84);
    expect(set?.advice?.advice).toBe("go-on");
  });
});

describe("calls", () => {
  const slow = (tablet: TestDevice) => tablet.set("ann", 1, [0.71, 0.69, 0.66]);
  const take = (tablet: TestDevice, decision: "take" | "change" | "decline") =>
    tablet.entry({
      kind: "call",
      athleteId: "ann",
      slotId: SLOT,
      stationId: RACK,
      setKey: "w1.a.1",
      call: "lighten",
      decision,
      action:
        decision === "decline"
          ? { type: "none" }
          : { type: "load", deltaKg: decision === "take" ? -2.5 : -5, toKg: 57.5 },
      reason: "",
    });

  it("wait with their evidence until they are decided", () => {
    const tablet = new TestDevice();
    const floor = reduceFloor(testSession(), stored(slow(tablet)));
    expect(floor.calls).toHaveLength(1);
    expect(floor.calls[0]).toMatchObject({
      athleteId: "ann",
      kind: "lighten",
      action: { type: "load", deltaKg: -2.5, toKg: 57.5 },
    });
  });

  it.each([
    ["take", 57.5],
    ["change", 55],
    ["decline", 60],
  ] as const)("%s: the next sets stand at %s kg", (decision, kg) => {
    const tablet = new TestDevice();
    const entries = [...slow(tablet), take(tablet, decision)];
    const floor = reduceFloor(testSession(), stored(entries));
    expect(floor.calls).toEqual([]);
    expect(floor.decided[0]).toMatchObject({ decision });
    expect(lifter(floor, "ann").sets.map((set) => set.loadKg)).toEqual([60, kg, kg]);
    expect(lifter(floor, "bo").sets[1]?.loadKg).toBe(60);
  });

  it("pass when the next set is done without them", () => {
    const tablet = new TestDevice();
    const entries = [...slow(tablet), ...tablet.set("ann", 2, [0.84])];
    expect(reduceFloor(testSession(), stored(entries)).calls).toEqual([]);
  });

  it("end the exercise: what is left is dropped, and the lifter is through", () => {
    const tablet = new TestDevice();
    const end = tablet.entry({
      kind: "call",
      athleteId: "ann",
      slotId: SLOT,
      stationId: RACK,
      setKey: "w1.a.1",
      call: "end-exercise",
      decision: "take",
      action: { type: "end-exercise" },
      reason: "",
    });
    const floor = reduceFloor(testSession(), stored([...slow(tablet), end]));
    expect(lifter(floor, "ann").sets.map((set) => set.stage)).toEqual([
      "done",
      "dropped",
      "dropped",
    ]);
    expect(lifter(floor, "ann").current).toBeUndefined();
    expect(floor.racks[0]?.upId).toBe("bo");
  });

  it("lengthen the rest, and then propose the end", () => {
    const tablet = new TestDevice();
    const entries = [
      ...tablet.set("ann", 1, [0.85]),
      ...tablet.set("ann", 2, [0.7]),
      tablet.entry({
        kind: "call",
        athleteId: "ann",
        slotId: SLOT,
        stationId: RACK,
        setKey: "w1.a.2",
        call: "more-rest",
        decision: "take",
        action: { type: "rest", addS: 15 },
        reason: "",
      }),
      ...tablet.set("ann", 3, [0.69]),
    ];
    const floor = reduceFloor(testSession(["ann"], 4), stored(entries));
    expect(lifter(floor, "ann").addedRestS).toBe(15);
    expect(floor.calls[0]?.kind).toBe("end-exercise");
  });
});

describe("rests", () => {
  it("are measured on one page's clock", () => {
    const tablet = new TestDevice();
    const first = tablet.set("ann", 1, [0.84]);
    tablet.wait(59);
    const floor = reduceFloor(testSession(), stored([...first, ...tablet.set("ann", 2, [0.84])]));
    expect(lifter(floor, "ann").sets[1]?.restTaken).toEqual({ seconds: 60, measured: true });
  });

  it("are marked estimated across two tablets or a restart", () => {
    const one = new TestDevice("one");
    const two = new TestDevice("two");
    two.wait(90);
    const entries = stored([...one.set("ann", 1, [0.84]), ...two.set("ann", 2, [0.84])]);
    expect(lifter(reduceFloor(testSession(), entries), "ann").sets[1]?.restTaken?.measured).toBe(
      false,
    );
    const first = one.set("bo", 1, [0.84]);
    one.reboot();
    const again = stored([...first, ...one.set("bo", 2, [0.84])]);
    expect(lifter(reduceFloor(testSession(), again), "bo").sets[1]?.restTaken?.measured).toBe(
      false,
    );
  });
});

describe("corrections, conflicts and what is set aside", () => {
  it("takes back by a void, and undo restores what was", () => {
    const tablet = new TestDevice();
    const set = tablet.set("ann", 1, [0.84, 0.86, 0.81]);
    const before = reduceFloor(testSession(), stored(set.slice(0, 3)));
    const undone = [...set, tablet.entry({ kind: "void" }, [set[3]?.id ?? ""])];
    const after = reduceFloor(testSession(), stored(undone));
    expect(lifter(after, "ann").sets).toEqual(lifter(before, "ann").sets);
  });

  it("lets the first of two corrections stand and reports the second", () => {
    const tablet = new TestDevice();
    const wrong = tablet.rep("ann", 1, 1, 0.48);
    const right = tablet.entry({ ...wrong.body, mcvMps: 0.84 } as typeof wrong.body, [wrong.id]);
    const late = tablet.entry({ ...wrong.body, mcvMps: 0.99 } as typeof wrong.body, [wrong.id]);
    const floor = reduceFloor(testSession(), stored([wrong, right, late]));
    expect(lifter(floor, "ann").sets[0]?.reps.map((rep) => rep.velocityMps)).toEqual([0.84]);
    expect(floor.conflicts).toEqual([
      { code: "double-correction", of: wrong.id, kept: right.id, other: late.id },
    ]);
  });

  it("leaves a set its reps when somebody else ends it", () => {
    const rack = new TestDevice("rack");
    const floor = new TestDevice("floor");
    const set = rack.set("ann", 1, [0.84, 0.86, 0.81]);
    const ended = floor.entry(set[3]?.body as never);
    const state = reduceFloor(testSession(), stored([...set.slice(0, 3), ended]));
    const [first] = lifter(state, "ann").sets;
    expect(first).toMatchObject({ stage: "done", doneEntryId: ended.id });
    expect(first?.reps.map((rep) => rep.velocityMps)).toEqual([0.84, 0.86, 0.81]);
    expect(state.conflicts).toEqual([]);
  });

  it("takes a correction from another device, after the set was ended too", () => {
    const rack = new TestDevice("rack");
    const floor = new TestDevice("floor");
    const set = rack.set("ann", 1, [0.84, 0.48, 0.81]);
    const wrong = set[1];
    const right = floor.entry({ ...wrong?.body, mcvMps: 0.86 } as never, [wrong?.id ?? ""]);
    const state = reduceFloor(testSession(), stored([...set, right]));
    const [first] = lifter(state, "ann").sets;
    expect(first?.reps.map((rep) => rep.velocityMps)).toEqual([0.84, 0.86, 0.81]);
  });

  it("goes on with another tablet where one broke in the middle of a set", () => {
    const broken = new TestDevice("broken");
    const spare = new TestDevice("spare");
    const set = spare.set("ann", 1, [0.1, 0.1, 0.81]);
    const state = reduceFloor(
      testSession(),
      stored([broken.rep("ann", 1, 1, 0.84), broken.rep("ann", 1, 2, 0.86), ...set.slice(2)]),
    );
    const [first] = lifter(state, "ann").sets;
    expect(first?.reps.map((rep) => rep.velocityMps)).toEqual([0.84, 0.86, 0.81]);
    expect(state.conflicts).toEqual([]);
  });

  it("lets one of two detectors of a set decide, and reports the other", () => {
    const one = new TestDevice("one");
    const two = new TestDevice("two");
    const kept = one.rep("ann", 1, 1, 0.84);
    const other = two.rep("ann", 1, 1, 0.5);
    const state = reduceFloor(
      testSession(),
      stored([kept, other, ...one.set("ann", 1, []).slice(-1)]),
    );
    expect(lifter(state, "ann").sets[0]?.reps.map((rep) => rep.velocityMps)).toEqual([0.84]);
    expect(state.conflicts).toMatchObject([
      { code: "two-detectors", kept: kept.id, other: other.id },
    ]);
  });

  it("leaves a set to its first detector, though the second one ends it", () => {
    const one = new TestDevice("one");
    const two = new TestDevice("two");
    const state = reduceFloor(
      testSession(),
      stored([
        one.rep("ann", 1, 1, 0.84),
        two.rep("ann", 1, 1, 0.5),
        one.rep("ann", 1, 2, 0.86),
        two.done("ann", 1),
      ]),
    );
    const [first] = lifter(state, "ann").sets;
    expect(first?.reps.map((rep) => rep.velocityMps)).toEqual([0.84, 0.86]);
    expect(state.conflicts).toMatchObject([{ code: "two-detectors" }]);
  });

  it("keeps the first of the same set from two tablets, with that tablet's reps only", () => {
    const one = new TestDevice("one");
    const two = new TestDevice("two");
    const entries = stored([
      ...one.set("ann", 1, [0.84, 0.86]),
      ...two.set("ann", 1, [0.5, 0.5, 0.5]),
    ]);
    const floor = reduceFloor(testSession(), entries);
    expect(lifter(floor, "ann").sets[0]?.reps.map((rep) => rep.velocityMps)).toEqual([0.84, 0.86]);
    expect(floor.conflicts).toMatchObject([{ code: "same-set-twice" }]);
  });

  it("sets aside what it does not know and goes on", () => {
    const tablet = new TestDevice();
    const stranger = tablet.rep("zed", 1, 1, 0.8);
    const noSet = tablet.rep("ann", 9, 1, 0.8);
    const newer = { ...tablet.rep("ann", 1, 1, 0.8), schemaVersion: 99 };
    const good = tablet.rep("bo", 1, 1, 0.8);
    const floor = reduceFloor(testSession(), stored([stranger, noSet, newer, good]));
    expect(floor.setAside.map((one) => one.entryId)).toEqual([stranger.id, noSet.id, newer.id]);
    expect(lifter(floor, "bo").sets[0]?.stage).toBe("running");
    expect(upcastBody(good.body, 99, () => undefined)).toBeUndefined();
  });
});

const logArbitrary = fc
  .array(
    fc.record({
      who: fc.constantFrom("ann", "bo", "cy"),
      set: fc.integer({ min: 1, max: 3 }),
      speeds: fc.array(fc.double({ min: 0.4, max: 1.2, noNaN: true }), {
        minLength: 1,
        maxLength: 4,
      }),
      tablet: fc.constantFrom("one", "two"),
    }),
    { maxLength: 9 },
  )
  .map((sets) => {
    const tablets = { one: new TestDevice("one"), two: new TestDevice("two") };
    return sets.flatMap(({ who, set, speeds, tablet }) =>
      tablets[tablet as "one" | "two"].set(who, set, speeds),
    );
  });

describe("laws of the log", () => {
  const session = testSession(["ann", "bo", "cy"]);

  it("the order of arrival does not matter once the server has numbered the entries", () => {
    fc.assert(
      fc.property(logArbitrary, fc.infiniteStream(fc.nat()), (entries, order) => {
        const numbered = stored(entries);
        const shuffled = [...numbered]
          .map((entry) => ({ entry, at: order.next().value as number }))
          .sort((a, b) => a.at - b.at)
          .map(({ entry }) => entry);
        expect(reduceFloor(session, shuffled)).toEqual(reduceFloor(session, numbered));
      }),
    );
  });

  it("an entry seen twice counts once", () => {
    fc.assert(
      fc.property(logArbitrary, (entries) => {
        const numbered = stored(entries);
        expect(reduceFloor(session, [...numbered, ...numbered])).toEqual(
          reduceFloor(session, numbered),
        );
      }),
    );
  });

  it("an acknowledged copy takes the place of the unsent one", () => {
    const tablet = new TestDevice();
    const unsent = tablet.set("ann", 1, [0.84, 0.86]);
    const both = reduceFloor(session, [...unsent, ...stored(unsent)]);
    expect(both).toEqual(reduceFloor(session, stored(unsent)));
  });

  it("the unsent come after everything that is stored", () => {
    const one = new TestDevice("one");
    const two = new TestDevice("two");
    const mine = one.set("ann", 1, [0.84]);
    const theirs = stored(two.set("ann", 1, [0.6]));
    const fold = new FloorFold(session).add([...mine, ...theirs]);
    expect(fold.entries().map((entry) => entry.deviceId)).toEqual(["two", "two", "one", "one"]);
  });

  it("voiding every entry gives the empty floor", () => {
    fc.assert(
      fc.property(logArbitrary, (entries) => {
        const tablet = new TestDevice("undo");
        const all = [...entries, ...entries.map((one) => tablet.entry({ kind: "void" }, [one.id]))];
        const floor = reduceFloor(session, stored(all));
        expect(floor.racks).toEqual(reduceFloor(session, []).racks);
        expect(floor.calls).toEqual([]);
      }),
    );
  });
});

describe("forecast", () => {
  const nowMs = Date.parse("2026-03-10T16:10:00Z");
  const times = (entries: ReturnType<typeof stored>, id: string, leastRestS = 10) => {
    const floor = reduceFloor(testSession(), entries);
    const rack = floor.racks[0];
    if (!rack) throw new Error("no rack");
    const at = setTimes({ rack, one: lifter(floor, id), nowMs, leastRestS, setS: 8, changeS: 10 });
    return at.map((ms) => (ms - nowMs) / 1000);
  };

  it("puts the lifter who is up first, the next a turn later, and rounds in turn", () => {
    expect(times([], "ann")).toEqual([8, 44, 80]);
    expect(times([], "bo")).toEqual([26, 62, 98]);
  });

  it("leaves done sets where they ended", () => {
    const tablet = new TestDevice();
    const entries = stored(tablet.set("ann", 1, [0.84]));
    expect(times(entries, "ann")[0]).toBeLessThan(0);
    expect(times(entries, "bo")[0]).toBe(8);
  });

  it("never forecasts a round shorter than the rest", () => {
    const [first = 0, second = 0] = times([], "ann", 120);
    expect(second - first).toBe(128);
  });
});
