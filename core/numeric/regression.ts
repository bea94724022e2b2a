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
  let sumX = 0;
  let sumY = 0;
  let minX = Number.POSITIVE_INFINITY;
  let maxX = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < n; i++) {
    const { x, y } = points[i] as { x: number; y: number };
    sumX += x;
    sumY += y;
    if (x < minX) minX = x;
    if (x > maxX) maxX = x;
  }
  // One that is no number makes the sum none.
  if (!Number.isFinite(sumX) || !Number.isFinite(sumY)) return { ok: false, reason: "not-finite" };
  if (minX === maxX) return { ok: false, reason: "one-x" };
  const meanX = sumX / n;
  const meanY = sumY / n;
  let sxx = 0;
  let sxy = 0;
  let syy = 0;
  for (let i = 0; i < n; i++) {
    const { x, y } = points[i] as { x: number; y: number };
    const dx = x - meanX;
    const dy = y - meanY;
    sxx += dx * dx;
    sxy += dx * dy;
    syy += dy * dy;
  }
  const slope = sxy / sxx;
  const intercept = meanY - slope * meanX;
  let residual = 0;
  for (let i = 0; i < n; i++) {
    const { x, y } = points[i] as { x: number; y: number };
    const off = y - intercept - slope * x;
    residual += off * off;
  }
  const rSquared = syy === 0 ? 1 : 1 - residual / syy;
  // A sum of finite ones and one that is not is none.
  if (!Number.isFinite(intercept + slope + residual + sxx + rSquared)) {
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
