import { type Block, type Slot, TEMPLATE_ORDER } from "../plan/block";
import { expandRecipe, percentOf } from "../recipe/recipe";
import type { CheckedAthlete, CheckInput } from "./input";

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

/** Who of some reaches a share of the own working max in a slot, whatever sets its loads, %. */
export const reaching = (
  input: Pick<CheckInput, "heaviest">,
  slotId: string,
  athletes: readonly CheckedAthlete[],
  percent: number,
): CheckedAthlete[] =>
  athletes.filter((one) => (input.heaviest[slotId]?.[one.id]?.percent ?? 0) > percent);

/** Whose loads are a share of the max, or counted from it. */
export const ofTheMax = (slot: Pick<Slot, "recipe">): boolean =>
  slot.recipe.basis === "percent" || slot.recipe.basis === "reserve";

/** A slot that is squatted on a box. */
export const onBox = (at: { lift: { lift: string } | undefined }): boolean =>
  at.lift?.lift === "box-squat";

/** Whether a block's order puts power work before the main lift. */
export function powerFirst(block: Block): boolean {
  const order = TEMPLATE_ORDER[block.template];
  return order.indexOf("power") < order.indexOf("main");
}
