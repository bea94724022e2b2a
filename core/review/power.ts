import { normalCdf } from "../numeric/normal";
import { studentQuantile } from "../numeric/student-t";
import { DAY_SHIFT_SD_MPS, READING_SD_MPS } from "../profile/day-form";
import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";
import { WAVE_CHANGE_SD_MPS } from "./speed-trend";

/** What two ways of training are to be told apart by. */
export interface TrialAsked {
  /** Difference of the change a wave between the two ways that one wants to find, m/s. */
  effectMps: number;
  weeks: number;
  sessionsAWeek: number;
  /** Measured work sets of a session. */
  sets: number;
  daySdMps?: number;
  /** Athletes' true changes a wave differ by so much, m/s. */
  athleteSdMps?: number;
  /** Chance of seeing a difference that is there; the other way, 10 % of seeing one that is not. */
  power?: number;
}

/** Chance of seeing a difference that is there, as usually asked. */
export const TRIAL_POWER = 0.8;
/** Both sides together: how often a difference is seen that is not there. */
export const TRIAL_LEVEL = 0.1;
const WEEKS_A_WAVE = 3;
const MOST_ATHLETES = 500;

export type TrialNeeds =
  | {
      ok: true;
      /** Athletes of each way; undefined where no number up to 500 is enough. */
      athletesEach: number | undefined;
      power: number;
      /** One athlete's change a wave is known to so much, m/s. */
      changeSdMps: number;
      working: Working;
    }
  | { ok: false; reason: "not-finite" | "too-short" };

/**
 * Power of a two-sided t test of two groups of n, by the noncentral t distribution, integrated over
 * the spread's own distribution (Johnson & Kotz). Equals R's `power.t.test`.
 * @param delta difference of the means over the SD of one value
 * @returns 0 where a figure is none, or n is under 2 or over 10,000
 */
export function tTestPower(n: number, delta: number, level = TRIAL_LEVEL): number {
  if (!(n >= 2 && n <= 10_000) || !Number.isFinite(delta) || !(level > 0 && level < 1)) return 0;
  const freedom = 2 * n - 2;
  const limit = studentQuantile(1 - level / 2, freedom);
  const shift = Math.abs(delta) * Math.sqrt(n / 2);
  // The estimated spread over the true one: u = χ/√freedom, about 1 ± 1/√(2·freedom).
  const width = 9 / Math.sqrt(2 * freedom);
  const low = Math.max(1e-9, 1 - width);
  const high = 1 + width;
  const steps = 2000;
  let [weights, sum] = [0, 0];
  for (let i = 0; i <= steps; i++) {
    const u = low + ((high - low) * i) / steps;
    const simpson = i === 0 || i === steps ? 1 : i % 2 === 1 ? 4 : 2;
    const density = simpson * Math.exp((freedom - 1) * Math.log(u) - (freedom * (u * u - 1)) / 2);
    weights += density;
    sum += density * normalCdf(shift - limit * u);
  }
  return sum / weights;
}

/** The spread of one athlete's change a wave, of truth and of measuring together, m/s. */
export function changeSd(asked: TrialAsked): number {
  const days = Math.floor(asked.weeks * asked.sessionsAWeek);
  const variance =
    (asked.daySdMps ?? DAY_SHIFT_SD_MPS) ** 2 + READING_SD_MPS ** 2 / Math.max(1, asked.sets);
  const mean = (days - 1) / 2;
  let squares = 0;
  for (let i = 0; i < days; i++) squares += ((i - mean) / asked.sessionsAWeek / WEEKS_A_WAVE) ** 2;
  return Math.sqrt((asked.athleteSdMps ?? WAVE_CHANGE_SD_MPS) ** 2 + variance / squares);
}

/**
 * How many athletes each of two ways of training needs, over so many weeks, until a wanted
 * difference of the change a wave is seen in so many of ten trials: athletes put to a way by lot,
 * each one's slope over all days, a t test between the ways.
 */
export function trialNeeds(asked: TrialAsked): TrialNeeds {
  const { effectMps, weeks, sessionsAWeek, sets } = asked;
  const power = asked.power ?? TRIAL_POWER;
  const numbers = [effectMps, weeks, sessionsAWeek, sets, power];
  if (!numbers.every(Number.isFinite) || effectMps === 0 || !(power > 0 && power < 1))
    return { ok: false, reason: "not-finite" };
  const days = Math.floor(weeks * sessionsAWeek);
  if (days < 3 || days > 1000 || !(sets >= 1)) return { ok: false, reason: "too-short" };
  const changeSdMps = changeSd(asked);
  if (!Number.isFinite(changeSdMps) || changeSdMps <= 0) return { ok: false, reason: "not-finite" };
  const powerOf = (n: number) => tTestPower(n, effectMps / changeSdMps);
  let [low, high] = [2, MOST_ATHLETES];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (powerOf(middle) >= power) high = middle;
    else low = middle + 1;
  }
  const reached = powerOf(low);
  const athletesEach = reached >= power ? low : undefined;
  const percent = (share: number) => `${Math.round(100 * share)} %`;
  return {
    ok: true,
    athletesEach,
    power: reached,
    changeSdMps,
    working: {
      title: "Athletes and weeks for a trial",
      lines: [
        { label: "Wanted difference", value: `${formatVelocity(effectMps)} m/s a wave` },
        {
          label: "Athletes truly differ by",
          value: `${formatVelocity(asked.athleteSdMps ?? WAVE_CHANGE_SD_MPS)} m/s a wave`,
        },
        {
          label: "One athlete's change is known to",
          value: `${formatVelocity(changeSdMps)} m/s`,
          detail: `${days} days, a day's form ${formatVelocity(asked.daySdMps ?? DAY_SHIFT_SD_MPS)} m/s, ${sets} sets a day; with how athletes differ`,
        },
        {
          label: "Athletes of each way",
          value: athletesEach === undefined ? `more than ${MOST_ATHLETES}` : String(athletesEach),
          detail: `found in ${percent(reached)} of trials; seen where nothing is in ${percent(TRIAL_LEVEL)}`,
          emphasis: "answer",
        },
      ],
      sources: [
        "Two groups by lot, each athlete's slope, two-sided t test; noncentral t (equals R's power.t.test)",
      ],
      changes: ["More weeks; more days a week; more athletes; a larger difference."],
    },
  };
}
