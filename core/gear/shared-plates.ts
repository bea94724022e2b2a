import type { PlateStock } from "../barload/loading-gear";

export const sameSize = (a: PlateStock, b: PlateStock): boolean =>
  a.mass.amount === b.mass.amount && a.mass.unit === b.mass.unit;

/** Pairs of one size among plates. */
export const pairsOf = (plates: readonly PlateStock[], size: PlateStock): number =>
  plates.find((one) => sameSize(one, size))?.pairs ?? 0;

/**
 * A room's shared plates after a rack's were changed: what comes off the rack goes to them, what is
 * hung on comes from them, so that the room has as many as before.
 *
 * @param before of the rack
 * @param after of the rack
 * @returns the shared plates, or the size of which there are too few
 * @example sharedAfter([{ …, pairs: 2 }], [{ …, pairs: 1 }], []) // { ok: true, shared: [{ …, pairs: 1 }] }
 */
export function sharedAfter(
  before: readonly PlateStock[],
  after: readonly PlateStock[],
  shared: readonly PlateStock[],
): { ok: true; shared: PlateStock[] } | { ok: false; lacks: PlateStock } {
  const sizes = [...shared];
  for (const one of [...before, ...after])
    if (!sizes.some((size) => sameSize(size, one))) sizes.push({ ...one, pairs: 0 });
  const left = sizes.map((size) => ({
    ...size,
    pairs: size.pairs + pairsOf(before, size) - pairsOf(after, size),
  }));
  const lacks = left.find((one) => one.pairs < 0);
  if (lacks) return { ok: false, lacks };
  return { ok: true, shared: left.filter((one) => one.pairs > 0 || pairsOf(shared, one) > 0) };
}
