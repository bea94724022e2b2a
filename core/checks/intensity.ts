import { hangsIn } from "../prescribe/method";
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

/** Of what hangs at lockout, what it comes to in the mean: a straight rise from nothing. */
export const MEAN_OF_LOCKOUT = 0.5;

/**
 * What an asked percentage comes to in the mean over the range, %: a bar percentage has the mean
 * of what hangs on top of it, a lockout total has it less what is not yet hung at the bottom.
 */
function meanPercentOf(recipe: Recipe, week: WaveWeek, percent: number): number {
  if (!hangsIn(recipe, week) || recipe.convention === "mean") return percent;
  const share = Math.min(0.9, (recipe.resistancePercent ?? 0) / 100);
  return recipe.convention === "bar"
    ? percent * (1 + (MEAN_OF_LOCKOUT * share) / (1 - share))
    : percent * (1 - (1 - MEAN_OF_LOCKOUT) * share);
}

/**
 * Mean intensity of a week by reps, %, where every set is a percentage; bands and chains count by
 * their mean over the range, in the weeks in which they hang.
 */
export function meanIntensity(
  recipe: Recipe,
  week: WaveWeek,
): { meanPercent: number; overMax: boolean } | undefined {
  const percents = week.sets.flatMap((set) => percentOf(set) ?? []);
  if (percents.length < week.sets.length) return undefined;
  const asked =
    week.sets.reduce((sum, set) => sum + (percentOf(set) ?? 0) * set.reps, 0) / repsOf(week);
  return {
    meanPercent: meanPercentOf(recipe, week, asked),
    overMax: percents.some((percent) => percent > 100),
  };
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
