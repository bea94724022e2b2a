import { describe, expect, it } from "vitest";
import { SHIPPED_RECIPES } from "../../db/library/recipes";
import type { LocalDate } from "../units/time";
import { blockOfLift } from "./block";
import { runsOf, weekAhead } from "./runs";

const START = "2026-02-02" as LocalDate;

describe("a slot's waves", () => {
  const [recipe] = SHIPPED_RECIPES.map((one) => one.recipe).filter(
    (one) => one.weeks.length === 3 && !one.tail,
  );
  if (!recipe) throw new Error("A recipe of three weeks ships.");
  const block = blockOfLift({
    name: "Twice",
    startDate: START,
    variantId: "v",
    recipe: { ...recipe, repeats: 2 },
    schoolId: "",
  });
  const slot = block.slots.main;
  if (!slot) throw new Error("The block has its slot.");

  it("are the times through its recipe's weeks, marked weeks left out", () => {
    expect(runsOf(block, slot).map((one) => one.weeks)).toEqual([
      [1, 2, 3],
      [4, 5, 6],
    ]);
    const marks = { m: { week: 2, kind: "deload" as const, words: "" } };
    expect(runsOf({ ...block, weeks: 7, marks }, slot).map((one) => one.weeks)).toEqual([
      [1, 3, 4],
      [5, 6, 7],
    ]);
  });

  it("leave a week ahead that nobody has trained yet, or none", () => {
    const of = (today: string) => weekAhead(block, { weeks: [1, 2, 3] }, today as LocalDate);
    expect(of("2026-02-16")).toBe(4);
    // Two weeks later weeks 4 and 5 have begun: they are not moved.
    expect(of("2026-03-04")).toBe(6);
    expect(of("2026-03-11")).toBeUndefined();
  });
});
