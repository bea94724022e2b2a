import fc from "fast-check";
import { describe, expect, it, test } from "vitest";
import { testGear } from "../barload/fixtures/gear";
import { afterRep } from "../liverules/rep";
import { NOTHING_OWN } from "../plan/block";
import { lifterAt, testedLine, testedMax } from "../prescribe/fixtures/base";
import { groupByLoad } from "../prescribe/groups";
import type { Lifter, LiftFacts } from "../prescribe/lifter";
import { groupSizesForRest, isShortRest, restFromTurns } from "../prescribe/turns";
import { expandRecipe, type Recipe } from "../recipe/recipe";
import { testBand } from "../resistance/fixtures/band";
import { NOTHING_TO_HANG } from "../resistance/rig";
import { freezeSession, prescribeWeek, type SessionPlan } from "./freeze";
import { CORE_VERSION, liftsOf, stopFor } from "./frozen";
import { reduceFloor } from "./state";

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

const prescribed = (input: Omit<Parameters<typeof prescribeWeek>[0], "hang">) =>
  prescribeWeek({ ...input, hang: NOTHING_TO_HANG }).sets;

const week = expandRecipe(recipe)[0];
if (!week) throw new Error("no week");

describe("prescription", () => {
  const sets = prescribed({
    plan,
    week,
    athlete: athlete("1", 132.5),
    gear,
    overrides: new Map(),
    own: NOTHING_OWN,
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
    const [first] = prescribed({
      plan,
      week,
      athlete: athlete("2", undefined),
      gear,
      overrides: new Map(),
      own: NOTHING_OWN,
    });
    expect(first?.loadKg).toBeUndefined();
    expect(first?.loadReason).toMatch(/^No working max for Bench/);
  });

  it("says what is possible where the bar cannot be built", () => {
    const light = prescribed({
      plan,
      week,
      athlete: athlete("3", 40),
      gear,
      overrides: new Map(),
      own: NOTHING_OWN,
    });
    expect(light[0]?.loadReason).toContain("the lightest possible is 20 kg");
    const heavy = prescribed({
      plan,
      week,
      athlete: athlete("3", 900),
      gear,
      overrides: new Map(),
      own: NOTHING_OWN,
    });
    expect(heavy[0]?.loadReason).toContain("holds 200 kg at most");
  });

  it("keeps a coach's own load marked", () => {
    const own = prescribed({
      plan,
      week,
      athlete: athlete("1", 132.5),
      gear,
      overrides: new Map([["1/w1.a.1", 60]]),
      own: NOTHING_OWN,
    });
    expect(own[0]).toMatchObject({ loadKg: 60, overridden: true });
    expect(own[1]).toMatchObject({ loadKg: 52.5, overridden: false });
  });

  test.each([
    [0.6, true],
    [1, false],
    [undefined, false],
  ])("training for %s years: information only %s", (trainingYears, informationOnly) => {
    const [first] = prescribed({
      plan,
      week,
      athlete: athlete("1", 100, { trainingYears }),
      gear,
      overrides: new Map(),
      own: NOTHING_OWN,
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
      { rackId: "r1", number: 1, gear, hang: NOTHING_TO_HANG },
      { rackId: "r2", number: 2, gear, hang: NOTHING_TO_HANG },
    ],
    overrides: new Map(),
    own: { rests: new Map([["2", 15]]), floors: new Map([["2", 0.66]]) },
    date: "2026-03-10",
    zone: "Europe/Oslo",
    roomName: "Boathouse",
    coachValues: {},
  });

  const [lift] = liftsOf(frozen);
  it("carries an athlete's own longer rest to the rack, in words and seconds", () => {
    const states = reduceFloor(frozen, []).racks.flatMap((rack) => rack.lifters);
    const rests = states.map((one) => [one.lifter.athleteId, one.addedRestS]);
    expect(rests.sort()).toEqual([
      ["1", 0],
      ["2", 15],
    ]);
    const two = states.find((one) => one.lifter.athleteId === "2");
    expect(two?.lifter.setup).toContain("15 s more rest than the slot gives");
  });

  it("ends the sets of who has a floor of their own by it, and says so", () => {
    const [one, two] = ["1", "2"].map((id) =>
      lift?.groups.flatMap((group) => group.lifters).find((each) => each.athleteId === id),
    );
    if (!lift || !one || !two) throw new Error("two lifters");
    expect(stopFor(lift, one)).toBe(lift.stop);
    expect(stopFor(lift, two)).toEqual({ ...lift.stop, floorMps: 0.66 });
    expect(two.setup).toContain("A floor of their own: 0.66 m/s");
    const set = two.sets[0];
    const rep = (mcvMps: number) =>
      afterRep([0.8, mcvMps], { cap: set?.reps ?? 0, ...stopFor(lift, two) }).hits.map(
        (hit) => hit.rule,
      );
    expect(rep(0.65)).toContain("floor");
    expect(rep(0.67)).not.toContain("floor");
  });

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

describe("what hangs on the bars of a session", () => {
  const plain: Recipe = { ...recipe, start: 60, cycle: [] };
  const banded: Recipe = { ...plain, resistancePercent: 20 };
  const bandedWeek = expandRecipe(banded)[0];
  if (!bandedWeek) throw new Error("no week");
  const band = testBand("Light band", 15);
  const heights = { bottomM: 0.9, lockoutM: 1.4, measured: true };
  const eight = Array.from({ length: 8 }, (_, i) =>
    lifterAt(`${i}`, "v", { workingMax: testedMax(100 + i, "2026-03-10"), heights }, {}),
  );
  const started = (over: { pairs: number; recipe?: Recipe; lifters?: Lifter[] }) =>
    freezeSession({
      plan: { ...plan, recipe: over.recipe ?? banded },
      week: expandRecipe(over.recipe ?? banded)[0] ?? bandedWeek,
      athletes: over.lifters ?? eight,
      setups: new Map(),
      racks: ["r1", "r2", "r3"].map((rackId, i) => ({
        rackId,
        number: i + 1,
        gear,
        hang: { pieces: [{ what: band, perSide: over.pairs }], anchorKg: 200 },
      })),
      overrides: new Map(),
      own: NOTHING_OWN,
      date: "2026-03-10",
      zone: "Europe/Oslo",
      roomName: "Boathouse",
      coachValues: {},
    });
  const lifters = (session: ReturnType<typeof started>) =>
    liftsOf(session)[0]?.racks.map((rack) => rack.lifters) ?? [];

  it("counts pieces over all racks at once: two pairs serve a squad of eight at two racks, no third", () => {
    const racks = lifters(started({ pairs: 2 }));
    const hangs = racks.map((own) => own.map((one) => one.sets[0]?.resistance !== undefined));
    // Light loads come first; each rack's lifters take turns with the same pair.
    const held = racks.map((own) =>
      Math.max(
        ...own.map((one) => Number(/^(\d)/.exec(one.sets[0]?.resistance?.words ?? "0")?.[1])),
      ),
    );
    expect(held.reduce((sum, n) => sum + n, 0)).toBeLessThanOrEqual(2);
    expect(hangs[0]?.every(Boolean)).toBe(true);
    const last = racks.at(-1)?.[0];
    if (held.at(-1) === 0) expect(last?.setup?.join()).toContain("Nothing hung.");
  });

  it("gives every rack its own where there are enough", () => {
    for (const own of lifters(started({ pairs: 9 })))
      for (const one of own) {
        expect(one.sets[0]?.resistance?.words).toContain("Light band a side, peg at 5 cm");
        expect(one.setup?.join()).toMatch(/\+[\d.]+ kg at lockout/);
      }
  });

  it("takes it off the bar as the convention says, and nothing where none is asked", () => {
    const [bar] = lifters(started({ pairs: 9 })).flat();
    const [lockout] = lifters(
      started({ pairs: 9, recipe: { ...banded, convention: "lockout" } }),
    ).flat();
    const [free] = lifters(started({ pairs: 9, recipe: plain })).flat();
    expect(free?.sets[0]?.resistance).toBeUndefined();
    expect(bar?.sets[0]?.loadKg).toBe(free?.sets[0]?.loadKg);
    expect(lockout?.sets[0]?.loadKg).toBeLessThan(free?.sets[0]?.loadKg ?? 0);
    const lockoutKg = lockout?.sets[0]?.resistance?.lockoutKg ?? 0;
    // Rounded to the room's plates: within a step of what was asked.
    expect(Math.abs(lockoutKg - (free?.sets[0]?.loadKg ?? 0))).toBeLessThanOrEqual(2.5);
  });

  it("without heights leaves the bar of a bar percentage, and no load where the lockout counts", () => {
    const blind = eight.map((one) => ({
      ...one,
      byVariant: { v: { ...(one.byVariant.v as LiftFacts), heights: undefined } },
    }));
    const [bar] = lifters(started({ pairs: 9, lifters: blind })).flat();
    expect(bar?.sets[0]?.loadKg).toBeGreaterThan(0);
    expect(bar?.setup?.join()).toContain("Nothing hung. Bands and chains are not worked out");
    const [lockout] = lifters(
      started({ pairs: 9, lifters: blind, recipe: { ...banded, convention: "lockout" } }),
    ).flat();
    expect(lockout?.sets[0]).toMatchObject({ loadKg: undefined });
    expect(lockout?.sets[0]?.loadReason).toContain("no bar heights");
  });

  it("says how a week is done: method, pause, tempo", () => {
    const paused: Recipe = {
      ...recipe,
      tempo: { downS: 3 },
      weeks: [{ id: "w1", add: 0, method: { name: "paused", pauseS: 2, factor: 1 } }],
    };
    const [first] = lifters(started({ pairs: 1, recipe: paused })).flat();
    expect(first?.setup).toEqual(["Paused, 2 s at the bottom", "Tempo: 3 s down"]);
  });
});
