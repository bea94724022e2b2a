/**
 * Cubic Hermite between b and c with secant tangents through the neighbours a and d
 * (Catmull–Rom with unequal spacing); a may be b and d may be c at the ends of a run. Each point is
 * a moment (S) and a value (M).
 *
 * @param at between b's moment and c's; beyond them the end's value is held
 */
export function cubicBetween(
  aS: number,
  aM: number,
  bS: number,
  bM: number,
  cS: number,
  cM: number,
  dS: number,
  dM: number,
  at: number,
): number {
  const h = cS - bS;
  const u = Math.min(1, Math.max(0, (at - bS) / h));
  const m0 = (cM - aM) / (cS - aS);
  const m1 = (dM - bM) / (dS - bS);
  const u2 = u * u;
  const u3 = u2 * u;
  return (
    (2 * u3 - 3 * u2 + 1) * bM +
    (u3 - 2 * u2 + u) * h * m0 +
    (-2 * u3 + 3 * u2) * cM +
    (u3 - u2) * h * m1
  );
}
