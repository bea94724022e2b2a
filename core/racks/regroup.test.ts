import { describe, expect, it } from "vitest";
import { testGear } from "../barload/fixtures/gear";
import { RACK, SLOT, TestDevice, testSession } from "../floor/fixtures/session";
import { type FloorState, reduceFloor } from "../floor/state";
import { bestGroups } from "./find-groups";
import { MOVE_SECONDS } from "./moves";
import { brokenBy } from "./problem";
import { regroupedBy, regroupingOf } from "./regroup";

/** Two racks, four lifters at the first; ann has done a set, bo is in the middle of one. */
const OTHER = "other";
const session = (() => {
  const one = testSession(["ann", "bo", "cy", "di"], 3);
  return {
    ...one,
    stations: [
      ...one.stations,
      { kind: "rack" as const, id: OTHER, name: "2", gear: testGear([20, 10, 5, 2.5, 1.25]) },
    ],
  };
})();
const device = new TestDevice();
type Body = Parameters<TestDevice["entry"]>[0];
const at = (athleteId: string, n: number) => ({
  athleteId,
  slotId: SLOT,
  stationId: RACK,
  setKey: `w1.a.${n}`,
});
const rep = (athleteId: string): Body => ({
  kind: "rep",
  ...at(athleteId, 1),
  rep: 1,
  outcome: "counted",
  source: "eye",
});
const done = (athleteId: string, n: number): Body => ({
  kind: "set-done",
  ...at(athleteId, n),
  loadKg: 60,
  endedBy: "hand",
  cut: false,
});
const entries = [rep("ann"), done("ann", 1), rep("bo")].map((body, i) => ({
  ...device.entry(body),
  seq: i + 1,
}));
const floor = reduceFloor(session, entries);
const asked = (over: { out?: string[]; floor?: FloorState } = {}) =>
  regroupingOf({
    session,
    floor: over.floor ?? floor,
    slotId: SLOT,
    weights: MOVE_SECONDS,
    out: over.out ?? [],
  });

describe("groups made anew in the middle", () => {
  it("hold what is left alone, from how the rack stands, and leave who lifts where they are", () => {
    const found = asked();
    if (!found) throw new Error("Something is left.");
    const { problem, groups } = found;
    expect(groups).toEqual([{ rackId: RACK, order: ["ann", "bo", "cy", "di"] }]);
    const left = problem.lifters.map((one) => Object.values(one.settings)[0]?.length);
    expect(left).toEqual([2, 3, 3, 3]);
    expect(problem.racks.map((one) => one.now !== undefined)).toEqual([true, false]);
    expect(problem.lifters.find((one) => one.id === "bo")?.fixedTo).toBe(RACK);
    const answer = bestGroups({ ...problem, use: 2, least: 2, most: 2 }, { tries: 2000 });
    expect(answer.broken).toEqual([]);
    expect(answer.groups.find((one) => one.rackId === RACK)?.order).toContain("bo");
  });

  it("never move what is done: the same sets stand done after any of it", () => {
    const found = asked();
    if (!found) throw new Error("Something is left.");
    const after = [
      { rackId: RACK, order: ["di", "bo"] },
      { rackId: OTHER, order: ["cy", "ann"] },
    ];
    const bodies = regroupedBy(SLOT, found.groups, after);
    expect(bodies).toHaveLength(4);
    const then = reduceFloor(session, [
      ...entries,
      ...bodies.map((body, i) => ({ ...device.entry(body), seq: entries.length + i + 1 })),
    ]);
    const doneOf = (state: FloorState) =>
      state.racks
        .flatMap((one) => one.lifters)
        .map((one) => [one.lifter.athleteId, one.sets.map((set) => set.stage)] as const)
        .sort();
    expect(doneOf(then)).toEqual(doneOf(floor));
    expect(
      then.racks.map((one) => [one.rack.id, one.lifters.map((who) => who.lifter.athleteId)]),
    ).toEqual([
      [RACK, ["di", "bo"]],
      [OTHER, ["cy", "ann"]],
    ]);
    // Said again nothing changes.
    const again = asked({ floor: then });
    expect(regroupedBy(SLOT, again?.groups ?? [], after)).toEqual([]);
  });

  it("leave a broken rack, also who was in the middle of a set at it", () => {
    const found = asked({ out: [RACK] });
    if (!found) throw new Error("There is another rack.");
    const answer = bestGroups({ ...found.problem, use: 1, least: 4, most: 4 });
    expect(brokenBy({ ...found.problem, use: 1, least: 4, most: 4 }, answer.groups)).toEqual([]);
    expect(answer.groups.map((one) => one.rackId)).toEqual([OTHER]);
    expect(asked({ out: [RACK, OTHER] })).toBeUndefined();
  });
});
