import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { expandRecipe, FLAT_STEP, percentOf, type Recipe, recipeWeeks, timedSets } from "./recipe";

const LADDER: Recipe = {
  name: "Rising ladder",
  aim: "speed",
  school: "Percent waves",
  basis: "percent",
  start: 37.5,
  steps: [
    { id: "a", sets: 3, reps: 3, add: 0 },
    { id: "b", sets: 3, reps: 3, add: 5 },
    { id: "c", sets: 3, reps: 3, add: 10 },
  ],
  weeks: [
    { id: "w1", add: 0 },
    { id: "w2", add: 5 },
    { id: "w3", add: 10, flat: { sets: 9, reps: 3, at: 52.5 } },
  ],
  convention: "bar",
  rest: { leastS: 45, mostS: 60 },
  cycle: ["close", "middle", "ring"],
  lead: "percent",
  stop: { lossPercent: 15, lossFrom: "best" },
};

describe("a ladder that shifts up weekly and ends flat", () => {
  const weeks = expandRecipe(LADDER);

  it("has the percentages of every set", () => {
    const percents = weeks.map((week) => week.sets.map(percentOf));
    expect(percents).toEqual([
      [37.5, 37.5, 37.5, 42.5, 42.5, 42.5, 47.5, 47.5, 47.5],
      [42.5, 42.5, 42.5, 47.5, 47.5, 47.5, 52.5, 52.5, 52.5],
      Array.from({ length: 9 }, () => 52.5),
    ]);
  });

  it("takes the grips in turn, set by set", () => {
    expect(weeks[0]?.sets.map((set) => set.cycleItem)).toEqual([
      ...["close", "middle", "ring"],
      ...["close", "middle", "ring"],
      ...["close", "middle", "ring"],
    ]);
  });

  it("gives each set a key that stays", () => {
    expect(weeks[1]?.sets[4]?.key).toBe("w2.b.2");
    expect(weeks[2]?.sets[0]?.key).toBe(`w3.${FLAT_STEP}.1`);
    const moved = expandRecipe({
      ...LADDER,
      start: 40,
      steps: [LADDER.steps[1], LADDER.steps[0], LADDER.steps[2]].filter(
        (step) => step !== undefined,
      ),
    });
    expect(moved[1]?.sets.map((set) => set.key).sort()).toEqual(
      weeks[1]?.sets.map((set) => set.key).sort(),
    );
  });

  it("names no grip where none is cycled", () => {
    const plain = expandRecipe({ ...LADDER, cycle: [] });
    expect(plain[0]?.sets.every((set) => set.cycleItem === undefined)).toBe(true);
  });
});

const recipeArbitrary: fc.Arbitrary<Recipe> = fc
  .record({
    steps: fc.array(
      fc.record({
        sets: fc.integer({ min: 1, max: 6 }),
        reps: fc.integer({ min: 1, max: 6 }),
        add: fc.integer({ min: -10, max: 20 }),
      }),
      { minLength: 1, maxLength: 5 },
    ),
    weeks: fc.array(fc.integer({ min: -10, max: 20 }), { minLength: 1, maxLength: 6 }),
    start: fc.integer({ min: 30, max: 70 }),
  })
  .map(({ steps, weeks, start }) => ({
    ...LADDER,
    start,
    steps: steps.map((step, i) => ({ ...step, id: `s${i}` })),
    weeks: weeks.map((add, i) => ({ id: `w${i}`, add })),
  }));

describe("laws of expansion", () => {
  it("makes every planned set once, numbered in order, with a key of its own", () => {
    fc.assert(
      fc.property(recipeArbitrary, (recipe) => {
        const weeks = expandRecipe(recipe);
        expect(weeks).toHaveLength(recipe.weeks.length);
        const keys = weeks.flatMap((week) => week.sets.map((set) => set.key));
        expect(new Set(keys).size).toBe(keys.length);
        const planned = recipe.steps.reduce((sum, step) => sum + step.sets, 0);
        for (const week of weeks) {
          expect(week.sets.map((set) => set.number)).toEqual(
            Array.from({ length: planned }, (_, i) => i + 1),
          );
        }
      }),
    );
  });

  it("raises every cell by what the start is raised by", () => {
    fc.assert(
      fc.property(recipeArbitrary, fc.integer({ min: 1, max: 10 }), (recipe, by) => {
        const before = expandRecipe(recipe).flatMap((week) => week.sets);
        const after = expandRecipe({
          ...recipe,
          start: recipe.start + by,
        }).flatMap((week) => week.sets);
        after.forEach((set, i) => {
          const old = before[i];
          expect(percentOf(set)).toBeCloseTo(((old && percentOf(old)) ?? 0) + by, 9);
          expect(set.key).toBe(before[i]?.key);
        });
      }),
    );
  });
});

describe("shapes of other kinds", () => {
  const flat = (patch: Partial<Recipe>): Recipe => ({
    ...LADDER,
    start: 60,
    steps: [{ id: "a", sets: 4, reps: 3, add: 0 }],
    weeks: [
      { id: "w1", add: 0 },
      { id: "w2", add: 5 },
    ],
    cycle: [],
    ...patch,
  });

  it("sixteen starts in twelve minutes at 45 s, each on the clock", () => {
    expect(timedSets({ everyS: 45, minutes: 12 })).toBe(16);
    const [week] = expandRecipe(flat({ timed: { everyS: 45, minutes: 12 } }));
    expect(week?.sets).toHaveLength(16);
    expect(week?.sets.map((set) => set.startS)).toEqual(
      Array.from({ length: 16 }, (_, i) => 45 * i),
    );
  });

  it("weeks run twice, then a tail, each with keys of its own", () => {
    const recipe = flat({
      repeats: 2,
      tail: [
        { id: "d", add: 0, kind: "deload" },
        { id: "t", add: 0, kind: "test" },
      ],
    });
    expect(recipeWeeks(recipe).map((week) => week.id)).toEqual([
      "w1",
      "w2",
      "w1~2",
      "w2~2",
      "d",
      "t",
    ]);
    const weeks = expandRecipe(recipe);
    const keys = weeks.flatMap((week) => week.sets.map((set) => set.key));
    expect(new Set(keys).size).toBe(keys.length);
    expect(weeks[5]?.sets).toEqual([]);
  });

  it("a deload without the coach's factors has no factor and keeps its sets; with them it has both", () => {
    const recipe = flat({ tail: [{ id: "d", add: 0, kind: "deload" }] });
    const unset = expandRecipe(recipe)[2];
    expect(unset?.sets).toHaveLength(4);
    expect(unset?.sets[0]?.factor).toBeUndefined();
    const set = expandRecipe(recipe, { deloadSets: 0.5, deloadLoad: 0.8 })[2];
    expect(set?.sets).toHaveLength(2);
    expect(set?.sets[0]?.factor).toBe(0.8);
    expect(set?.sets[0] && percentOf(set.sets[0])).toBe(48);
  });

  it("sets up and reps down, never under one of either", () => {
    const recipe = flat({
      weeks: [
        { id: "w1", add: 0 },
        { id: "w2", add: 0, moreSets: 2, moreReps: -1 },
        { id: "w3", add: 0, moreSets: -9, moreReps: -9 },
      ],
    });
    expect(expandRecipe(recipe).map((week) => [week.sets.length, week.sets[0]?.reps])).toEqual([
      [4, 3],
      [6, 2],
      [1, 1],
    ]);
  });

  it("a speed walks down over weeks and over the sessions of a week", () => {
    const recipe = flat({
      basis: "speed",
      start: 0.9,
      sessionAdd: -0.02,
      weeks: [
        { id: "w1", add: 0 },
        { id: "w2", add: -0.05 },
      ],
    });
    const at = (session: number) =>
      expandRecipe(recipe, {}, session).map((week) => {
        const basis = week.sets[0]?.basis;
        return basis?.by === "speed" ? basis.mps : undefined;
      });
    expect(at(1)).toEqual([0.9, 0.85]);
    expect(at(2).map((mps) => mps?.toFixed(2))).toEqual(["0.88", "0.83"]);
  });

  it("a heavy slot is one top set, whatever its steps say", () => {
    const [week] = expandRecipe(flat({ top: { reps: 2, tries: 3 }, start: 90 }));
    expect(week?.sets).toMatchObject([{ kind: "top", reps: 2, basis: { percent: 90 } }]);
  });
});
