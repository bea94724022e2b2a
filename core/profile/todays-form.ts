import { inverseSpd } from "../numeric/spd";
import {
  DAY_SHIFT_SD_MPS,
  LARGEST_CHANGE_SHARE,
  READING_SD_MPS,
  REP_DROP_MPS,
  REP_DROP_SD_MPS,
} from "./day-form";
import type { Interval } from "./prediction";

/** What the first guess of a reading's error is worth, in readings. */
const READING_SD_WORTH = 8;
/** Loads of a profile from which a day can be judged. */
export const LEAST_LOADS = 3;
/** Standard normal quantile for a 90 % interval. */
const Z90 = 1.6448536269514722;

/** A counted rep. The order of a list is the order in which reps of a load were done. */
export interface RepAtLoad {
  loadKg: number;
  velocityMps: number;
}

export interface ReadinessInput {
  /** Every counted rep of the profile, at three loads or more. */
  profile: readonly RepAtLoad[];
  /** Every counted rep of today. */
  today: readonly RepAtLoad[];
  /** Minimum velocity threshold of the variant in this metric; without one there is no 1RM. */
  thresholdMps: number | undefined;
  targetMps: number;
  readingSdMps?: number;
  dayShiftSdMps?: number;
}

/** Reps of a profile and a day together that are read at the most. */
const MOST_REPS = 2000;

export type ReadinessRefusal =
  | "too-few-loads"
  | "nothing-today"
  | "slope-unclear"
  | "not-finite"
  | "too-large";

/** A rep with its place in its load's order, from 0. */
interface Row extends RepAtLoad {
  order: number;
}

function inOrder(reps: readonly RepAtLoad[]): Row[] {
  const seen = new Map<number, number>();
  return reps.map((rep) => {
    const order = seen.get(rep.loadKg) ?? 0;
    seen.set(rep.loadKg, order + 1);
    return { ...rep, order };
  });
}

const isRep = ({ loadKg, velocityMps }: RepAtLoad) =>
  Number.isFinite(loadKg) && loadKg > 0 && Number.isFinite(velocityMps) && velocityMps > 0;

/** Today's form as far as it can be told. */
export type TodaysForm =
  | {
      ok: true;
      /** Today's shift of the line, m/s, with its 90 % interval. */
      shift: Interval;
      shiftSdMps: number;
      /** The error of one reading as these reps have it, m/s. */
      readingSdMps: number;
      /** Today's 1RM, kg, with its 90 % interval; undefined without a threshold. */
      oneRepMax: Interval | undefined;
      /** Today's load for the target velocity, kg, with its 90 % interval. */
      targetLoad: Interval;
      /** What the profile alone gives for the target, kg. */
      profileLoadKg: number;
      /** One standard deviation of the target load, kg. */
      targetSdKg: number;
      /** The profile's line, speed by load, m/s. */
      profileMps: (kg: number) => number;
    }
  | { ok: false; reason: ReadinessRefusal };

/**
 * Day readiness by a conjugate normal update over every counted rep, not the fastest of a load
 * alone: that one is selected, and reads the day too high. With j the place of a rep at its load
 * and L̄ the mean load of the profile's reps,
 *
 *   profile  v = α + β (L − L̄) − κp·j + e,
 *   today    v = α + d + β (L − L̄) − κt·j + e,
 *
 * α, β flat, κp, κt ~ N(0.01, 0.015²), d ~ N(0, 0.05²), e ~ N(0, s²), s starting at 0.03 and then
 * twice s² = (8 · 0.03² + RSS) / (8 + n − 4). Loads by Fieller's 90 % on (α + d, β). The stored
 * max is not touched.
 */
export function todaysForm(input: ReadinessInput): TodaysForm {
  const { profile, today, thresholdMps, targetMps } = input;
  if (today.length === 0) return { ok: false, reason: "nothing-today" };
  if (profile.length + today.length > MOST_REPS) return { ok: false, reason: "too-large" };
  if (![...profile, ...today].every(isRep) || !Number.isFinite(targetMps))
    return { ok: false, reason: "not-finite" };
  if (new Set(profile.map((rep) => rep.loadKg)).size < LEAST_LOADS)
    return { ok: false, reason: "too-few-loads" };
  const meanKg = profile.reduce((sum, rep) => sum + rep.loadKg, 0) / profile.length;
  const rows = [
    ...inOrder(profile).map((rep) => ({ rep, x: [1, rep.loadKg - meanKg, -rep.order, 0, 0] })),
    ...inOrder(today).map((rep) => ({ rep, x: [1, rep.loadKg - meanKg, 0, -rep.order, 1] })),
  ].map(({ rep, x }) => ({ x, y: rep.velocityMps }));
  const firstSd = input.readingSdMps ?? READING_SD_MPS;
  const shiftSd = input.dayShiftSdMps ?? DAY_SHIFT_SD_MPS;
  let variance = firstSd ** 2;
  let posterior = solve(rows, variance, shiftSd);
  for (let round = 0; round < 2 && posterior; round++) {
    const { mean } = posterior;
    const rss = rows.reduce((sum, { x, y }) => sum + (y - dot(x, mean)) ** 2, 0);
    variance = (READING_SD_WORTH * firstSd ** 2 + rss) / (READING_SD_WORTH + rows.length - 4);
    posterior = solve(rows, variance, shiftSd);
  }
  if (!posterior) return { ok: false, reason: "slope-unclear" };
  const { mean, covariance } = posterior;
  const [alpha = 0, beta = 0, , , d = 0] = mean;
  const cov = (i: number, j: number) => covariance[i]?.[j] ?? 0;
  const line: DayLine = {
    c: alpha + d,
    b: beta,
    vcc: cov(0, 0) + 2 * cov(0, 4) + cov(4, 4),
    vcb: cov(0, 1) + cov(4, 1),
    vbb: cov(1, 1),
    meanX: meanKg,
  };
  const targetLoad = loadFor(line, targetMps);
  const oneRepMax = thresholdMps === undefined ? undefined : loadFor(line, thresholdMps);
  if (!targetLoad || (thresholdMps !== undefined && !oneRepMax))
    return { ok: false, reason: "slope-unclear" };
  const dSd = Math.sqrt(cov(4, 4));
  const shift = { estimate: d, low: d - Z90 * dSd, high: d + Z90 * dSd };
  const profileLoadKg = meanKg + (targetMps - alpha) / beta;
  return {
    ok: true,
    shift,
    shiftSdMps: dSd,
    readingSdMps: Math.sqrt(variance),
    oneRepMax,
    targetLoad,
    profileLoadKg,
    targetSdKg: (targetLoad.high - targetLoad.low) / (2 * Z90),
    profileMps: (kg) => alpha + beta * (kg - meanKg),
  };
}

const dot = (x: readonly number[], y: readonly number[]) =>
  x.reduce((sum, value, i) => sum + value * (y[i] ?? 0), 0);

/** Posterior of (α, β, κp, κt, d); undefined where the reps do not tell α and β apart. */
function solve(
  rows: ReadonlyArray<{ x: number[]; y: number }>,
  variance: number,
  shiftSd: number,
): { mean: number[]; covariance: number[][] } | undefined {
  const prior = [0, 0, 1 / REP_DROP_SD_MPS ** 2, 1 / REP_DROP_SD_MPS ** 2, 1 / shiftSd ** 2];
  const expected = [0, 0, REP_DROP_MPS, REP_DROP_MPS, 0];
  const precision = prior.map((own, i) => prior.map((_, j) => (i === j ? own : 0)));
  const right = prior.map((own, i) => own * (expected[i] ?? 0));
  for (const { x, y } of rows)
    for (let i = 0; i < x.length; i++) {
      right[i] = (right[i] ?? 0) + ((x[i] ?? 0) * y) / variance;
      const row = precision[i] as number[];
      for (let j = 0; j < x.length; j++)
        row[j] = (row[j] ?? 0) + ((x[i] ?? 0) * (x[j] ?? 0)) / variance;
    }
  const covariance = inverseSpd(precision);
  return covariance && { covariance, mean: covariance.map((row) => dot(row, right)) };
}

/** Today's line: velocity at the mean load and slope, with their covariances. */
interface DayLine {
  c: number;
  b: number;
  vcc: number;
  vcb: number;
  vbb: number;
  meanX: number;
}

/** The loads whose velocity cannot be told from v at 90 %: Fieller's set. */
function loadFor(line: DayLine, v: number): Interval | undefined {
  const { c, b, vcc, vcb, vbb, meanX } = line;
  if (b >= 0) return undefined;
  const z2 = Z90 * Z90;
  // (c + b x − v)² ≤ z² (vcc + 2 x vcb + x² vbb), x = L − L̄.
  const qa = b * b - z2 * vbb;
  const qb = 2 * (b * (c - v) - z2 * vcb);
  const qc = (c - v) ** 2 - z2 * vcc;
  const root = qb * qb - 4 * qa * qc;
  if (!(qa > 0) || !(root >= 0)) return undefined;
  const ends = [(-qb - Math.sqrt(root)) / (2 * qa), (-qb + Math.sqrt(root)) / (2 * qa)];
  return {
    estimate: meanX + (v - c) / b,
    low: meanX + Math.min(...ends),
    high: meanX + Math.max(...ends),
  };
}

export interface ReadinessChange {
  changes: boolean;
  /** The load to take for the target today, before rounding to plates, kg. */
  loadKg: number;
  reason: "within-noise" | "under-a-step" | "over-noise" | "held-to-ten-percent";
}

/**
 * Whether a planned load should change: only when the difference exceeds both one loadable step
 * and one standard deviation of the target load, and then by ten percent at most.
 */
export function readinessChange(input: {
  plannedKg: number;
  targetLoadKg: number;
  targetSdKg: number;
  stepKg: number;
}): ReadinessChange {
  const { plannedKg, targetLoadKg, targetSdKg, stepKg } = input;
  const difference = targetLoadKg - plannedKg;
  if (Math.abs(difference) <= stepKg) {
    return { changes: false, loadKg: plannedKg, reason: "under-a-step" };
  }
  if (Math.abs(difference) <= targetSdKg) {
    return { changes: false, loadKg: plannedKg, reason: "within-noise" };
  }
  const most = LARGEST_CHANGE_SHARE * plannedKg;
  if (Math.abs(difference) > most) {
    return {
      changes: true,
      loadKg: plannedKg + Math.sign(difference) * most,
      reason: "held-to-ten-percent",
    };
  }
  return { changes: true, loadKg: targetLoadKg, reason: "over-noise" };
}
