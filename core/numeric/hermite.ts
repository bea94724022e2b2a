/** A monotone cubic through measured points: piecewise Hermite with limited tangents. */
export interface HermiteCurve {
  xs: readonly number[];
  ys: readonly number[];
  tangents: readonly number[];
}

/**
 * Cubic Hermite interpolation with Fritsch–Carlson tangents: inner tangents are the mean of the
 * neighbouring secants, end tangents the end secants; each pair is then limited to the circle of
 * radius 3, which keeps a monotone curve monotone (Fritsch & Carlson 1980).
 * @param points at least two, strictly rising x
 */
export function hermiteCurve(
  points: ReadonlyArray<{ x: number; y: number }>,
): HermiteCurve | { ok: false; reason: "under-two-points" | "x-not-rising" | "not-finite" } {
  if (points.length < 2) return { ok: false, reason: "under-two-points" };
  const xs = points.map((point) => point.x);
  const ys = points.map((point) => point.y);
  const secants: number[] = [];
  for (let i = 0; i + 1 < xs.length; i++) {
    const step = (xs[i + 1] as number) - (xs[i] as number);
    if (!(step > 0)) return { ok: false, reason: "x-not-rising" };
    secants.push(((ys[i + 1] as number) - (ys[i] as number)) / step);
  }
  const last = secants.length - 1;
  const tangents = xs.map((_, i) => {
    if (i === 0) return secants[0] as number;
    if (i === xs.length - 1) return secants[last] as number;
    const [before, after] = [secants[i - 1] as number, secants[i] as number];
    // A turn of direction is a level point.
    return before * after <= 0 ? 0 : (before + after) / 2;
  });
  secants.forEach((secant, i) => {
    if (secant === 0) {
      tangents[i] = 0;
      tangents[i + 1] = 0;
      return;
    }
    // The circle of radius 3 in tangents over secant, without the division: a secant may be the
    // smallest number there is.
    const [left, right] = [tangents[i] as number, tangents[i + 1] as number];
    const radius = Math.hypot(left, right);
    const most = 3 * Math.abs(secant);
    if (radius > most) {
      tangents[i] = (left / radius) * most;
      tangents[i + 1] = (right / radius) * most;
    }
  });
  return [...xs, ...ys, ...tangents].every(Number.isFinite)
    ? { xs, ys, tangents }
    : { ok: false, reason: "not-finite" };
}

/** The curve at x; beyond its ends it goes on straight with the end's tangent. */
export function hermiteAt(curve: HermiteCurve, x: number): number {
  const { xs, ys, tangents } = curve;
  const end = xs.length - 1;
  const [firstX, lastX] = [xs[0] as number, xs[end] as number];
  if (x <= firstX) return (ys[0] as number) + (tangents[0] as number) * (x - firstX);
  if (x >= lastX) return (ys[end] as number) + (tangents[end] as number) * (x - lastX);
  let i = 0;
  while ((xs[i + 1] as number) < x) i++;
  const width = (xs[i + 1] as number) - (xs[i] as number);
  const t = (x - (xs[i] as number)) / width;
  const u = 1 - t;
  return (
    (ys[i] as number) * (1 + 2 * t) * u * u +
    (tangents[i] as number) * width * t * u * u +
    (ys[i + 1] as number) * t * t * (3 - 2 * t) -
    (tangents[i + 1] as number) * width * t * t * u
  );
}
