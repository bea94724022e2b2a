import { seededRandom } from "../numeric/random";
import { studentCdf } from "../numeric/student-t";
import { plainNumber } from "../units/mass";
import { formatClock, type LocalDate } from "../units/time";
import type { Working } from "../units/working";

/**
 * The gap test: three baseline trials, a heavy set, the trial again after rising gaps; on two
 * days or more. The athlete's own best gap, or none. DOMAIN 10.
 */
export const DEFAULT_GAPS_MIN = [0.25, 2, 4, 6, 8, 10, 12] as const;
export const BASELINE_TRIALS = 3;
export const LEAST_DAYS = 2;

export interface GapTestDay {
  date: LocalDate;
  baseline: number[];
  /** One trial after each gap; a gap without a trial was not done. */
  trials: Array<{ gapMin: number; value: number }>;
}

export interface GapChange {
  gapMin: number;
  /** Mean change against the day's baseline, in the trial's unit; up is better. */
  change: number;
  /** Standard error of it by the pooled baseline spread. */
  error: number;
  days: number;
  /** Chance that the change exceeds the smallest worthwhile one (t). */
  chance: number;
  /** Change drawn towards its neighbours on the clock. */
  smoothed: number;
  /** Chance that this gap is the best one. */
  bestChance: number;
}

export type GapVerdict =
  | { kind: "best"; gapMin: number; fromMin: number; toMin: number; gain: number; chance: number }
  | { kind: "none"; chance: number }
  /** Neither can be said yet. */
  | { kind: "unclear"; moreDays: number; chance: number };

export type GapAnalysis =
  | {
      ok: true;
      n: { days: number; baseline: number; trials: number };
      /** Pooled spread of the baseline trials, and its freedom. */
      spread: number;
      freedom: number;
      worthwhile: number;
      changes: GapChange[];
      verdict: GapVerdict;
      working: Working;
    }
  | { ok: false; reason: "few-days" | "few-baseline" | "no-trials"; moreDays: number };

/** A benefit is called from this chance on, and ruled out under the other. */
export const CALL_FROM = 0.8;
export const RULE_OUT_UNDER = 0.35;
/** How far apart two gaps still tell of each other, and how large gains are before any test. */
const REACH_MIN = 2.5;
const PRIOR_SD_IN_WORTHWHILE = 1.5;
const DRAWS = 800;
const MOST_MORE_DAYS = 20;

/**
 * Analyses an athlete's days. Changes are against the same day's baseline. The curve over the
 * gaps is a Gaussian process (squared exponential, reach 2.5 min) that shares the baseline's
 * error among a day's changes; the raw change with its t stands beside it.
 *
 * @param worthwhile smallest worthwhile change, in the trial's unit (0.2 × between-athlete SD)
 * @param up whether more is better (heights, distances) or less (times)
 */
export function analyseGaps(input: {
  days: readonly GapTestDay[];
  worthwhile: number;
  up?: boolean;
  unit?: string;
  seed?: number;
}): GapAnalysis {
  const { worthwhile } = input;
  const sign = input.up === false ? -1 : 1;
  const days = input.days.filter((day) => day.baseline.length >= 2 && day.trials.length > 0);
  if (days.length === 0) {
    const noTrials = input.days.every((day) => day.trials.length === 0);
    return { ok: false, reason: noTrials ? "no-trials" : "few-baseline", moreDays: LEAST_DAYS };
  }
  let squares = 0;
  let freedom = 0;
  for (const day of days) {
    const centre = meanOf(day.baseline);
    for (const value of day.baseline) squares += (value - centre) ** 2;
    freedom += day.baseline.length - 1;
  }
  if (days.length < LEAST_DAYS)
    return { ok: false, reason: "few-days", moreDays: LEAST_DAYS - days.length };
  const spread = Math.sqrt(squares / freedom);

  const gaps = [...new Set(days.flatMap((day) => day.trials.map((one) => one.gapMin)))].sort(
    (a, b) => a - b,
  );
  const byGap = gaps.map((gapMin) => {
    const own = days.flatMap((day) => {
      const trial = day.trials.find((one) => one.gapMin === gapMin);
      return trial
        ? [
            {
              change: sign * (trial.value - meanOf(day.baseline)),
              trial: 1,
              base: 1 / day.baseline.length,
            },
          ]
        : [];
    });
    const change = meanOf(own.map((one) => one.change));
    const variance = own.reduce((sum, one) => sum + one.trial + one.base, 0) / own.length ** 2;
    // A perfectly even baseline still has a reading's error behind it.
    const error = Math.max(spread, 1e-9) * Math.sqrt(variance);
    const baseShare = own.reduce((sum, one) => sum + one.base, 0) / own.length ** 2;
    return { gapMin, change, error, days: own.length, baseShare };
  });

  const { means, covariance } = posterior(byGap, spread, worthwhile);
  const bestChances = drawBest(means, covariance, input.seed ?? 1);
  const changes: GapChange[] = byGap.map((one, i) => ({
    gapMin: one.gapMin,
    change: one.change,
    error: one.error,
    days: one.days,
    chance: studentCdf((one.change - worthwhile) / one.error, freedom),
    smoothed: means[i] as number,
    bestChance: bestChances[i] as number,
  }));
  const best = means.reduce((at, value, i) => (value > (means[at] as number) ? i : at), 0);
  const bestChange = changes[best] as GapChange;
  const sd = Math.sqrt(Math.max(0, covariance[best]?.[best] ?? 0));
  const chance = studentCdf(
    (bestChange.smoothed - worthwhile) / Math.max(sd, 1e-12),
    Math.max(1, freedom),
  );
  const verdict = decide({ changes, best, chance, sd, worthwhile, freedom, days: days.length });
  const unit = input.unit ? ` ${input.unit}` : "";
  return {
    ok: true,
    n: {
      days: days.length,
      baseline: days.reduce((sum, day) => sum + day.baseline.length, 0),
      trials: days.reduce((sum, day) => sum + day.trials.length, 0),
    },
    spread,
    freedom,
    worthwhile,
    changes,
    verdict,
    working: {
      title: "Best gap",
      lines: [
        { label: "Days", value: String(days.length) },
        {
          label: "Spread of the baseline trials",
          value: `${plainNumber(spread, 2)}${unit}`,
          detail: `pooled within days, ${freedom} degrees of freedom`,
        },
        { label: "Smallest worthwhile change", value: `${plainNumber(worthwhile, 2)}${unit}` },
        {
          label: `Change after ${plainNumber(bestChange.gapMin)} min`,
          value: `${plainNumber(bestChange.change, 2)}${unit}`,
          detail: `± ${plainNumber(bestChange.error, 2)} standard error, mean of ${bestChange.days} days`,
        },
        {
          label: "Drawn towards its neighbours",
          value: `${plainNumber(bestChange.smoothed, 2)}${unit}`,
        },
        {
          label: "Chance that it is worthwhile",
          value: `${Math.round(100 * chance)} %`,
          emphasis: "answer",
        },
      ],
      sources: [
        "Change against baseline with t on the pooled spread; chances as in a test's change (Hopkins; disputed, Sainani 2018)",
      ],
      changes: ["Another day of the test, another smallest worthwhile change."],
    },
  };
}

function decide(input: {
  changes: readonly GapChange[];
  best: number;
  chance: number;
  sd: number;
  worthwhile: number;
  freedom: number;
  days: number;
}): GapVerdict {
  const { changes, best, chance, sd, worthwhile, days } = input;
  const bestChange = changes[best] as GapChange;
  if (chance >= CALL_FROM) {
    const near = changes.filter((one) => one.smoothed >= 0.8 * bestChange.smoothed);
    // The stretch of gaps round the best one that give at least four fifths of its gain.
    let from = best;
    let to = best;
    while (from > 0 && near.includes(changes[from - 1] as GapChange)) from--;
    while (to < changes.length - 1 && near.includes(changes[to + 1] as GapChange)) to++;
    return {
      kind: "best",
      gapMin: bestChange.gapMin,
      fromMin: (changes[from] as GapChange).gapMin,
      toMin: (changes[to] as GapChange).gapMin,
      gain: bestChange.smoothed,
      chance,
    };
  }
  if (chance < RULE_OUT_UNDER) return { kind: "none", chance };
  // With the same means, n days more narrow the error by the root of the days.
  for (let more = 1; more <= MOST_MORE_DAYS; more++) {
    const narrower = sd * Math.sqrt(days / (days + more));
    const then = studentCdf(
      (bestChange.smoothed - worthwhile) / narrower,
      input.freedom + 2 * more,
    );
    if (then >= CALL_FROM || then < RULE_OUT_UNDER)
      return { kind: "unclear", moreDays: more, chance };
  }
  return { kind: "unclear", moreDays: MOST_MORE_DAYS, chance };
}

/** Days that tell an athlete's gain of 1.6 worthwhile changes from none, by the trial's error. */
export function daysNeeded(trialError: number, worthwhile: number): number {
  if (!(worthwhile > 0)) return MOST_MORE_DAYS;
  // One trial and three baselines a day; the gain lies 0.6 worthwhile changes over the line, and
  // two standard errors of room are asked for.
  const perDay = trialError ** 2 * (1 + 1 / BASELINE_TRIALS);
  const days = Math.ceil((1.3 ** 2 * perDay) / (0.6 * worthwhile) ** 2);
  return Math.min(MOST_MORE_DAYS, Math.max(LEAST_DAYS, days));
}

function meanOf(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** Posterior mean and covariance of the gains over the gaps. */
function posterior(
  byGap: ReadonlyArray<{ gapMin: number; change: number; error: number; baseShare: number }>,
  spread: number,
  worthwhile: number,
): { means: number[]; covariance: number[][] } {
  const n = byGap.length;
  const prior = (PRIOR_SD_IN_WORTHWHILE * worthwhile) ** 2;
  const kernel = byGap.map((a) =>
    byGap.map((b) => prior * Math.exp(-0.5 * ((a.gapMin - b.gapMin) / REACH_MIN) ** 2)),
  );
  // A day's changes share its baseline's error.
  const noise = byGap.map((a, i) =>
    byGap.map((b, j) =>
      i === j ? a.error ** 2 : Math.max(spread, 1e-9) ** 2 * Math.min(a.baseShare, b.baseShare),
    ),
  );
  const total = kernel.map((row, i) => row.map((value, j) => value + (noise[i]?.[j] ?? 0)));
  const factor = cholesky(total);
  const y = byGap.map((one) => one.change);
  const alpha = solve(factor, y);
  const means = kernel.map((row) =>
    row.reduce((sum, value, j) => sum + value * (alpha[j] ?? 0), 0),
  );
  const columns = Array.from({ length: n }, (_, j) =>
    solve(
      factor,
      kernel.map((row) => row[j] ?? 0),
    ),
  );
  const covariance = kernel.map((row) =>
    row.map((value, j) => value - row.reduce((sum, k, m) => sum + k * (columns[j]?.[m] ?? 0), 0)),
  );
  return { means, covariance };
}

/** Lower factor of a symmetric positive matrix; a hair is added where rounding asks for it. */
function cholesky(matrix: readonly (readonly number[])[]): number[][] {
  const n = matrix.length;
  const lower: number[][] = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i++) {
    const own = lower[i] as number[];
    for (let j = 0; j <= i; j++) {
      const other = lower[j] as number[];
      let sum = matrix[i]?.[j] ?? 0;
      for (let k = 0; k < j; k++) sum -= (own[k] ?? 0) * (other[k] ?? 0);
      if (i === j) own[j] = Math.sqrt(Math.max(sum, 1e-12));
      else own[j] = sum / (other[j] as number);
    }
  }
  return lower;
}

function solve(lower: readonly (readonly number[])[], right: readonly number[]): number[] {
  const n = right.length;
  const half: number[] = [];
  for (let i = 0; i < n; i++) {
    let sum = right[i] as number;
    for (let k = 0; k < i; k++) sum -= (lower[i]?.[k] ?? 0) * (half[k] ?? 0);
    half.push(sum / (lower[i]?.[i] as number));
  }
  const whole = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    let sum = half[i] as number;
    for (let k = i + 1; k < n; k++) sum -= (lower[k]?.[i] ?? 0) * (whole[k] ?? 0);
    whole[i] = sum / (lower[i]?.[i] as number);
  }
  return whole;
}

/** How often each gap is the best, over seeded draws of the curve. */
function drawBest(
  means: readonly number[],
  covariance: readonly (readonly number[])[],
  seed: number,
): number[] {
  const random = seededRandom(seed);
  const factor = cholesky(covariance);
  const best = means.map(() => 0);
  for (let draw = 0; draw < DRAWS; draw++) {
    const z = means.map(() => random.normal());
    const values = means.map(
      (value, i) => value + (factor[i] ?? []).reduce((sum, l, k) => sum + l * (z[k] ?? 0), 0),
    );
    const at = values.reduce((top, value, i) => (value > (values[top] as number) ? i : top), 0);
    best[at] = (best[at] ?? 0) + 1 / DRAWS;
  }
  return best;
}

/** A gap in minutes as a clock reads it: "6:00". */
export const gapWords = (min: number): string => formatClock(Math.round(60 * min));

/** What the days of a test say, in a few words. */
export function gapVerdictWords(analysis: GapAnalysis, unit: string): string {
  if (!analysis.ok)
    return analysis.reason === "few-days"
      ? `${analysis.moreDays} more day${analysis.moreDays === 1 ? "" : "s"} needed`
      : "too few trials";
  const { verdict } = analysis;
  if (verdict.kind === "best")
    return `best gap ${gapWords(verdict.gapMin)}${verdict.fromMin === verdict.toMin ? "" : ` (${gapWords(verdict.fromMin)} to ${gapWords(verdict.toMin)})`}, +${plainNumber(verdict.gain, 2)} ${unit}`;
  if (verdict.kind === "none") return "no benefit seen";
  return `unclear; about ${verdict.moreDays} more day${verdict.moreDays === 1 ? "" : "s"}`;
}
