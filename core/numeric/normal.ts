/** Standard normal deviate with 90 % inside ± it, and 95 % below it. */
export const Z90 = 1.6448536269514722;

/**
 * P(Z ≤ z) of a standard normal, good to about 1e-14: the series near the middle (Marsaglia 2004),
 * the continued fraction of Mills' ratio in the tails. Equals R's `pnorm`. NaN is taken as 0: half.
 */
export function normalCdf(z: number): number {
  if (Number.isNaN(z)) return 0.5;
  const x = Math.abs(z);
  if (x > 38) return z > 0 ? 1 : 0;
  const density = Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI);
  let below: number;
  if (x < 5) {
    let term = x;
    let sum = x;
    for (let k = 3; k < 400 && term > 1e-17 * sum; k += 2) {
      term *= (x * x) / k;
      sum += term;
    }
    below = 0.5 + sum * density;
  } else {
    let fraction = x;
    for (let k = 60; k > 0; k--) fraction = x + k / fraction;
    below = 1 - density / fraction;
    // The tail itself, not one less what is next to one.
    if (z < 0) return density / fraction;
  }
  return z >= 0 ? below : 1 - below;
}

/** The z with P(Z ≤ z) = p, for p from 1e-300 to 1 − 1e-16: bisection on the distribution. */
export function normalQuantile(p: number): number {
  let low = -38;
  let high = 38;
  for (let i = 0; i < 120 && high - low > 1e-14; i++) {
    const middle = (low + high) / 2;
    if (normalCdf(middle) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
