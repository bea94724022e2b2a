/** A moment and a value. */
export type TimedValue = readonly [at: number, value: number];

/**
 * Cubic Hermite between b and c with secant tangents through the neighbours a and d
 * (Catmull–Rom with unequal spacing); a may be b and d may be c at the ends of a run.
 *
 * @param at between b's moment and c's; beyond them the end's value is held
 */
export function cubicBetween(
  a: TimedValue,
  b: TimedValue,
  c: TimedValue,
  d: TimedValue,
  at: number,
): number {
  const h = c[0] - b[0];
  const u = Math.min(1, Math.max(0, (at - b[0]) / h));
  const m0 = (c[1] - a[1]) / (c[0] - a[0]);
  const m1 = (d[1] - b[1]) / (d[0] - b[0]);
  const u2 = u * u;
  const u3 = u2 * u;
  return (
    (2 * u3 - 3 * u2 + 1) * b[1] +
    (u3 - 2 * u2 + u) * h * m0 +
    (-2 * u3 + 3 * u2) * c[1] +
    (u3 - u2) * h * m1
  );
}
