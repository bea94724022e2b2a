import { isOlder } from "../velocity/processing";
import type { Recipe, StopRules } from "./recipe";

/** Whether the recipe holds speeds that were set under an older processing. */
export function hasOlderSpeeds(recipe: Recipe): boolean {
  return (
    isOlder(recipe.speedsOf) && (recipe.stop.floorMps !== undefined || recipe.target !== undefined)
  );
}

/** What ends a set; an older floor ends none until it is confirmed. */
export function stopOf(recipe: Recipe): StopRules {
  if (!hasOlderSpeeds(recipe)) return recipe.stop;
  const { floorMps: _, ...stop } = recipe.stop;
  return stop;
}

/** The coach's wanted speed; an older one asks for nothing until it is confirmed. */
export function targetOf(recipe: Recipe): Recipe["target"] {
  return hasOlderSpeeds(recipe) ? undefined : recipe.target;
}
