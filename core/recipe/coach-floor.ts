import type { CoachValues } from "../settings/coach-values";
import type { Recipe } from "./recipe";

/** Whose floor a lift goes by, m/s; the rest have none of their own yet. */
const FLOOR_OF: Readonly<Record<string, string>> = {
  squat: "floorSquatMps",
  "box-squat": "floorSquatMps",
  bench: "floorBenchMps",
  press: "floorBenchMps",
};

/**
 * A recipe for a new slot with the coach's floor for its lift, where the work is for speed, the
 * coach has set one and the recipe has none of its own. DOMAIN 7: floors are the coach's.
 * @example withCoachFloor(recipe, "bench", { floorBenchMps: 0.5 }).stop.floorMps // 0.5
 */
export function withCoachFloor(
  recipe: Recipe,
  lift: string | undefined,
  values: CoachValues,
): Recipe {
  const key = lift !== undefined && Object.hasOwn(FLOOR_OF, lift) ? FLOOR_OF[lift] : undefined;
  const floorMps = key === undefined ? undefined : values[key];
  if (recipe.aim !== "speed" || floorMps === undefined || recipe.stop.floorMps !== undefined)
    return recipe;
  return { ...recipe, stop: { ...recipe.stop, floorMps } };
}
