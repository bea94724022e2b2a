import type { LineFit } from "../numeric/regression";
import { formatKg } from "../units/mass";
import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";
import type { Interval } from "./prediction";

/** Spread of a day's form round the profile, m/s (one standard deviation). */
export const DAY_SHIFT_SD_MPS = 0.05;
/** Error of one reading of the fastest rep at a load, m/s; editable. */
export const READING_SD_MPS = 0.03;
/** A call changes a load by this share at most. */
export const LARGEST_CHANGE_SHARE = 0.1;
/** Standard normal quantile for a 90 % interval. */
const Z90 = 1.6448536269514722;

export interface ReadinessInput {
  /** The profile's own fit, velocity over load; at least three points. */
  fit: LineFit;
  /** Fastest counted rep at each of today's loads. */
  today: ReadonlyArray<{ loadKg: number; velocityMps: number }>;
  /** Minimum velocity threshold of the variant, for today's 1RM. */
  thresholdMps: number;
  targetMps: number;
  readingSdMps?: number;
  dayShiftSdMps?: number;
}

export type Readiness =
  | {
      ok: true;
      /** Today's shift of the line, m/s, with its 90 % interval. */
      shift: Interval;
      /** Today's 1RM and load for the target velocity, kg, with 90 % intervals. */
      oneRepMax: Interval;
      targetLoad: Interval;
      /** What the profile alone gives for the target, kg. */
      profileLoadKg: number;
      /** One standard deviation of the target load, kg. */
      targetSdKg: number;
      working: Working;
    }
  | { ok: false; reason: "too-few-points" | "nothing-today" | "slope-unclear" };

/**
 * Day readiness by an exact conjugate update. With load centred on the profile's mean load L̄,
 *
 *   v = c + b (L − L̄) + reading error,  c = v̄ + profile-mean error + day shift,
 *
 * c ~ N(v̄, σ²/n + 0.05²) and b ~ N(b̂, SE²) are independent before today and jointly normal after
 * it. Use the fastest rep at each load only: later reps tire and would make the update too sure.
 * The stored max is not touched.
 */
export function readiness(input: ReadinessInput): Readiness {
  const { fit, today, thresholdMps, targetMps } = input;
  if (fit.n < 3 || fit.see === undefined) return { ok: false, reason: "too-few-points" };
  if (today.length === 0) return { ok: false, reason: "nothing-today" };
  const readingVariance = (input.readingSdMps ?? READING_SD_MPS) ** 2;
  const shiftVariance = (input.dayShiftSdMps ?? DAY_SHIFT_SD_MPS) ** 2;
  const meanVelocity = fit.intercept + fit.slope * fit.meanX;
  const priorC = fit.see ** 2 / fit.n + shiftVariance;
  const priorB = Math.max(fit.see ** 2 / fit.sxx, 1e-16);

  // Posterior precision and its right-hand side, in deviations from the prior means.
  let pcc = 1 / priorC;
  let pcb = 0;
  let pbb = 1 / priorB;
  let rc = 0;
  let rb = 0;
  for (const { loadKg, velocityMps } of today) {
    const x = loadKg - fit.meanX;
    const residual = velocityMps - meanVelocity - fit.slope * x;
    pcc += 1 / readingVariance;
    pcb += x / readingVariance;
    pbb += (x * x) / readingVariance;
    rc += residual / readingVariance;
    rb += (x * residual) / readingVariance;
  }
  const determinant = pcc * pbb - pcb * pcb;
  const posterior: Posterior = {
    c: meanVelocity + (pbb * rc - pcb * rb) / determinant,
    b: fit.slope + (pcc * rb - pcb * rc) / determinant,
    vcc: pbb / determinant,
    vcb: -pcb / determinant,
    vbb: pcc / determinant,
    meanX: fit.meanX,
  };

  // Of the deviation of c, the share that is the day's (the rest is the profile's own error).
  const share = shiftVariance / priorC;
  const shiftMean = share * (posterior.c - meanVelocity);
  const shiftSd = Math.sqrt(share * share * posterior.vcc + shiftVariance * (1 - share));
  const oneRepMax = loadFor(posterior, thresholdMps);
  const targetLoad = loadFor(posterior, targetMps);
  if (!oneRepMax || !targetLoad) return { ok: false, reason: "slope-unclear" };
  const targetSdKg = (targetLoad.high - targetLoad.low) / (2 * Z90);
  const profileLoadKg = (targetMps - fit.intercept) / fit.slope;
  return {
    ok: true,
    shift: {
      estimate: shiftMean,
      low: shiftMean - Z90 * shiftSd,
      high: shiftMean + Z90 * shiftSd,
    },
    oneRepMax,
    targetLoad,
    profileLoadKg,
    targetSdKg,
    working: {
      title: "Today's form",
      lines: [
        ...today.map((one) => ({
          label: `Fastest at ${formatKg(one.loadKg)}`,
          value: `${formatVelocity(one.velocityMps)} m/s`,
          detail: `line ${formatVelocity(fit.intercept + fit.slope * one.loadKg)}`,
        })),
        {
          label: "Shift today",
          value: `${shiftMean >= 0 ? "+" : "−"}${Math.abs(shiftMean).toFixed(3)} m/s`,
          detail: `90 % between ${(shiftMean - Z90 * shiftSd).toFixed(3)} and ${(shiftMean + Z90 * shiftSd).toFixed(3)}`,
        },
        {
          label: `Load for ${formatVelocity(targetMps)} m/s`,
          value: formatKg(targetLoad.estimate, "kg", 1),
          detail: `90 % between ${formatKg(targetLoad.low, "kg", 1)} and ${formatKg(targetLoad.high, "kg", 1)}; profile ${formatKg(profileLoadKg, "kg", 1)}`,
          emphasis: "answer",
        },
      ],
      sources: ["Exact normal update of the profile's line; spreads in docs/sources.md"],
      changes: ["Another warm-up reading, a newer profile, another reading error."],
    },
  };
}

interface Posterior {
  c: number;
  b: number;
  vcc: number;
  vcb: number;
  vbb: number;
  meanX: number;
}

/** The loads whose posterior velocity cannot be told from v at 90 %: Fieller's set. */
function loadFor(posterior: Posterior, v: number): Interval | undefined {
  const { c, b, vcc, vcb, vbb, meanX } = posterior;
  if (b >= 0) return undefined;
  const z2 = Z90 * Z90;
  // (c + b x − v)² ≤ z² (vcc + 2 x vcb + x² vbb), x = L − L̄.
  const qa = b * b - z2 * vbb;
  const qb = 2 * (b * (c - v) - z2 * vcb);
  const qc = (c - v) ** 2 - z2 * vcc;
  const root = qb * qb - 4 * qa * qc;
  if (qa <= 0 || root < 0) return undefined;
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
