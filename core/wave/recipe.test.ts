import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { expandRecipe, FLAT_STEP, type Recipe, recipeWarnings } from "./recipe";

const LADDER: Recipe = {
  name: "Rising ladder",
  aim: "speed",
  school: "Percent waves",
  startPercent: 37.5,
  steps: [
    { id: "a", sets: 3, reps: 3, addPoints: 0 },
    { id: "b", sets: 3, reps: 3, addPoints: 5 },
    { id: "c", sets: 3, reps: 3, addPoints: 10 },
  ],
  weeks: [
    { id: "w1", addPoints: 0 },
    { id: "w2", addPoints: 5 },
    { id: "w3", addPoints: 10, flat: { sets: 9, reps: 3, percent: 52.5 } },
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
    const percents = weeks.map((week) => week.sets.map((set) => set.percent));
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
      startPercent: 40,
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
        addPoints: fc.integer({ min: -10, max: 20 }),
      }),
      { minLength: 1, maxLength: 5 },
    ),
    weeks: fc.array(fc.integer({ min: -10, max: 20 }), { minLength: 1, maxLength: 6 }),
    startPercent: fc.integer({ min: 30, max: 70 }),
  })
  .map(({ steps, weeks, startPercent }) => ({
    ...LADDER,
    startPercent,
    steps: steps.map((step, i) => ({ ...step, id: `s${i}` })),
    weeks: weeks.map((addPoints, i) => ({ id: `w${i}`, addPoints })),
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
          startPercent: recipe.startPercent + by,
        }).flatMap((week) => week.sets);
        after.forEach((set, i) => {
          expect(set.percent).toBeCloseTo((before[i]?.percent ?? 0) + by, 9);
          expect(set.key).toBe(before[i]?.key);
        });
      }),
    );
  });
});

describe("warnings", () => {
  const codes = (patch: Partial<Recipe>) =>
    recipeWarnings({ ...LADDER, ...patch }).map((warning) => warning.code);

  it("has none for the ladder: 27 reps under 70 %", () => {
    expect(recipeWarnings(LADDER)).toEqual([]);
  });

  it("names reps that are too many for speed", () => {
    expect(codes({ steps: [{ id: "a", sets: 3, reps: 8, addPoints: 0 }] })).toContain(
      "reps-for-speed",
    );
  });

  it("names totals over Prilepin's for the zone", () => {
    const heavy = { startPercent: 82, weeks: [{ id: "w1", addPoints: 0 }] };
    expect(codes({ ...heavy, steps: [{ id: "a", sets: 8, reps: 3, addPoints: 0 }] })).toContain(
      "reps-over-total",
    );
    expect(codes({ ...heavy, steps: [{ id: "a", sets: 5, reps: 3, addPoints: 0 }] })).toEqual([]);
  });

  it("names a percentage over the max and a loss too large for speed", () => {
    expect(
      codes({ startPercent: 95, steps: [{ id: "a", sets: 1, reps: 1, addPoints: 10 }] }),
    ).toContain("over-max");
    expect(codes({ stop: { lossPercent: 30, lossFrom: "best" } })).toContain("loss-for-speed");
    expect(codes({ aim: "growth", stop: { lossPercent: 30, lossFrom: "best" } })).not.toContain(
      "loss-for-speed",
    );
  });

  it("says which school each comes from", () => {
    const all = recipeWarnings({
      ...LADDER,
      steps: [{ id: "a", sets: 9, reps: 8, addPoints: 0 }],
    });
    expect(all.length).toBeGreaterThan(0);
    for (const warning of all) expect(warning.school).not.toBe("");
  });
});
