import { describe, expect, it } from "vitest";
import { comeIn } from "./come-in";
import { rampKey } from "./entries";
import { RACK, SLOT, TestDevice, testSession } from "./fixtures/session";
import type { FrozenExercise, FrozenSession } from "./frozen";
import { callNames } from "./names";
import { amended, doneAsPlanned, lastWork, nextWork, sideGap } from "./round";
import { FloorFold, reduceFloor } from "./state";
import { slotCounts, stationsOf } from "./stations";

const WALL = "wall";
const RACK_2 = "rack-2";

/** Two racks and a wall: a throw, the lift, an exercise to each side; cy is not here. */
function daySession(): FrozenSession {
  const made = testSession(["ann", "bo"]);
  const [lift] = made.slots;
  const [rack] = made.stations;
  if (lift?.kind !== "lift" || rack?.kind !== "rack") throw new Error("The fixture lifts.");
  const exercise = (
    slotId: string,
    over: Partial<FrozenExercise>,
    sets: number,
  ): FrozenExercise => {
    const person = (athleteId: string) => ({
      athleteId,
      name: `${athleteId} Example`,
      unit: "kg" as const,
      instructions: [],
      sets: Array.from({ length: sets }, (_, i) => ({
        key: `${slotId}.${i + 1}`,
        number: i + 1,
        reps: 5,
        loadKg: over.output === "distance" ? undefined : 15,
        loadReason: undefined,
      })),
    });
    return {
      kind: "exercise",
      slotId,
      exerciseId: slotId,
      name: slotId,
      pattern: "trunk",
      counts: "reps",
      sides: "both",
      hands: 1,
      output: "none",
      rest: { leastS: 60, mostS: 60 },
      groups: [{ stationId: WALL, athletes: ["ann", "bo"].map(person) }],
      absent: [person("cy")],
      ...over,
    };
  };
  const [group] = lift.groups;
  const [someone] = group?.lifters ?? [];
  if (!someone) throw new Error("The fixture has lifters.");
  return {
    ...made,
    stations: [rack, { ...rack, id: RACK_2, name: "2" }, { kind: "place", id: WALL, name: "Wall" }],
    slots: [
      exercise("throws", { section: "primer", output: "distance" }, 2),
      {
        ...lift,
        section: "main",
        absent: [{ ...someone, athleteId: "cy", name: "cy Example" }],
      },
      exercise("plank", { section: "accessories", sides: "left-right", group: "A" }, 3),
    ],
  };
}

const day = daySession();
const device = new TestDevice();
const at = (athleteId: string, slotId: string) => ({ athleteId, slotId, stationId: WALL });
const fold = (...bodies: Parameters<TestDevice["entry"]>[0][]) =>
  new FloorFold(day).add(bodies.map((body, i) => ({ ...device.entry(body), seq: i + 1 })));
const lineOf = (one: FloorFold, slotId: string, athleteId: string) => {
  const found = one
    .state()
    .exercises.find((exercise) => exercise.slot.slotId === slotId)
    ?.athletes.find((line) => line.athlete.athleteId === athleteId);
  if (!found) throw new Error("No such line.");
  return found;
};
const slotOf = (slotId: string) =>
  day.slots.find((slot): slot is FrozenExercise => slot.slotId === slotId) as FrozenExercise;

describe("a day of several slots", () => {
  it("has each slot at its station, and says what is done there now", () => {
    const stations = stationsOf(day, fold().state());
    expect(stations.map((one) => [one.station.name, one.current?.name])).toEqual([
      ["1", "Bench"],
      ["Wall", "throws"],
    ]);
    expect(slotCounts(day, stations).map((one) => [one.name, one.done, one.planned])).toEqual([
      ["throws", 0, 4],
      ["Bench", 0, 6],
      ["plank", 0, 6],
    ]);
  });

  it("one tap is a set as planned; a side each where it has sides", () => {
    const none = fold();
    const first = nextWork(slotOf("throws"), lineOf(none, "throws", "ann"));
    if (!first) throw new Error("There is a first set.");
    const after = fold(doneAsPlanned(at("ann", "throws"), first.set, undefined));
    expect(lineOf(after, "throws", "ann")).toMatchObject({ doneCount: 1, current: 1 });
    expect(lineOf(after, "throws", "bo")).toMatchObject({ doneCount: 0, current: 0 });

    const plank = nextWork(slotOf("plank"), lineOf(none, "plank", "ann"));
    if (!plank) throw new Error("There is a first set.");
    expect(plank.sides).toEqual(["left", "right"]);
    const left = doneAsPlanned(at("ann", "plank"), plank.set, "left");
    const half = fold(left);
    expect(lineOf(half, "plank", "ann")).toMatchObject({ doneCount: 0, current: 0 });
    expect(lineOf(half, "plank", "ann").sets[0]?.stage).toBe("running");
    expect(sideGap(lineOf(half, "plank", "ann"))).toEqual({ side: "right", by: 5 });
    const whole = fold(left, { ...left, side: "right" });
    expect(lineOf(whole, "plank", "ann")).toMatchObject({ doneCount: 1, current: 1 });
    expect(sideGap(lineOf(whole, "plank", "ann"))).toBeUndefined();
  });

  it("what was done is said anew, and taken back", () => {
    const first = nextWork(slotOf("throws"), lineOf(fold(), "throws", "ann"));
    if (!first) throw new Error("There is a first set.");
    const tap = {
      ...device.entry(doneAsPlanned(at("ann", "throws"), first.set, undefined)),
      seq: 1,
    };
    const one = new FloorFold(day).add([tap]);
    const last = lastWork(lineOf(one, "throws", "ann"));
    if (!last) throw new Error("There is something done.");
    const said = {
      ...device.entry(amended(at("ann", "throws"), last, { reps: 4, output: 9.5 }), [tap.id]),
      seq: 2,
    };
    one.add([said]);
    expect(lastWork(lineOf(one, "throws", "ann"))?.done).toMatchObject({ reps: 4, output: 9.5 });
    expect(one.state().conflicts).toEqual([]);
    one.add([{ ...device.entry({ kind: "void" }, [said.id]), seq: 3 }]);
    expect(lastWork(lineOf(one, "throws", "ann"))?.done).toMatchObject({ reps: 5 });
  });

  it("the same set from two tablets is one, and is reported", () => {
    const first = nextWork(slotOf("throws"), lineOf(fold(), "throws", "ann"));
    if (!first) throw new Error("There is a first set.");
    const body = doneAsPlanned(at("ann", "throws"), first.set, undefined);
    const other = new TestDevice("other");
    const state = reduceFloor(day, [
      { ...device.entry(body), seq: 1 },
      { ...other.entry({ ...body, reps: 3 }), seq: 2 },
    ]);
    expect(state.exercises[0]?.athletes[0]).toMatchObject({ doneCount: 1 });
    expect(state.conflicts).toMatchObject([{ code: "same-set-twice" }]);
  });
});

describe("nobody is stuck", () => {
  const lift = (one: FloorFold, station = RACK) =>
    one.state().racks.find((rack) => rack.rack.id === station);

  it("others first: the next lifter is up, and the set is still to be done", () => {
    const key = "w1.a.1";
    const one = fold({
      kind: "later",
      athleteId: "ann",
      slotId: SLOT,
      stationId: RACK,
      setKey: key,
    });
    expect(lift(one)?.upId).toBe("bo");
    expect(lift(one)?.lifters[0]).toMatchObject({ current: 0, doneCount: 0 });
  });

  it("a set that is left out is no more to do, and comes back when that is taken back", () => {
    const skip = device.entry({
      kind: "skip",
      athleteId: "ann",
      slotId: SLOT,
      stationId: RACK,
      setKey: "w1.a.1",
    });
    const one = new FloorFold(day).add([{ ...skip, seq: 1 }]);
    expect(lift(one)?.lifters[0]).toMatchObject({ current: 1 });
    expect(lift(one)?.lifters[0]?.sets[0]).toMatchObject({ stage: "dropped", skipped: true });
    one.add([{ ...device.entry({ kind: "void" }, [skip.id]), seq: 2 }]);
    expect(lift(one)?.lifters[0]).toMatchObject({ current: 0 });
  });

  it("who is taken off does no more; who goes to another rack lifts there, with its plates", () => {
    const off = fold({ kind: "off", athleteId: "ann", slotId: SLOT, stationId: RACK });
    expect(lift(off)?.lifters[0]).toMatchObject({ off: true, current: undefined });
    expect(lift(off)?.upId).toBe("bo");

    const moved = fold({ kind: "move", athleteId: "ann", slotId: SLOT, stationId: RACK_2 });
    expect(lift(moved)?.lifters.map((one) => one.lifter.athleteId)).toEqual(["bo"]);
    expect(lift(moved, RACK_2)?.lifters.map((one) => one.lifter.athleteId)).toEqual(["ann"]);
    expect(lift(moved, RACK_2)?.lifters[0]?.sets[0]).toMatchObject({ loadKg: 60 });
    expect(lift(moved, RACK_2)?.lifters[0]?.sets[0]?.side).not.toEqual([]);
  });

  it("who was not here is nowhere, and comes in to every slot of the day", () => {
    const before = fold().state();
    expect(before.absent).toEqual([{ athleteId: "cy", name: "cy Example" }]);
    expect(before.racks[0]?.lifters).toHaveLength(2);
    const bodies = comeIn(day, before, "cy", { slotId: SLOT, stationId: RACK });
    expect(bodies).toEqual([
      { kind: "move", athleteId: "cy", slotId: "throws", stationId: WALL },
      { kind: "move", athleteId: "cy", slotId: SLOT, stationId: RACK },
      { kind: "move", athleteId: "cy", slotId: "plank", stationId: WALL },
    ]);
    const after = fold(...bodies).state();
    expect(after.absent).toEqual([]);
    expect(after.racks[0]?.lifters.map((one) => one.lifter.athleteId)).toEqual(["ann", "bo", "cy"]);
    expect(after.setAside).toEqual([]);
  });

  it("a set on the way up counts for none of the plan's, and its load is on the bar", () => {
    const set = { athleteId: "ann", slotId: SLOT, stationId: RACK, setKey: rampKey(1) };
    const one = fold(
      { kind: "set-load", ...set, loadKg: 40 },
      { kind: "set-done", ...set, loadKg: 40, endedBy: "cap", cut: false },
    );
    expect(lift(one)?.lifters[0]).toMatchObject({ doneCount: 0, current: 0 });
    expect(lift(one)?.lifters[0]?.ramp).toMatchObject([{ stage: "done", loadKg: 40 }]);
    expect(lift(one)?.lifters[0]?.rampNext.prescription.key).toBe(rampKey(2));
    expect(lift(one)?.onBar?.side.map((plate) => plate.amount)).toEqual([10]);
    // The others have had no warm-up set yet.
    expect(lift(one)?.upId).toBe("bo");
    expect(one.state().setAside).toEqual([]);
  });

  it("a load that is put on stands in place of the plan's, and is taken back", () => {
    const put = device.entry({
      kind: "set-load",
      athleteId: "ann",
      slotId: SLOT,
      stationId: RACK,
      setKey: "w1.a.1",
      loadKg: 55,
    });
    const one = new FloorFold(day).add([{ ...put, seq: 1 }]);
    expect(lift(one)?.lifters[0]?.sets[0]).toMatchObject({ loadKg: 55, byHand: true });
    one.add([{ ...device.entry({ kind: "void" }, [put.id]), seq: 2 }]);
    expect(lift(one)?.lifters[0]?.sets[0]).toMatchObject({ loadKg: 60, byHand: false });
  });
});

describe("the coach's word", () => {
  it("stands at every station until it is taken back; a pause until it is over", () => {
    const note = device.entry({ kind: "note", reason: "Water, two minutes." });
    const pause = device.entry({ kind: "pause", on: true });
    const one = new FloorFold(day).add([
      { ...note, seq: 1 },
      { ...pause, seq: 2 },
    ]);
    expect(one.state()).toMatchObject({ paused: true, notes: [{ text: "Water, two minutes." }] });
    one.add([
      { ...device.entry({ kind: "void" }, [note.id]), seq: 3 },
      { ...device.entry({ kind: "pause", on: false }), seq: 4 },
    ]);
    expect(one.state()).toMatchObject({ paused: false, notes: [] });
  });
});

describe("who is meant", () => {
  const people = (...names: string[]) => names.map((name, i) => ({ athleteId: String(i), name }));
  it.each([
    [
      ["Ada Berg", "Bo Lund"],
      ["Ada", "Bo"],
    ],
    [
      ["Ada Berg", "Ada Lund", "Bo Lund"],
      ["Ada B.", "Ada L.", "Bo"],
    ],
    [
      ["Ada Berg", "Ada Blom"],
      ["Ada Berg", "Ada Blom"],
    ],
    [
      ["Ada", "Ada Blom"],
      ["Ada", "Ada B."],
    ],
  ])("%j", (names, called) => {
    expect([...callNames(people(...names)).values()]).toEqual(called);
  });
});
