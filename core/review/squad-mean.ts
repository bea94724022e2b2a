import { studentQuantile } from "../numeric/student-t";
import type { Interval } from "../profile/prediction";
import { WAVE_CHANGE_SD_MPS } from "./speed-trend";

/** What one athlete's days say of the change a wave, m/s, without what is usual. */
export interface OwnChange {
  changeMps: number;
  sdMps: number;
}

export interface SquadMean extends Interval {
  athletes: number;
  /** Its standard error, m/s. */
  seMps: number;
}

/** Athletes under this are no squad to shrink towards. */
export const LEAST_SQUAD = 4;

/**
 * The mean change of a squad with its 90 % interval: each athlete weighs by what their days know,
 * beside how far athletes differ; t on the athletes' own spread where that is larger. One wave tells
 * this where it tells little of anybody.
 * @returns undefined under two athletes
 */
export function squadMean(changes: readonly OwnChange[]): SquadMean | undefined {
  const known = changes.filter(
    (one) => Number.isFinite(one.changeMps) && one.sdMps > 0 && Number.isFinite(one.sdMps),
  );
  if (known.length < 2) return undefined;
  let [weights, sum] = [0, 0];
  for (const { changeMps, sdMps } of known) {
    const weight = 1 / (sdMps ** 2 + WAVE_CHANGE_SD_MPS ** 2);
    weights += weight;
    sum += weight * changeMps;
  }
  const estimate = sum / weights;
  let scatter = 0;
  for (const { changeMps, sdMps } of known)
    scatter += (changeMps - estimate) ** 2 / (sdMps ** 2 + WAVE_CHANGE_SD_MPS ** 2);
  const inflate = Math.max(1, scatter / (known.length - 1));
  const seMps = Math.sqrt(inflate / weights);
  const half = studentQuantile(0.95, known.length - 1) * seMps;
  return {
    athletes: known.length,
    estimate,
    low: estimate - half,
    high: estimate + half,
    seMps,
  };
}

/**
 * Towards what an athlete's change is shrunk: the squad's mean, as well as it is known, where the
 * squad is one; else no change.
 */
export function shrinkTowards(mean: SquadMean | undefined): {
  towardsMps: number;
  changeSdMps: number;
  words: string;
} {
  return mean && mean.athletes >= LEAST_SQUAD
    ? {
        towardsMps: mean.estimate,
        changeSdMps: Math.sqrt(WAVE_CHANGE_SD_MPS ** 2 + mean.seMps ** 2),
        words: `the mean of ${mean.athletes} athletes`,
      }
    : { towardsMps: 0, changeSdMps: WAVE_CHANGE_SD_MPS, words: "no change" };
}
