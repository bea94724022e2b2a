/** Ordinary least squares of y on x, one predictor. */
export interface LineFit {
  ok: true;
  n: number;
  intercept: number;
  slope: number;
  /** Coefficient of determination, 0–1. */
  rSquared: number;
  /** Residual standard error on n − 2 degrees of freedom; undefined for n = 2 (no freedom left). */
  see: number | undefined;
  meanX: number;
  /** Σ(x − x̄)², for intervals. */
  sxx: number;
  minX: number;
  maxX: number;
}

export interface LineRefusal {
  ok: false;
  reason: "under-two-points" | "one-x" | "not-finite";
}

/**
 * Fits y = intercept + slope·x. Sums are taken about the means, which keeps full precision for
 * loads far from zero. Equals R's `lm(y ~ x)`.
 */
export function fitLine(points: ReadonlyArray<{ x: number; y: number }>): LineFit | LineRefusal {
  const n = points.length;
  if (n < 2) return { ok: false, reason: "under-two-points" };
  let meanX = 0;
  let meanY = 0;
  let minX = Number.POSITIVE_INFINITY;
  let maxX = Number.NEGATIVE_INFINITY;
  for (const { x, y } of points) {
    if (!Number.isFinite(x) || !Number.isFinite(y)) return { ok: false, reason: "not-finite" };
    meanX += x / n;
    meanY += y / n;
    minX = Math.min(minX, x);
    maxX = Math.max(maxX, x);
  }
  if (minX === maxX) return { ok: false, reason: "one-x" };
  let sxx = 0;
  let sxy = 0;
  let syy = 0;
  for (const { x, y } of points) {
    sxx += (x - meanX) ** 2;
    sxy += (x - meanX) * (y - meanY);
    syy += (y - meanY) ** 2;
  }
  const slope = sxy / sxx;
  const intercept = meanY - slope * meanX;
  let residual = 0;
  for (const { x, y } of points) residual += (y - intercept - slope * x) ** 2;
  const rSquared = syy === 0 ? 1 : 1 - residual / syy;
  if (![intercept, slope, residual, sxx, rSquared].every(Number.isFinite)) {
    return { ok: false, reason: "not-finite" };
  }
  return {
    ok: true,
    n,
    intercept,
    slope,
    rSquared,
    see: n > 2 ? Math.sqrt(residual / (n - 2)) : undefined,
    meanX,
    sxx,
    minX,
    maxX,
  };
}
