import { type Grains, grainsToKg, kgToGrains, type Mass, massKg, plainNumber } from "../units/mass";
import { loadableTable, type SideLoading } from "./loadable";
import type { LoadingGear, RoundingMode } from "./loading-gear";

export interface BarLoading {
  ok: true;
  askedKg: number;
  totalKg: number;
  totalGrains: Grains;
  side: SideLoading;
  bar: { name: string; mass: Mass };
  /** Neighbouring totals that this room can build, kg. */
  below: number | undefined;
  above: number | undefined;
  mode: RoundingMode;
}

export type LoadRefusal =
  | { ok: false; reason: "not-a-load"; askedKg: number }
  | { ok: false; reason: "under-lightest"; askedKg: number; lightestKg: number; barName: string }
  | {
      ok: false;
      reason: "over-rating";
      askedKg: number;
      ratedKg: number;
      heaviestKg: number;
      barName: string;
    }
  | { ok: false; reason: "over-plates"; askedKg: number; heaviestKg: number; barName: string };

/**
 * The total nearest to what was asked that this bar, its collars and this room's plates can
 * build; a tie goes to the lower. Never a smaller number than the empty bar, never more than the
 * bar holds or the room has.
 * @param askedKg target, kg
 */
export function loadBar(
  gear: LoadingGear,
  askedKg: number,
  mode: RoundingMode = "nearest",
): BarLoading | LoadRefusal {
  if (!Number.isFinite(askedKg) || askedKg <= 0) {
    return { ok: false, reason: "not-a-load", askedKg };
  }
  const table = loadableTable(gear);
  const asked = kgToGrains(askedKg);
  const { totals } = table;
  const lightest = totals[0] as Grains;
  const heaviest = totals[totals.length - 1] as Grains;
  const barName = gear.bar.name;
  if (asked < lightest) {
    const lightestKg = grainsToKg(lightest);
    return { ok: false, reason: "under-lightest", askedKg, lightestKg, barName };
  }
  const ratedKg = massKg(gear.bar.rated);
  const heaviestKg = grainsToKg(heaviest);
  if (asked > kgToGrains(ratedKg)) {
    return { ok: false, reason: "over-rating", askedKg, ratedKg, heaviestKg, barName };
  }
  const index = lastAtMost(totals, asked);
  const low = totals[index] as Grains;
  const high = totals[index + 1];
  if (high === undefined && asked > low) {
    return { ok: false, reason: "over-plates", askedKg, heaviestKg, barName };
  }
  const up = mode === "nearest" && high !== undefined && high - asked < asked - low;
  const chosen = up ? index + 1 : index;
  const total = totals[chosen] as Grains;
  return {
    ok: true,
    askedKg,
    totalKg: grainsToKg(total),
    totalGrains: total,
    side: table.sideFor(total) as SideLoading,
    bar: { name: barName, mass: gear.bar.mass },
    below: chosen > 0 ? grainsToKg(totals[chosen - 1] as Grains) : undefined,
    above: chosen + 1 < totals.length ? grainsToKg(totals[chosen + 1] as Grains) : undefined,
    mode,
  };
}

function lastAtMost(sorted: readonly Grains[], value: Grains): number {
  let low = 0;
  let high = sorted.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((sorted[middle] as Grains) <= value) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** One loadable step up or down from a total, or as many as reach `byKg`. */
export function stepFrom(gear: LoadingGear, totalKg: number, byKg: number): BarLoading | undefined {
  if (!Number.isFinite(totalKg) || !Number.isFinite(byKg) || byKg === 0) return undefined;
  const table = loadableTable(gear);
  const { totals } = table;
  const at = lastAtMost(totals, kgToGrains(totalKg));
  const wanted = kgToGrains(totalKg + byKg);
  let index = lastAtMost(totals, Math.max(wanted, totals[0] as Grains));
  if (byKg > 0 && index <= at) index = at + 1;
  // A step down goes at least as far as asked: the nearest total at or under it, and one step
  // at the least.
  if (byKg < 0 && index >= at) index = at - 1;
  const total = totals[index];
  if (total === undefined || total === totals[at]) return undefined;
  const loading = loadBar(gear, grainsToKg(total));
  return loading.ok ? loading : undefined;
}

export interface PlateChange {
  /** Outermost first: the order in which they come off. */
  off: Mass[];
  /** Innermost first: the order in which they go on. */
  on: Mass[];
  /** Plates moved, both sides. */
  moves: number;
}

/** What to take off and put on, each side, to get from one loading to the next. */
export function plateChange(from: readonly Mass[], to: readonly Mass[]): PlateChange {
  let same = 0;
  while (same < from.length && same < to.length && samePlate(from[same], to[same])) same++;
  const off = from.slice(same).reverse();
  const on = to.slice(same);
  return { off, on, moves: 2 * (off.length + on.length) };
}

function samePlate(a: Mass | undefined, b: Mass | undefined): boolean {
  return a?.amount === b?.amount && a?.unit === b?.unit;
}

/** "25 · 1.25", or "empty bar". */
export function describeSide(plates: readonly Mass[]): string {
  if (plates.length === 0) return "empty bar";
  return plates
    .map((plate) => plainNumber(plate.amount, 3) + (plate.unit === "lb" ? " lb" : ""))
    .join(" · ");
}
