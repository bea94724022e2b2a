/** Sums and spreads. Where there is no answer, or none that is finite, it is undefined. */

const ifFinite = (value: number) => (Number.isFinite(value) ? value : undefined);

export function mean(values: readonly number[]): number | undefined {
  if (values.length === 0) return undefined;
  let sum = 0;
  for (const value of values) sum += value;
  return ifFinite(sum / values.length);
}

/** Sample standard deviation (n − 1); undefined under two values. */
export function standardDeviation(values: readonly number[]): number | undefined {
  const centre = mean(values);
  if (centre === undefined || values.length < 2) return undefined;
  let sum = 0;
  for (const value of values) sum += (value - centre) ** 2;
  return ifFinite(Math.sqrt(sum / (values.length - 1)));
}

/**
 * Quantile by linear interpolation between order statistics (R's type 7, numpy's default).
 * `share` is 0–1.
 */
export function quantile(values: readonly number[], share: number): number | undefined {
  if (values.length === 0 || !(share >= 0 && share <= 1)) return undefined;
  const sorted = [...values].sort((a, b) => a - b);
  const at = (sorted.length - 1) * share;
  const below = Math.floor(at);
  const low = sorted[below] as number;
  const high = sorted[Math.min(below + 1, sorted.length - 1)] as number;
  return ifFinite(low + (high - low) * (at - below));
}

export function median(values: readonly number[]): number | undefined {
  return quantile(values, 0.5);
}
