import { describe, expect, it } from "vitest";
import { testGear } from "../barload/fixtures/gear";
import { loadVelocityLine } from "../profile/line";
import type { BasisFacts } from "../recipe/basis";
import type { Recipe, WaveSet } from "../recipe/recipe";
import { readIn } from "../units/written";
import type { School } from "./school";
import { underSchool } from "./under-school";

const line = loadVelocityLine(
  [
    { loadKg: 40, velocityMps: 1.21 },
    { loadKg: 60, velocityMps: 0.99 },
    { loadKg: 80, velocityMps: 0.78 },
    { loadKg: 100, velocityMps: 0.55 },
    { loadKg: 110, velocityMps: 0.46 },
  ],
  "MCV",
);
const facts: BasisFacts = {
  maxKg: 120,
  line: line.ok ? line : undefined,
  peakForceMps: undefined,
  peakPowerKg: 76,
  foundKg: undefined,
  bodyKg: undefined,
};
const school = (over: Partial<School>): School =>
  ({
    name: "S",
    loadBy: "percent",
    rest: { leastS: 60, mostS: 120 },
    speedReps: 2,
    powerReps: 3,
    powerRestS: 180,
    convention: "bar",
    loss: { speed: 10 },
    ending: "fixed",
    ...over,
  }) as School;
const recipe = (over: Partial<Recipe> = {}): Recipe => ({
  name: "Wave",
  aim: "speed",
  school: "S",
  basis: "percent",
  start: 60,
  steps: [{ id: "s", sets: 8, reps: 3, add: 0 }],
  weeks: [{ id: "w", add: 0 }],
  convention: "bar",
  rest: { leastS: 45, mostS: 75 },
  cycle: [],
  lead: "percent",
  stop: { lossFrom: "best" },
  ...over,
});
const set: WaveSet = {
  key: "w.s.1",
  weekId: "w",
  stepId: "s",
  number: 1,
  reps: 3,
  basis: { by: "percent", percent: 60 },
  factor: 1,
  kind: "work",
  cycleItem: undefined,
};
const under = (one: Partial<School>, over: Partial<Parameters<typeof underSchool>[0]> = {}) =>
  underSchool({
    school: school(one),
    recipe: recipe(),
    set,
    facts,
    thresholdMps: 0.3,
    gear: testGear([25, 20, 15, 10, 5, 2.5, 1.25]),
    mode: "nearest",
    unit: "kg",
    ...over,
  });

describe("a set under a school", () => {
  it("keeps the percentage where the school goes by percent: 60 % of 120 is 72, on this bar 72.5", () => {
    expect(under({}).loading?.totalKg).toBe(72.5);
  });
  it("goes by speed to the same share of the line's own max: 60 % of 124.1 is 74.5, so 75", () => {
    const found = under({ loadBy: "speed" });
    expect(found.basis).toMatchObject({ by: "speed" });
    // a 1.640305, b −0.01079878 (R lm): v at 0.6 × 124.116 kg
    if (found.basis?.by === "speed") expect(found.basis.mps).toBeCloseTo(0.8361, 3);
    expect(found.loading?.totalKg).toBe(75);
    expect(found.working?.lines.some((one) => /own line/.test(readIn(one.label, "kg")))).toBe(true);
  });
  it("goes by the load of peak power without a percentage", () => {
    expect(under({ loadBy: "peak-power" }).loading?.totalKg).toBe(75);
  });
  it("goes by whole reps in reserve: 60 % is 20 reps, 17 in reserve after 3; too many for a formula", () => {
    const found = under({ loadBy: "reserve", speedReps: 3 });
    expect(found.basis).toEqual({ by: "reserve", reserve: 17 });
    expect(found.reason).toMatch(/no formula holds/);
    const heavy = under(
      { loadBy: "reserve", speedReps: 3 },
      { set: { ...set, basis: { by: "percent", percent: 80 } } },
    );
    // 30 × (100/80 − 1) = 7.5, rounded 8, less 3 reps: 5; 120 ÷ (1 + 8/30) = 94.7
    expect(heavy.basis).toEqual({ by: "reserve", reserve: 5 });
    expect(heavy.loading?.totalKg).toBe(95);
  });
  it("names what is missing, and gives no load by eye", () => {
    expect(under({ loadBy: "peak-force" }).reason).toMatch(/peak force/);
    expect(under({ loadBy: "eye" }).loading).toBeUndefined();
    expect(under({ loadBy: "speed" }, { facts: { ...facts, line: undefined } }).reason).toMatch(
      /profile/,
    );
    expect(under({ loadBy: "speed" }, { thresholdMps: undefined }).reason).toMatch(/single/);
  });
  it("takes the school's ceiling of reps, its rest and its end for the aim", () => {
    expect(under({})).toMatchObject({ reps: 2, rest: { leastS: 60, mostS: 120 } });
    expect(under({ ending: "loss" }).ends).toBe("at 10 % loss");
    const power = under({}, { recipe: recipe({ aim: "power" }) });
    expect(power).toMatchObject({ reps: 3, rest: { leastS: 180, mostS: 180 } });
    const strength = under({}, { recipe: recipe({ aim: "strength" }) });
    expect(strength).toMatchObject({ reps: 3, rest: { leastS: 45, mostS: 75 } });
  });
  it("takes bands out of a lockout percentage, and asks for heights where the mean counts", () => {
    const banded = recipe({ resistancePercent: 25 });
    // 60 % of 120 = 72 at lockout, less a quarter: 54 on the bar, 55 the nearest
    expect(under({ convention: "lockout" }, { recipe: banded }).loading?.totalKg).toBe(55);
    expect(under({ convention: "mean" }, { recipe: banded }).reason).toMatch(/mean over the range/);
    expect(under({ convention: "bar" }, { recipe: banded }).loading?.totalKg).toBe(72.5);
  });
});
