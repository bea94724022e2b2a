import { percentOf, type Recipe, type WaveWeek } from "../recipe/recipe";
import { firstWeek, type SlotAt } from "./rule";
import type { School } from "./school";

/** Prilepin's totals by mean intensity: reps in all, and reps a set for strength work. */
export const PRILEPIN = [
  { under: 70, least: 18, most: 30, set: { least: 3, most: 6 } },
  { under: 80, least: 12, most: 24, set: { least: 3, most: 6 } },
  { under: 90, least: 10, most: 20, set: { least: 2, most: 4 } },
  { under: Number.POSITIVE_INFINITY, least: 4, most: 10, set: { least: 1, most: 2 } },
] as const;

export const countsReps = (recipe: Recipe): boolean =>
  recipe.counts === undefined || recipe.counts === "reps";

export const repsOf = (week: WaveWeek): number => week.sets.reduce((sum, set) => sum + set.reps, 0);

export const longestSet = (week: WaveWeek): number =>
  Math.max(...week.sets.map((set) => set.repsTo ?? set.reps));

/**
 * Mean intensity of a week by reps, %, where every set is a percentage. Bands and chains add to it
 * where the percentage is of the bar only.
 */
export function meanIntensity(
  recipe: Recipe,
  week: WaveWeek,
): { meanPercent: number; overMax: boolean } | undefined {
  const percents = week.sets.flatMap((set) => percentOf(set) ?? []);
  if (percents.length < week.sets.length) return undefined;
  const ofBar =
    week.sets.reduce((sum, set) => sum + (percentOf(set) ?? 0) * set.reps, 0) / repsOf(week);
  const hung = recipe.convention === "bar" ? (recipe.resistancePercent ?? 0) : 0;
  return { meanPercent: hung + ofBar, overMax: percents.some((percent) => percent > 100) };
}

/** The zone that a week's reps are counted in, with what they come to. */
export function zoneOf(recipe: Recipe, week: WaveWeek) {
  const mean = countsReps(recipe) ? meanIntensity(recipe, week) : undefined;
  const zone = mean && PRILEPIN.find((row) => mean.meanPercent < row.under);
  return zone && { ...zone, sets: week.sets, reps: repsOf(week), meanPercent: mean.meanPercent };
}

/** The first week whose reps are on the wrong side of what their zone has, where the school counts. */
export const firstOutsideTotals = (
  { slot, name, working }: SlotAt,
  school: School,
  say: (zone: NonNullable<ReturnType<typeof zoneOf>>) => string | undefined,
) =>
  !school.totals
    ? undefined
    : firstWeek(working, ({ week, own }) => {
        const zone = zoneOf(slot.recipe, own);
        const said = zone && say(zone);
        return said && `${name}, week ${week}: ${said}`;
      });
