import { median } from "./statistics";

export interface EvenRun {
  /** Time of the first sample, s. */
  startS: number;
  rateHz: number;
  values: Float64Array;
}

export const LONGEST_GAP_S = 0.1;
export const LONGEST_GAP_INTERVALS = 2.5;

/**
 * Even steps of the median interval, split where a gap is longer than 100 ms or 2.5 intervals,
 * whichever is longer (at 25 Hz one interval is 40 ms, so 2.5 intervals is just 100 ms).
 * Between samples a cubic through four neighbours (Catmull–Rom with unequal spacing) keeps the
 * curvature a straight line would cut off.
 *
 * @param timesS seconds, must not go back; equal times are dropped
 * @returns runs of at least eight samples, each evenly spaced
 */
export function resampleEvenly(timesS: ArrayLike<number>, values: ArrayLike<number>): EvenRun[] {
  const t: number[] = [];
  const y: number[] = [];
  for (let i = 0; i < timesS.length; i++) {
    const time = timesS[i] as number;
    const value = values[i] as number;
    if (!Number.isFinite(time) || !Number.isFinite(value)) continue;
    if (t.length > 0 && time <= (t[t.length - 1] as number)) continue;
    t.push(time);
    y.push(value);
  }
  if (t.length < 2) return [];
  const steps: number[] = [];
  for (let i = 1; i < t.length; i++) steps.push((t[i] as number) - (t[i - 1] as number));
  const step = median(steps) as number;
  const longest = Math.max(LONGEST_GAP_S, LONGEST_GAP_INTERVALS * step) + 1e-9;

  const runs: EvenRun[] = [];
  let from = 0;
  for (let i = 1; i <= t.length; i++) {
    const broken = i === t.length || (t[i] as number) - (t[i - 1] as number) > longest;
    if (!broken) continue;
    if (i - from >= 8) runs.push(evenRun(t, y, from, i, step));
    from = i;
  }
  return runs;
}

function evenRun(t: number[], y: number[], from: number, to: number, step: number): EvenRun {
  const start = t[from] as number;
  const end = t[to - 1] as number;
  const count = Math.floor((end - start) / step + 1e-6) + 1;
  const out = new Float64Array(count);
  let k = from;
  for (let i = 0; i < count; i++) {
    const at = start + i * step;
    while (k < to - 2 && (t[k + 1] as number) <= at) k++;
    out[i] = cubicBetween(t, y, k, from, to, at);
  }
  return { startS: start, rateHz: 1 / step, values: out };
}

/** Cubic Hermite on [t[k], t[k+1]] with secant tangents through the neighbours. */
function cubicBetween(
  t: number[],
  y: number[],
  k: number,
  from: number,
  to: number,
  at: number,
): number {
  const t0 = t[k] as number;
  const t1 = t[k + 1] as number;
  const y0 = y[k] as number;
  const y1 = y[k + 1] as number;
  const h = t1 - t0;
  const u = Math.min(1, Math.max(0, (at - t0) / h));
  const before = Math.max(from, k - 1);
  const after = Math.min(to - 1, k + 2);
  const m0 = (y1 - (y[before] as number)) / (t1 - (t[before] as number));
  const m1 = ((y[after] as number) - y0) / ((t[after] as number) - t0);
  const u2 = u * u;
  const u3 = u2 * u;
  return (
    (2 * u3 - 3 * u2 + 1) * y0 +
    (u3 - 2 * u2 + u) * h * m0 +
    (-2 * u3 + 3 * u2) * y1 +
    (u3 - u2) * h * m1
  );
}
