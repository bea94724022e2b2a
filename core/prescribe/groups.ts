import { groupSizesForRest, restFromTurns } from "./turns";

export interface GroupedRack<T> {
  lifters: T[];
  /** Rest that turn-taking gives each, s. */
  restS: number;
}

/**
 * Splits lifters over racks with like loads together, so that the bar changes little from one to
 * the next. Uses as many racks as bring turn-taking into the wanted rest, as far as there are
 * racks; then the sizes differ by at most one.
 * @returns one group a rack used, lightest first; empty without lifters or racks
 */
export function groupByLoad<T extends { loadKg: number | undefined }>(input: {
  lifters: readonly T[];
  racks: number;
  rest: { leastS: number; mostS: number };
  setS: number;
  changeS: number;
}): Array<GroupedRack<T>> {
  const { lifters, racks, rest, setS, changeS } = input;
  if (lifters.length === 0 || racks <= 0) return [];
  const sorted = [...lifters].sort((a, b) => (a.loadKg ?? 0) - (b.loadKg ?? 0));
  const sizes = groupSizesForRest({
    leastRestS: rest.leastS,
    mostRestS: rest.mostS,
    setS,
    changeS,
    largest: sorted.length,
  });
  const wanted = sizes[sizes.length - 1] ?? 4;
  const count = Math.min(racks, Math.max(1, Math.ceil(sorted.length / wanted)));
  const groups: Array<GroupedRack<T>> = [];
  let from = 0;
  for (let i = 0; i < count; i++) {
    const size = Math.floor(sorted.length / count) + (i < sorted.length % count ? 1 : 0);
    groups.push({
      lifters: sorted.slice(from, from + size),
      restS: restFromTurns({ lifters: size, setS, changeS }),
    });
    from += size;
  }
  return groups;
}
