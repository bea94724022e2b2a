import { describe, expect, it } from "vitest";
import { RecipeSchema } from "../../app/forms/recipe";
import { styleById } from "../../core/boxsquat/styles";
import { blockOfLift, dateOf, type Slot, slotWeek } from "../../core/plan/block";
import { expandRecipe, percentOf, type Recipe, recipeWeeks } from "../../core/recipe/recipe";
import { SHIPPED_RECIPES } from "./recipes";
import { SHIPPED_SCHOOLS } from "./schools";

const named = (name: string): Recipe => {
  const found = SHIPPED_RECIPES.find((one) => one.recipe.name === name);
  if (!found) throw new Error(`No shipped recipe ${name}.`);
  return found.recipe;
};
/** Each week as sets × reps @ what is asked, runs together. */
const shape = (recipe: Recipe, session = 1) =>
  expandRecipe(recipe, {}, session).map((week) => {
    const runs: string[] = [];
    let count = 0;
    week.sets.forEach((set, i) => {
      count++;
      const next = week.sets[i + 1];
      const at = (one: typeof set) => percentOf(one) ?? Object.values(one.basis)[1];
      if (next && at(next) === at(set) && next.reps === set.reps) return;
      runs.push(`${count}×${set.reps}@${at(set)}`);
      count = 0;
    });
    return runs.join(" ") || week.kind;
  });

describe("the shipped recipes", () => {
  it("are at least fourteen, each under its own name, each one that the form would take", () => {
    expect(SHIPPED_RECIPES.length).toBeGreaterThanOrEqual(14);
    expect(new Set(SHIPPED_RECIPES.map((one) => one.recipe.name)).size).toBe(
      SHIPPED_RECIPES.length,
    );
    for (const { recipe, source, family } of SHIPPED_RECIPES) {
      expect(RecipeSchema.safeParse(recipe).error?.issues ?? []).toEqual([]);
      expect([source, family, recipe.school].every((text) => text !== "")).toBe(true);
      expect(SHIPPED_SCHOOLS.some((school) => school.name === recipe.school)).toBe(true);
    }
  });

  it.each([
    ["Ladder, three grips, flat end", ["3×3@40 3×3@45 3×3@50", "3×3@45 3×3@50 3×3@55", "9×3@55"]],
    ["Squat doubles, up five a week", ["12×2@50", "10×2@55", "8×2@60"]],
    ["Bench triples, nine over three grips", ["9×3@45", "9×3@47.5", "9×3@50"]],
    ["Eight triples", ["8×3@50", "8×3@55", "8×3@60"]],
    ["Fives, fast", ["5×5@50", "5×5@55", "5×5@60"]],
    ["Pull doubles", ["8×2@45", "6×2@52.5", "5×2@60"]],
    ["Twelve minutes, a start every 45 s", ["16×2@55", "16×2@57.5", "16×2@60", "16×2@62.5"]],
    ["Pull singles on the clock", ["8×1@50", "8×1@55", "8×1@60"]],
    ["Up to a top single", ["1×1@92.5", "1×1@95", "1×1@97.5"]],
    ["Sets up, reps down", ["3×6@70", "4×5@72.5", "5×4@75", "6×3@77.5"]],
    ["A set more a week", ["3×6@67.5", "4×6@67.5", "5×6@67.5", "6×6@67.5"]],
    ["Repeated submaximal fours", ["6×4@3", "6×4@2.5", "6×4@2", "6×4@1.5"]],
    ["Walk down from the speed of peak force", ["5×3@0", "5×3@0.05", "5×3@0.1", "5×3@0.15"]],
    ["Sprints, 5 × 20 m", ["5×20@undefined", "5×20@undefined", "5×20@undefined", "5×20@undefined"]],
  ])("%s, to the number", (name, weeks) => {
    expect(shape(named(name as string))).toEqual(weeks);
  });

  it("nine triples take three grips in turn, three sets of each", () => {
    const [week] = expandRecipe(named("Bench triples, nine over three grips"));
    const grips = week?.sets.map((set) => set.cycleItem) ?? [];
    expect(grips.slice(0, 4)).toEqual(["close", "middle", "wide", "close"]);
    expect(grips.filter((grip) => grip === "wide")).toHaveLength(3);
  });

  it("the walk from peak force starts at it and is never faster; the second session is slower", () => {
    const recipe = named("Walk down from the speed of peak force");
    for (const session of [1, 2]) {
      for (const week of expandRecipe(recipe, {}, session)) {
        for (const set of week.sets) {
          expect(set.basis.by === "peak-force" && set.basis.slowerMps).toBeGreaterThanOrEqual(0);
        }
      }
    }
    expect(shape(recipe, 2)[0]).toBe("5×3@0.02");
  });

  it("the method rotation runs twice, then deloads and tests, with dates over a year's end", () => {
    const recipe = named("Free, paused, banded, both; twice, deload, test");
    expect(recipeWeeks(recipe)).toHaveLength(10);
    const block = blockOfLift({
      name: "Rotation",
      startDate: "2026-11-23",
      variantId: "0198c0de-0000-7000-8000-000000000001",
      recipe,
      schoolId: "",
    });
    const slot = block.slots.main as Slot;
    const weeks = Array.from({ length: 10 }, (_, i) => {
      const week = slotWeek(block, slot, i + 1, { deloadSets: 0.5, deloadLoad: 0.8 });
      return [
        dateOf(block, i + 1, { name: "", offset: 0 }),
        week?.method?.name ?? week?.kind,
        week?.sets.length,
        week?.sets[0]?.factor,
      ];
    });
    expect(weeks).toEqual([
      ["2026-11-23", "free", 8, 1],
      ["2026-11-30", "paused", 8, 1],
      ["2026-12-07", "banded", 8, 1],
      ["2026-12-14", "banded and paused", 8, 1],
      ["2026-12-21", "free", 8, 1],
      ["2026-12-28", "paused", 8, 1],
      ["2027-01-04", "banded", 8, 1],
      ["2027-01-11", "banded and paused", 8, 1],
      ["2027-01-18", "deload", 4, 0.8],
      ["2027-01-25", "test", 0, undefined],
    ]);
  });
});

describe("the shipped schools", () => {
  it("are at least seven, each with what it assumes and a style on the box that is known", () => {
    expect(SHIPPED_SCHOOLS.length).toBeGreaterThanOrEqual(7);
    expect(new Set(SHIPPED_SCHOOLS.map((one) => one.name)).size).toBe(SHIPPED_SCHOOLS.length);
    for (const school of SHIPPED_SCHOOLS) {
      expect(school.assumes.length).toBeGreaterThan(20);
      expect(school.boxStyles.every((id) => styleById(id) !== undefined)).toBe(true);
      // Known and off by default: no school ships with them.
      expect(school.boxStyles).not.toContain("rock");
      expect([school.relaxAndFire, school.rockingDrill]).toEqual([false, false]);
    }
  });
});
