import { type Grains, grains, type Mass } from "../units/mass";
import type { LoadingGear } from "./loading-gear";

/** Plates on one side, from the inside out. */
export interface SideLoading {
  plates: Mass[];
  /** Exact sum of one side's plates. */
  sideGrains: Grains;
}

export interface LoadableTable {
  /** Bar and two collars, exact. */
  emptyGrains: Grains;
  /** Every total up to the bar's rating that the plates can build, ascending. */
  totals: Grains[];
  /** Plates a side for a total in `totals`: fewest plates, heaviest inside. */
  sideFor(total: Grains): SideLoading | undefined;
}

interface PlateKind {
  mass: Mass;
  each: Grains;
  pairs: number;
  thicknessMm: number;
}

const tables = new WeakMap<LoadingGear, LoadableTable>();
/** The same by what the gear is: a room is read anew for every page, and changes once a year. */
const byContent = new Map<string, LoadableTable>();
const MOST_KEPT = 200;

/**
 * All totals that this gear can build, in exact whole numbers. Each plate kind is used at most
 * as often as there are pairs; sleeves and the bar's rating limit the rest.
 */
export function loadableTable(gear: LoadingGear): LoadableTable {
  const known = tables.get(gear);
  if (known) return known;
  const key = JSON.stringify([gear.bar, gear.collar, gear.plates]);
  const table = byContent.get(key) ?? buildTable(gear);
  if (byContent.size >= MOST_KEPT) byContent.clear();
  byContent.set(key, table);
  tables.set(gear, table);
  return table;
}

function buildTable(gear: LoadingGear): LoadableTable {
  const kinds: PlateKind[] = gear.plates
    .filter((stock) => stock.pairs > 0 && stock.mass.amount > 0)
    .map((stock) => ({
      mass: stock.mass,
      each: grains(stock.mass),
      pairs: stock.pairs,
      thicknessMm: stock.thicknessMm,
    }))
    .sort((a, b) => b.each - a.each);
  const emptyGrains = grains(gear.bar.mass) + 2 * grains(gear.collar);
  const largestSide = Math.floor((grains(gear.bar.rated) - emptyGrains) / 2);

  // sum of one side → counts by kind; heavier kinds first, and of two ways to a sum the one
  // with fewer plates (then the heavier inside) stays.
  let ways = new Map<Grains, Way>([[0, { counts: [], plates: 0, lengthMm: 0 }]]);
  for (const kind of kinds) {
    const next = new Map<Grains, Way>();
    for (const [sum, way] of ways) {
      for (let count = 0; count <= kind.pairs; count++) {
        const total = sum + count * kind.each;
        const lengthMm = way.lengthMm + count * kind.thicknessMm;
        if (total > largestSide || lengthMm > gear.bar.sleeveMm) break;
        const found = { counts: [...way.counts, count], plates: way.plates + count, lengthMm };
        const other = next.get(total);
        if (other === undefined || better(found, other)) next.set(total, found);
      }
    }
    ways = next;
  }
  const totals = [...ways.keys()]
    .map((side) => emptyGrains + 2 * side)
    .filter((total) => total <= grains(gear.bar.rated))
    .sort((a, b) => a - b);

  const sides = new Map<Grains, SideLoading>();
  return {
    emptyGrains,
    totals,
    sideFor(total) {
      const known = sides.get(total);
      if (known) return known;
      const sideGrains = (total - emptyGrains) / 2;
      const way = ways.get(sideGrains);
      if (way === undefined) return undefined;
      const plates = way.counts.flatMap((count, i) =>
        Array.from({ length: count }, () => (kinds[i] as PlateKind).mass),
      );
      const side = { plates, sideGrains };
      sides.set(total, side);
      return side;
    },
  };
}

interface Way {
  counts: number[];
  plates: number;
  lengthMm: number;
}

function better(a: Way, b: Way): boolean {
  if (a.plates !== b.plates) return a.plates < b.plates;
  for (let i = 0; i < a.counts.length; i++) {
    const difference = (a.counts[i] as number) - (b.counts[i] as number);
    if (difference !== 0) return difference > 0;
  }
  return false;
}
