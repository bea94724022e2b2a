import { describe, expect, it } from "vitest";
import { RUNGS } from "../boxsquat/ladder";
import { TestDevice, testSession } from "./fixtures/session";
import { freezeLadder, RUNG_KEY } from "./freeze-ladder";
import type { FrozenSession } from "./frozen";
import { gateOnFloor, rungsPassed } from "./ladder";
import { FloorFold } from "./state";
import { slotCounts, stationsOf } from "./stations";

const WALL = { kind: "place" as const, id: "floor", name: "Open floor" };
const mark = (rungId: string) => ({
  rungId,
  outcome: "passed" as const,
  date: "2026-03-01" as const,
  by: "C",
  note: "",
});
const LAST = RUNGS.at(-1)?.id ?? "";
const BEFORE_LAST = RUNGS.at(-2)?.id ?? "";
const person = (id: string, passed?: string) => ({
  id,
  name: `${id} Example`,
  unit: "kg" as const,
  instructions: [],
  marks: passed ? [mark(passed)] : [],
});
const squad = [
  person("ann"),
  person("bo", "chair"),
  person("cy", BEFORE_LAST),
  person("dot", LAST),
  person("eve", BEFORE_LAST),
];
const ladder = (here: string[]) =>
  freezeLadder({
    slotId: "ladder",
    squad,
    here: new Set(here),
    reps: 5,
    gate: { startedOn: "2026-02-01", decidedEarly: false, sharePercent: 60, weeks: 2 },
    places: [WALL],
  });
const sessionOf = (here: string[]): FrozenSession => {
  const part = ladder(here);
  if (!part) throw new Error("Somebody is on a rung.");
  return { ...testSession([]), stations: [WALL], slots: [part.slot] };
};
const device = new TestDevice();
const at = (athleteId: string) => ({
  athleteId,
  slotId: "ladder",
  stationId: WALL.id,
  setKey: RUNG_KEY,
});

describe("the teaching ladder on the floor", () => {
  it("has everybody here on the rung to be passed, and who has passed all only at the gate", () => {
    const [slot] = sessionOf(["ann", "bo", "dot"]).slots;
    if (slot?.kind !== "exercise") throw new Error("A ladder is taught without a bar.");
    const rungs = slot.groups.flatMap((group) =>
      group.athletes.map((one) => [one.athleteId, one.rung?.id]),
    );
    expect(rungs).toEqual([
      ["ann", "chair"],
      ["bo", "goblet"],
    ]);
    expect(slot.groups[0]?.athletes[0]?.rung?.pass).toMatch(/5 clean reps in a row\.$/);
    expect(slot.ladder?.squad).toHaveLength(5);
    expect(ladder(["dot"])).toBeUndefined();
  });

  it("is passed or left by one tap a person, and the gate counts it as it happens", () => {
    const session = sessionOf(["ann", "bo", "cy"]);
    const fold = new FloorFold(session);
    const gateNow = () => {
      const [exercise] = fold.state().exercises;
      return exercise && gateOnFloor(exercise.slot, exercise.athletes, "2026-03-10");
    };
    expect(gateNow()).toMatchObject({ ready: 1, needed: 3, open: false });
    const passed = { ...device.entry({ kind: "work", ...at("cy"), reps: 5 }), seq: 1 };
    fold.add([passed, { ...device.entry({ kind: "skip", ...at("bo") }), seq: 2 }]);
    expect(gateNow()).toMatchObject({ ready: 2, open: false });
    expect(rungsPassed(fold.state().exercises[0]?.athletes ?? [])).toEqual([
      { entryId: passed.id, athleteId: "cy", rungId: LAST },
    ]);
    const counts = slotCounts(session, stationsOf(session, fold.state()));
    expect(counts).toMatchObject([{ name: "Teaching ladder", through: 2, athletes: 3 }]);
    // Taken back, it is as it was.
    fold.add([{ ...device.entry({ kind: "void" }, [passed.id]), seq: 3 }]);
    expect(gateNow()).toMatchObject({ ready: 1 });
    expect(rungsPassed(fold.state().exercises[0]?.athletes ?? [])).toEqual([]);
  });
});

it("not yet, and passed after all: the last word stands", () => {
  const fold = new FloorFold(sessionOf(["bo"]));
  fold.add([{ ...device.entry({ kind: "skip", ...at("bo") }), seq: 1 }]);
  const lines = () => fold.state().exercises[0]?.athletes ?? [];
  expect(lines()[0]).toMatchObject({ current: undefined, doneCount: 0 });
  expect(rungsPassed(lines())).toEqual([]);
  fold.add([{ ...device.entry({ kind: "work", ...at("bo"), reps: 5 }), seq: 2 }]);
  expect(rungsPassed(lines())).toMatchObject([{ athleteId: "bo", rungId: "goblet" }]);
});
