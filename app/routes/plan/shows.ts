import { describeBasis } from "../../../core/recipe/basis";
import { expandRecipe, type Recipe } from "../../../core/recipe/recipe";

/**
 * Weeks that stand side by side without scrolling sideways: fewer where a week holds several
 * different loads. More are paged.
 */
export function weeksShown(recipe: Recipe | undefined, show: Show): number {
  if (!recipe) return 6;
  if (show === "plates") return 2;
  const loads = expandRecipe(recipe).map(
    (week) => new Set(week.sets.map((set) => describeBasis(set.basis, "kg"))).size,
  );
  const most = Math.max(1, ...loads);
  const wide = show === "speed" ? 1 : 0;
  return (most >= 3 ? 4 : most === 2 ? 5 : 6) - wide;
}

export const SHOWS = ["loads", "percent", "plates", "speed"] as const;
export type Show = (typeof SHOWS)[number];
export const SHOW_NAMES: Record<Show, string> = {
  loads: "loads",
  percent: "true percentages",
  plates: "plates a side",
  speed: "wanted speeds, m/s",
};
