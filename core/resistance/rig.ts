import { plainNumber } from "../units/mass";
import {
  type BarHeights,
  type Convention,
  type Resistance,
  type ResistanceCurve,
  resistanceCurve,
} from "./setup";

/** What one rack can hang on its bar: pieces of the room, and what holds its bands. */
export interface HangStock {
  /** Each piece, and how many a side there are. */
  pieces: ReadonlyArray<{ what: Resistance["what"]; perSide: number }>;
  /**
   * What holds a band on each side, kg: Infinity on a bolted rack whose point nobody rated.
   * Undefined where nobody said: no band is hung there.
   */
  anchorKg: number | undefined;
}

/** A rack without pieces: nothing hangs there. */
export const NOTHING_TO_HANG: HangStock = { pieces: [], anchorKg: undefined };

/** Bands and chains as they hang on one athlete's bar, both sides together. */
export interface Rig {
  pieces: Resistance[];
  bottomKg: number;
  lockoutKg: number;
  meanKg: number;
  /** Bar heights were measured on the athlete; else estimated from stature. */
  heightsMeasured: boolean;
  /** Lengths outside a band's readings were used. */
  extrapolated: boolean;
}

export type RigRefusal =
  | "no-heights"
  | "no-pieces"
  | "no-anchor"
  | "anchor-light"
  | "too-heavy"
  | "not-a-load";

export const RIG_REFUSALS: Record<RigRefusal, string> = {
  "no-heights": "Bands and chains are not worked out: no bar heights. Measure bottom and lockout.",
  "no-pieces": "This room has no bands or chains to hang. Free bar, or another room.",
  "no-anchor":
    "No anchor weight is stated for this rack, so no band is hung. Weigh it, or use a bolted one.",
  "anchor-light":
    "Every band pulls more on a side than this rack's anchor weighs. Weigh it down, or chains.",
  "too-heavy": "Every set-up here leaves less than the empty bar. Hang less, or lift free.",
  "not-a-load": "No load is asked, so nothing is hung.",
};

/** The bar that is left of what is asked, kg, before rounding; may be under 0. */
export function barUnder(
  convention: Convention,
  askedKg: number,
  rig: Pick<Rig, "lockoutKg" | "meanKg">,
): number {
  if (convention === "lockout") return askedKg - rig.lockoutKg;
  return convention === "mean" ? askedKg - rig.meanKg : askedKg;
}

/** Kinds of pieces that are combined, and pieces of a kind a side. */
const MOST_KINDS = 6;
const MOST_A_SIDE = 3;
const MOST_ASKED_KG = 2000;

interface Candidate {
  pieces: Resistance[];
  curve: ResistanceCurve;
}

/** Everything that hangs on a rack for some heights: worked out once for all loads. */
function candidates(stock: HangStock, heights: BarHeights): Candidate[] {
  const found: Candidate[] = [];
  for (const kind of ["band", "chain"] as const) {
    if (kind === "band" && stock.anchorKg === undefined) continue;
    const own = stock.pieces
      .filter((one) => one.what.kind === kind && one.perSide > 0)
      .slice(0, MOST_KINDS);
    const walk = (i: number, pieces: Resistance[]) => {
      const next = own[i];
      if (!next) {
        const curve = pieces.length > 0 ? resistanceCurve(pieces, heights) : undefined;
        if (!curve?.ok || !(curve.curve.lockoutKg > 0)) return;
        // Bands never pull more on a side than what holds them weighs.
        if (kind === "band" && curve.curve.lockoutKg / 2 > (stock.anchorKg ?? 0)) return;
        found.push({ pieces, curve: curve.curve });
        return;
      }
      for (let n = 0; n <= Math.min(MOST_A_SIDE, next.perSide); n++) {
        walk(i + 1, n === 0 ? pieces : [...pieces, { what: next.what, perSide: n }]);
      }
    };
    walk(0, []);
  }
  return found;
}

const kept = new WeakMap<HangStock, Map<string, Candidate[]>>();

function candidatesOnce(stock: HangStock, heights: BarHeights): Candidate[] {
  const byHeights = kept.get(stock) ?? new Map<string, Candidate[]>();
  kept.set(stock, byHeights);
  const key = `${heights.bottomM}/${heights.lockoutM}`;
  const known = byHeights.get(key);
  if (known) return known;
  const found = candidates(stock, heights);
  byHeights.set(key, found);
  return found;
}

/**
 * The set-up of a rack whose share of the lockout load is nearest to what is wanted, for one
 * athlete's bar heights; of equal ones the fewest pieces. The share counts the bar that the
 * convention leaves, and never a bar lighter than the empty one.
 *
 * @param askedKg what the basis asks: of the bar, of the lockout, or of the mean
 * @param wantedPercent share of bands and chains in the load at lockout, %, 0 to 100
 * @param emptyKg the empty bar with its collars
 */
export function chooseRig(input: {
  stock: HangStock;
  heights: BarHeights | undefined;
  convention: Convention;
  askedKg: number;
  wantedPercent: number;
  emptyKg: number;
  /** Of one kind alone. */
  only?: "band" | "chain" | undefined;
}): { ok: true; rig: Rig } | { ok: false; reason: RigRefusal } {
  const { stock, heights, convention, askedKg, wantedPercent, only } = input;
  const isAsked = (one: { what: Resistance["what"] }) =>
    only === undefined || one.what.kind === only;
  if (!(askedKg > 0 && askedKg <= MOST_ASKED_KG && wantedPercent > 0 && wantedPercent <= 100)) {
    return { ok: false, reason: "not-a-load" };
  }
  if (!stock.pieces.some((one) => one.perSide > 0 && isAsked(one)))
    return { ok: false, reason: "no-pieces" };
  if (!heights) return { ok: false, reason: "no-heights" };
  const all = candidatesOnce(stock, heights).filter((one) => one.pieces.every(isAsked));
  if (all.length === 0) {
    const bands =
      only !== "chain" && stock.pieces.some((one) => one.what.kind === "band" && one.perSide > 0);
    if (!bands) return { ok: false, reason: "no-pieces" };
    return { ok: false, reason: stock.anchorKg === undefined ? "no-anchor" : "anchor-light" };
  }
  let best: { candidate: Candidate; off: number; pieces: number } | undefined;
  for (const candidate of all) {
    const { lockoutKg } = candidate.curve;
    const barKg = barUnder(convention, askedKg, candidate.curve);
    if (!(barKg >= input.emptyKg - 1e-9)) continue;
    const off = Math.abs((100 * lockoutKg) / (lockoutKg + barKg) - wantedPercent);
    const pieces = candidate.pieces.reduce((sum, one) => sum + one.perSide, 0);
    if (
      best === undefined ||
      off < best.off - 1e-9 ||
      (off < best.off + 1e-9 && pieces < best.pieces)
    ) {
      best = { candidate, off, pieces };
    }
  }
  if (best === undefined) return { ok: false, reason: "too-heavy" };
  const { pieces, curve } = best.candidate;
  return {
    ok: true,
    rig: {
      pieces,
      bottomKg: curve.bottomKg,
      lockoutKg: curve.lockoutKg,
      meanKg: curve.meanKg,
      heightsMeasured: heights.measured,
      extrapolated: curve.extrapolated,
    },
  };
}

/** What hangs on a side, as it is rigged: "1 × Short band a side, pegs at 0.05 m". */
export function rigWords(rig: Rig): string {
  return rig.pieces
    .map(({ what, perSide }) => {
      const doubled = what.folded ? ", doubled over" : "";
      const where =
        what.kind === "band"
          ? `, peg at ${plainNumber(100 * what.anchorM, 0)} cm`
          : `, leader to ${plainNumber(100 * what.touchM, 0)} cm`;
      return `${perSide} × ${what.name} a side${doubled}${where}`;
    })
    .join(" + ");
}
