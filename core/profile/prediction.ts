import type { LineFit } from "../numeric/regression";
import { studentQuantile } from "../numeric/student-t";

/** Intervals round a least-squares line: velocity at a load, and load at a velocity. */
export interface Interval {
  estimate: number;
  low: number;
  high: number;
}

export type IntervalResult =
  | ({ ok: true; level: number } & Interval)
  /** Two points leave no freedom; a slope that could be level has no load at a velocity. */
  | { ok: false; reason: "no-freedom" | "slope-unclear" | "not-finite" };

/** No load and no speed is beyond this. */
const MOST_ASKED = 1e9;

const isAsked = (value: number, level: number) =>
  Math.abs(value) < MOST_ASKED && level > 0 && level < 1;

/**
 * Velocity at a load with its interval of the mean response, or (with `oneReading`) of one new
 * reading. Equals R's `predict(lm, interval = "confidence" | "prediction")`.
 * @param level 0–1, for example 0.95
 */
export function responseAt(
  fit: LineFit,
  x: number,
  level: number,
  oneReading = false,
): IntervalResult {
  if (fit.see === undefined) return { ok: false, reason: "no-freedom" };
  if (!isAsked(x, level)) return { ok: false, reason: "not-finite" };
  const t = studentQuantile((1 + level) / 2, fit.n - 2);
  const leverage = 1 / fit.n + (x - fit.meanX) ** 2 / fit.sxx;
  const half = t * fit.see * Math.sqrt(leverage + (oneReading ? 1 : 0));
  const estimate = fit.intercept + fit.slope * x;
  return { ok: true, level, estimate, low: estimate - half, high: estimate + half };
}

/**
 * The x at which the line reaches y, with Fieller's interval (Fieller 1954; the loads whose
 * interval of the mean response contains y). With g = t²·SE(slope)²/slope² ≥ 1 the slope could
 * be level and the interval is not bounded: refused.
 */
export function fiellerAt(fit: LineFit, y: number, level: number): IntervalResult {
  return inverseAt(fit, y, level, 0);
}

/**
 * The same wider: every x at which y cannot be told from the line when y itself is uncertain,
 *
 *   (ȳ + b d − y)² ≤ t² (s²/n + s² d²/Sxx + extra),  d = x − x̄.
 *
 * @param extraVariance of y, in its units squared: one reading's error and the threshold's spread
 */
export function inverseAt(
  fit: LineFit,
  y: number,
  level: number,
  extraVariance: number,
): IntervalResult {
  if (fit.see === undefined) return { ok: false, reason: "no-freedom" };
  if (!isAsked(y, level) || !(extraVariance >= 0 && extraVariance < MOST_ASKED)) {
    return { ok: false, reason: "not-finite" };
  }
  const t = studentQuantile((1 + level) / 2, fit.n - 2);
  const slopeVariance = fit.see ** 2 / fit.sxx;
  const g = (t * t * slopeVariance) / fit.slope ** 2;
  if (!(g < 1)) return { ok: false, reason: "slope-unclear" };
  const meanY = fit.intercept + fit.slope * fit.meanX;
  const estimate = (y - fit.intercept) / fit.slope;
  const distance = (y - meanY) / fit.slope;
  const centre = fit.meanX + distance / (1 - g);
  const half =
    (t / Math.abs(fit.slope) / (1 - g)) *
    Math.sqrt(
      (1 - g) * (fit.see ** 2 / fit.n + extraVariance) + (fit.see ** 2 * distance ** 2) / fit.sxx,
    );
  return { ok: true, level, estimate, low: centre - half, high: centre + half };
}
