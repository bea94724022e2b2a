import type { Recipe } from "../recipe/recipe";
import { CONVENTION_NAMES } from "../resistance/setup";
import type { School } from "./school";

/** What a school would set otherwise in a recipe, and the recipe with it. */
export interface AsSchool {
  recipe: Recipe;
  /** A line each: "rest 30 to 75 s". Empty where the recipe is as the school does. */
  changes: string[];
}

/**
 * A recipe as a school proposes it for a new slot: its rest in speed and power work, its loss that
 * ends a set, what its percentages count, and how much it hangs where anything hangs. The aim, the
 * scheme and the percentages stay the recipe's.
 */
export function asSchool(recipe: Recipe, school: School): AsSchool {
  const changes: string[] = [];
  const next: Recipe = { ...recipe, stop: { ...recipe.stop } };
  const { rest } = recipe;
  if (recipe.aim === "speed" && !recipe.timed) {
    const outside = rest.leastS > school.rest.mostS || rest.mostS < school.rest.leastS;
    if (outside) {
      next.rest = { ...school.rest };
      changes.push(`rest ${school.rest.leastS} to ${school.rest.mostS} s`);
    }
  }
  if (recipe.aim === "power" && !recipe.timed && rest.leastS < school.powerRestS) {
    next.rest = {
      leastS: school.powerRestS,
      mostS: Math.max(rest.mostS, school.powerRestS),
    };
    changes.push(`rest ${next.rest.leastS} to ${next.rest.mostS} s`);
  }
  const loss = school.loss[recipe.aim];
  if (school.ending === "loss" && loss !== undefined && recipe.stop.lossPercent !== loss) {
    next.stop.lossPercent = loss;
    changes.push(`sets end at ${loss} % loss`);
  }
  if (school.ending === "fixed" && recipe.stop.lossPercent !== undefined && loss === undefined) {
    delete next.stop.lossPercent;
    changes.push("sets end by their reps");
  }
  const asked = recipe.resistancePercent ?? 0;
  if (asked > 0) {
    if (recipe.basis === "percent" && recipe.convention !== school.convention) {
      next.convention = school.convention;
      changes.push(`percentages count: ${CONVENTION_NAMES[school.convention].toLowerCase()}`);
    }
    const { leastPercent, mostPercent } = school.resistanceShare;
    const share = Math.min(mostPercent, Math.max(leastPercent, asked));
    if (share !== asked) {
      next.resistancePercent = share;
      changes.push(`${share} % in bands or chains`);
    }
  }
  return { recipe: next, changes };
}
