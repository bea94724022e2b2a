import { mean } from "../numeric/statistics";
import { studentQuantile } from "../numeric/student-t";
import type { Interval } from "../profile/prediction";
import type { Recipe } from "../recipe/recipe";
import { type OwnChange, type SquadMean, squadMean } from "./squad-mean";

/** One athlete's wave under one way of training. */
export interface WaveUnder {
  athleteId: string;
  /** What the way is called: "speed wave", "short rest" … */
  way: string;
  /** Change of speed at equal load a wave by this wave's days alone; undefined where it tells nothing. */
  change: OwnChange | undefined;
  fadePercent: number | undefined;
  cutPercent: number | undefined;
}

/** What happened under one way. */
export interface WaySum {
  way: string;
  waves: number;
  athletes: number;
  change: SquadMean | undefined;
  fadePercent: number | undefined;
  cutPercent: number | undefined;
}

/** Rest under this is short, s: as coaches part dense work from work for output. */
export const SHORT_REST_S = 90;

/** What a wave's recipe is for, in the words of the comparison. */
export function aimWay(recipe: Pick<Recipe, "aim">): string {
  if (recipe.aim === "speed" || recipe.aim === "power") return "speed waves";
  return recipe.aim === "growth" ? "volume waves" : "strength or learning";
}

export const restWay = (recipe: Pick<Recipe, "rest">): string =>
  recipe.rest.leastS < SHORT_REST_S ? "short rest" : "full rest";

/** How its sets end, in the words of the comparison. */
export function endingWay({ stop, basis }: Pick<Recipe, "stop" | "basis">): string {
  if (stop.lossPercent !== undefined)
    return `loss of ${stop.lossPercent} % from the ${stop.lossFrom}`;
  if (stop.floorMps !== undefined) return "a floor";
  return basis === "eye" ? "the eye" : "fixed reps";
}

/** What happened under each way, the most often trained first. */
export function sumWays(waves: readonly WaveUnder[]): WaySum[] {
  const by = new Map<string, WaveUnder[]>();
  for (const wave of waves) by.set(wave.way, [...(by.get(wave.way) ?? []), wave]);
  return [...by]
    .map(
      ([way, own]): WaySum => ({
        way,
        waves: own.length,
        athletes: new Set(own.map((wave) => wave.athleteId)).size,
        change: squadMean(own.flatMap((wave) => wave.change ?? [])),
        fadePercent: mean(own.flatMap((wave) => wave.fadePercent ?? [])),
        cutPercent: mean(own.flatMap((wave) => wave.cutPercent ?? [])),
      }),
    )
    .sort((a, b) => b.waves - a.waves || a.way.localeCompare(b.way));
}

/**
 * One way's mean change less another's, 90 %: by the two errors, on the fewer athletes' freedom. Nobody
 * was put to a way by lot, and an athlete's waves are not independent: it is no experiment.
 * @returns undefined where one of them has no mean
 */
export function waysApart(
  a: Pick<WaySum, "change" | "athletes">,
  b: Pick<WaySum, "change" | "athletes">,
): Interval | undefined {
  if (!a.change || !b.change) return undefined;
  const freedom = Math.min(a.athletes, b.athletes) - 1;
  if (freedom < 1) return undefined;
  const estimate = a.change.estimate - b.change.estimate;
  const half = studentQuantile(0.95, freedom) * Math.hypot(a.change.seMps, b.change.seMps);
  return { estimate, low: estimate - half, high: estimate + half };
}
