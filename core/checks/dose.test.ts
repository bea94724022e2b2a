import { describe, expect, it } from "vitest";
import { AIMS, expandRecipe } from "../recipe/recipe";
import { doseFor, recipeOfDose } from "./dose";
import { school as house } from "./fixtures/school";
import { zoneOf } from "./intensity";
import type { School } from "./school";

const school: School = {
  ...house,
  rest: { leastS: 30, mostS: 60 },
  speedReps: 3,
  powerReps: 2,
  powerRestS: 150,
  loss: { speed: 12 },
  ending: "loss",
};

describe("a dose by aim", () => {
  it("has the lift's usual percentage for speed, the school's reps, rest and loss", () => {
    const bench = doseFor({ aim: "speed", lift: "bench", school });
    expect(bench).toMatchObject({ atPercent: 45, reps: 3, sets: 8, stop: { lossPercent: 12 } });
    expect(bench.rest).toEqual({ leastS: 30, mostS: 60 });
    expect(doseFor({ aim: "speed", lift: "box-squat", school }).atPercent).toBe(55);
    const power = doseFor({ aim: "power", lift: "squat", school });
    expect(power.reps).toBe(2);
    expect(power.rest.leastS).toBe(150);
    const fixed = doseFor({ aim: "speed", lift: "squat", school: { ...school, ending: "fixed" } });
    expect(fixed.stop.lossPercent).toBeUndefined();
  });

  it("comes to the totals of its zone, whatever the aim, and makes a recipe that says so", () => {
    for (const aim of AIMS)
      for (const lift of ["squat", "bench", "deadlift", undefined]) {
        const dose = doseFor({ aim, lift, school });
        const recipe = recipeOfDose(dose, "New", school.name);
        const [week] = expandRecipe(recipe);
        const zone = week && zoneOf(recipe, week);
        expect(zone, `${aim}, ${lift}`).toBeDefined();
        expect(zone?.reps).toBeGreaterThanOrEqual(zone?.least ?? 0);
        expect(zone?.reps).toBeLessThanOrEqual(zone?.most ?? 0);
        expect(recipe.weeks).toHaveLength(3);
        expect(dose.because).toHaveLength(4);
      }
  });
});
