import type { Slot } from "../plan/block";
import { expandRecipe, percentOf } from "../recipe/recipe";

/** From this percentage on, work counts as heavy. */
export const HEAVY_PERCENT = 80;

export const speedSlot = (slot: Pick<Slot, "recipe">): boolean =>
  slot.recipe.aim === "speed" || slot.recipe.aim === "power";

/** A top set, or strength work of which some set reaches 80 % of the max. */
export function heavySlot(slot: Pick<Slot, "recipe">): boolean {
  const { recipe } = slot;
  if (recipe.top) return true;
  if (speedSlot(slot) || recipe.basis !== "percent") return false;
  return expandRecipe(recipe).some((week) =>
    week.sets.some((set) => (percentOf(set) ?? 0) >= HEAVY_PERCENT),
  );
}
