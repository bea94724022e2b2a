import { LIFTS, type Lift } from "../profile/threshold";
import type { CoachValues } from "../settings/coach-values";
import type { Recipe } from "./recipe";

/** Whose floor a lift goes by, m/s. */
const FLOOR_OF: Readonly<Record<Lift, string>> = {
  squat: "floorSquatMps",
  "box-squat": "floorBoxSquatMps",
  bench: "floorBenchMps",
  press: "floorPressMps",
  deadlift: "floorDeadliftMps",
  "trap-bar-deadlift": "floorTrapBarMps",
  "bench-pull": "floorBenchPullMps",
  "pull-up": "floorPullUpMps",
  "hip-thrust": "floorHipThrustMps",
};

/** Until they have one of their own, these go by another lift's, as their thresholds do. */
const ELSE_OF: Partial<Record<Lift, Lift>> = { "box-squat": "squat", press: "bench" };

/** The coach's floor of a lift's speed work, m/s; undefined where none is set. */
export function coachFloor(lift: Lift, values: CoachValues): number | undefined {
  const other = ELSE_OF[lift];
  return values[FLOOR_OF[lift]] ?? (other && values[FLOOR_OF[other]]);
}

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
  const key = LIFTS.find((one) => one === lift);
  const floorMps = key === undefined ? undefined : coachFloor(key, values);
  if (recipe.aim !== "speed" || floorMps === undefined || recipe.stop.floorMps !== undefined)
    return recipe;
  return { ...recipe, stop: { ...recipe.stop, floorMps } };
}
