/**
 * Student's t by the regularised incomplete beta function (continued fraction of Lentz; Press et
 * al., Numerical Recipes), good to about 1e-13. Equals R's `pt` and `qt` (fixture with its script).
 */

/** ln Γ(x), x > 0: Lanczos (g = 7, n = 9). */
function lnGamma(x: number): number {
  const coefficients = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313,
    -176.61502916214059, 12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6,
    1.5056327351493116e-7,
  ];
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - lnGamma(1 - x);
  const shifted = x - 1;
  let sum = coefficients[0] as number;
  for (let i = 1; i < 9; i++) sum += (coefficients[i] as number) / (shifted + i);
  const t = shifted + 7.5;
  return 0.5 * Math.log(2 * Math.PI) + (shifted + 0.5) * Math.log(t) - t + Math.log(sum);
}

function betaFraction(a: number, b: number, x: number): number {
  const tiny = 1e-300;
  let c = 1;
  let d = 1 - ((a + b) * x) / (a + 1);
  d = 1 / (Math.abs(d) < tiny ? tiny : d);
  let h = d;
  for (let m = 1; m <= 500; m++) {
    for (const numerator of [
      (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m)),
      (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1)),
    ]) {
      d = 1 + numerator * d;
      d = 1 / (Math.abs(d) < tiny ? tiny : d);
      c = 1 + numerator / c;
      if (Math.abs(c) < tiny) c = tiny;
      h *= d * c;
    }
    if (Math.abs(d * c - 1) < 1e-16) break;
  }
  return h;
}

/** Regularised incomplete beta I_x(a, b). */
function incompleteBeta(a: number, b: number, x: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const front = Math.exp(
    lnGamma(a + b) - lnGamma(a) - lnGamma(b) + a * Math.log(x) + b * Math.log1p(-x),
  );
  return x < (a + 1) / (a + b + 2)
    ? (front * betaFraction(a, b, x)) / a
    : 1 - (front * betaFraction(b, a, 1 - x)) / b;
}

/** P(T ≤ t) with `freedom` > 0 degrees of freedom. */
export function studentCdf(t: number, freedom: number): number {
  const tail = 0.5 * incompleteBeta(freedom / 2, 0.5, freedom / (freedom + t * t));
  return t > 0 ? 1 - tail : tail;
}

/** Quantiles found before: a handful of levels and freedoms is asked for again and again. */
const found = new Map<number, Map<number, number>>();
const MOST_KEPT = 1000;

/**
 * The t with P(T ≤ t) = p, 0 < p < 1: bisection on the distribution. Each is found once.
 */
export function studentQuantile(p: number, freedom: number): number {
  if (p === 0.5) return 0;
  if (p < 0.5) return -studentQuantile(1 - p, freedom);
  let ofLevel = found.get(p);
  const known = ofLevel?.get(freedom);
  if (known !== undefined) return known;
  if (ofLevel === undefined || ofLevel.size >= MOST_KEPT) {
    if (found.size >= MOST_KEPT) found.clear();
    ofLevel = new Map();
    found.set(p, ofLevel);
  }
  const t = findQuantile(p, freedom);
  ofLevel.set(freedom, t);
  return t;
}

function findQuantile(p: number, freedom: number): number {
  let low = 0;
  let high = 2;
  while (studentCdf(high, freedom) < p && high < 1e12) high *= 2;
  for (let i = 0; i < 200 && high - low > 1e-15 * high; i++) {
    const middle = (low + high) / 2;
    if (studentCdf(middle, freedom) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
