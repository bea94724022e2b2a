import fc from "fast-check";
import { describe, expect, it, test } from "vitest";
import { testGear } from "../barload/fixtures/gear";
import { lifterAt, testedLine, testedMax } from "../prescribe/fixtures/base";
import { groupByLoad } from "../prescribe/groups";
import type { Lifter } from "../prescribe/lifter";
import { groupSizesForRest, isShortRest, restFromTurns } from "../prescribe/turns";
import { expandRecipe, type Recipe } from "../recipe/recipe";
import { freezeSession, prescribeWeek, type SessionPlan } from "./freeze";
import { CORE_VERSION, liftsOf } from "./frozen";

const gear = testGear([20, 15, 10, 5, 2.5, 1.25], 200);

const recipe: Recipe = {
  name: "Ladder",
  aim: "speed",
  school: "Percent waves",
  basis: "percent",
  start: 40,
  steps: [
    { id: "a", sets: 2, reps: 3, add: 0 },
    { id: "b", sets: 1, reps: 2, add: 7.5 },
  ],
  weeks: [{ id: "w1", add: 0 }],
  convention: "bar",
  rest: { leastS: 45, mostS: 75 },
  cycle: ["close", "wide"],
  lead: "percent",
  stop: { lossPercent: 10, lossFrom: "best" },
};

const plan: SessionPlan = {
  id: "plan",
  slotId: "slot",
  weeks: 1,
  name: "Ladder",
  squadName: "Kayak",
  version: 4,
  recipe,
  variant: { id: "v", name: "Bench", lift: "bench", start: "top", caution: "Spotter." },
  metric: "MCV",
  rounding: "nearest",
};

const athlete = (id: string, kg: number | undefined, person: Partial<Lifter> = {}) =>
  lifterAt(
    id,
    "v",
    { workingMax: testedMax(kg, "2026-03-10"), profile: testedLine("2026-02-17") },
    { trainingYears: 5, ...person },
  );

const week = expandRecipe(recipe)[0];
if (!week) throw new Error("no week");

describe("prescription", () => {
  const sets = prescribeWeek({
    plan,
    week,
    athlete: athlete("1", 132.5),
    gear,
    overrides: new Map(),
  });

  it("goes from percentage to plates and true percentage", () => {
    expect(sets.map((set) => set.loadKg)).toEqual([52.5, 52.5, 62.5]);
    expect(sets[2]?.side.map((plate) => plate.amount)).toEqual([20, 1.25]);
    expect(sets[2]?.truePercent).toBeCloseTo(47.1698, 4);
    expect(sets[0]?.percentOf).toBe("working max, Bench");
  });

  it("wants the speed of the athlete's own line at that load", () => {
    expect(sets[0]?.target?.lowMps).toBeCloseTo(1.4 - 0.01 * 52.5 - 0.05, 9);
    expect(sets[0]?.target?.source).toBe("profile");
  });

  it("opens to its working from record to plates", () => {
    const labels = sets[0]?.working.lines.map((line) => line.label) ?? [];
    for (const label of ["Factor", "Working max", "Asked", "Nearest here", "Bar and a side"]) {
      expect(labels).toContain(label);
    }
  });

  it("refuses a percentage without a base, in words", () => {
    const [first] = prescribeWeek({
      plan,
      week,
      athlete: athlete("2", undefined),
      gear,
      overrides: new Map(),
    });
    expect(first?.loadKg).toBeUndefined();
    expect(first?.loadReason).toMatch(/^No working max for Bench/);
  });

  it("says what is possible where the bar cannot be built", () => {
    const light = prescribeWeek({
      plan,
      week,
      athlete: athlete("3", 40),
      gear,
      overrides: new Map(),
    });
    expect(light[0]?.loadReason).toContain("the lightest possible is 20 kg");
    const heavy = prescribeWeek({
      plan,
      week,
      athlete: athlete("3", 900),
      gear,
      overrides: new Map(),
    });
    expect(heavy[0]?.loadReason).toContain("holds 200 kg at most");
  });

  it("keeps a coach's own load marked", () => {
    const own = prescribeWeek({
      plan,
      week,
      athlete: athlete("1", 132.5),
      gear,
      overrides: new Map([["1/w1.a.1", 60]]),
    });
    expect(own[0]).toMatchObject({ loadKg: 60, overridden: true });
    expect(own[1]).toMatchObject({ loadKg: 52.5, overridden: false });
  });

  test.each([
    [0.6, true],
    [1, false],
    [undefined, false],
  ])("training for %s years: information only %s", (trainingYears, informationOnly) => {
    const [first] = prescribeWeek({
      plan,
      week,
      athlete: athlete("1", 100, { trainingYears }),
      gear,
      overrides: new Map(),
    });
    expect(first?.informationOnly).toBe(informationOnly);
  });
});

describe("rest from turn-taking", () => {
  test.each([
    [4, 8, 10, 64],
    [3, 8, 10, 46],
    [1, 8, 10, 10],
  ])("%s lifters, %s s a set, %s s a change: %s s", (lifters, setS, changeS, rest) => {
    expect(restFromTurns({ lifters, setS, changeS })).toBe(rest);
  });

  it("calls a start under 80 % of the rest short", () => {
    expect(isShortRest(35.9, 45)).toBe(true);
    expect(isShortRest(36, 45)).toBe(false);
  });

  it("finds the group sizes for a rest", () => {
    const sizes = (leastRestS: number, mostRestS: number) =>
      groupSizesForRest({ leastRestS, mostRestS, setS: 8, changeS: 10, largest: 8 });
    expect(sizes(45, 75)).toEqual([3, 4]);
    expect(sizes(11, 20)).toEqual([]);
  });
});

describe("groups", () => {
  const group = (loads: Array<number | undefined>, racks: number) =>
    groupByLoad({
      lifters: loads.map((loadKg, i) => ({ id: i, loadKg })),
      racks,
      rest: { leastS: 45, mostS: 75 },
      setS: 8,
      changeS: 10,
    });

  it("puts like loads together, as many a rack as the rest wants", () => {
    const groups = group([90, 40, 80, 50, 45, 85, 95, 42], 4);
    expect(groups.map((one) => one.lifters.map((lifter) => lifter.loadKg))).toEqual([
      [40, 42, 45, 50],
      [80, 85, 90, 95],
    ]);
    expect(groups[0]?.restS).toBe(64);
  });

  it("loses nobody and repeats nobody", () => {
    fc.assert(
      fc.property(
        fc.array(fc.option(fc.integer({ min: 20, max: 200 }), { nil: undefined }), {
          maxLength: 40,
        }),
        fc.integer({ min: 0, max: 8 }),
        (loads, racks) => {
          const groups = group(loads, racks);
          const ids = groups.flatMap((one) => one.lifters.map((lifter) => lifter.id));
          expect(ids.length).toBe(racks === 0 ? 0 : loads.length);
          expect(new Set(ids).size).toBe(ids.length);
          expect(groups.length).toBeLessThanOrEqual(racks);
          const sizes = groups.map((one) => one.lifters.length);
          if (sizes.length > 0)
            expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
        },
      ),
    );
  });
});

describe("freezing", () => {
  const frozen = freezeSession({
    plan,
    week,
    athletes: [athlete("1", 100, { instructions: ["Not today"], unit: "lb" }), athlete("2", 60)],
    setups: new Map([["2", { setup: ["Box 40 cm"], box: { heightCm: 40, styleId: "x" } }]]),
    racks: [
      { rackId: "r1", number: 1, gear },
      { rackId: "r2", number: 2, gear },
    ],
    overrides: new Map(),
    date: "2026-03-10",
    zone: "Europe/Oslo",
    roomName: "Boathouse",
    coachValues: {},
  });

  const [lift] = liftsOf(frozen);
  it("carries plan, room and core versions", () => {
    expect(frozen).toMatchObject({
      coreVersion: CORE_VERSION,
      planVersion: 4,
      title: "Ladder, Kayak, week 1 of 1",
      date: "2026-03-10",
      roomName: "Boathouse",
    });
    expect(lift).toMatchObject({ velocityLed: false });
  });

  it("survives being written down", () => {
    const copy = JSON.parse(JSON.stringify(frozen));
    expect(copy.slots[0].groups[0].lifters[0].sets[0].loadKg).toBe(
      lift?.racks[0]?.lifters[0]?.sets[0]?.loadKg,
    );
    expect(copy.slots[0].groups[0].lifters).toHaveLength(2);
  });

  it("shows instructions and cautions, and knows no reason", () => {
    expect(lift?.racks[0]?.lifters[1]?.instructions).toEqual(["Not today"]);
    expect(frozen.cautions).toHaveLength(2);
    expect(JSON.stringify(frozen)).not.toContain('"reason"');
  });
});
