import { normalCdf, Z90 } from "../numeric/normal";
import { READING_SD_MPS } from "../profile/day-form";
import { SET_FADE_MPS, SET_FADE_SD_MPS } from "./equal-speed";

/** A set of one day at one load. */
export interface FadeSet {
  /** Work sets before it. */
  before: number;
  bestMps: number;
}

export type SetFade =
  | {
      ok: true;
      sets: number;
      /** Speed lost from the first set to the last, % of the first, with its 90 % interval. */
      percent: number;
      low: number;
      high: number;
      /** Chance that the loss is over the limit. */
      chanceOver: number;
      /** Called: over the limit with the chance that a call asks. */
      fades: boolean;
    }
  | { ok: false; reason: "few-sets" | "not-finite" };

/** Sets under this tell no fade. */
export const LEAST_FADE_SETS = 4;
/** Chance from which a fade is called. */
export const FADE_CHANCE = 0.9;

/**
 * The fade over a day's sets at one load: least squares of speed on the sets before, shrunk towards
 * the usual fade (0.005 ± 0.01 m/s a set), as a share of the first set. Over the coach's limit, with
 * a chance of nine in ten, it is called.
 */
export function setFade(sets: readonly FadeSet[], limitPercent: number): SetFade {
  if (
    !Number.isFinite(limitPercent) ||
    !sets.every((set) => Number.isFinite(set.before) && Number.isFinite(set.bestMps))
  )
    return { ok: false, reason: "not-finite" };
  if (sets.length < LEAST_FADE_SETS) return { ok: false, reason: "few-sets" };
  const n = sets.length;
  const x0 = sets.reduce((sum, set) => sum + set.before, 0) / n;
  const y0 = sets.reduce((sum, set) => sum + set.bestMps, 0) / n;
  let [sxx, sxy] = [0, 0];
  for (const set of sets) {
    sxx += (set.before - x0) ** 2;
    sxy += (set.before - x0) * (set.bestMps - y0);
  }
  const precision = sxx / READING_SD_MPS ** 2 + 1 / SET_FADE_SD_MPS ** 2;
  const lost = (-sxy / READING_SD_MPS ** 2 + SET_FADE_MPS / SET_FADE_SD_MPS ** 2) / precision;
  const sd = 1 / Math.sqrt(precision);
  const befores = sets.map((set) => set.before);
  const span = Math.max(...befores) - Math.min(...befores);
  const firstMps = y0 + lost * (x0 - Math.min(...befores));
  if (!(firstMps > 0) || span === 0) return { ok: false, reason: "not-finite" };
  const percent = (100 * lost * span) / firstMps;
  const half = (100 * sd * span) / firstMps;
  const chanceOver = normalCdf((percent - limitPercent) / half);
  return {
    ok: true,
    sets: n,
    percent,
    low: percent - Z90 * half,
    high: percent + Z90 * half,
    chanceOver,
    fades: chanceOver >= FADE_CHANCE,
  };
}
