import { type HermiteCurve, hermiteAt, hermiteCurve } from "../numeric/hermite";
import type { Working } from "../units/working";
import { written } from "../units/written";

/** Bar heights of an athlete at a lift, m: at the bottom and at lockout. */
export interface BarHeights {
  bottomM: number;
  lockoutM: number;
  /** Measured on the athlete, or estimated from stature and marked so. */
  measured: boolean;
}

/** A chain on a leader that lets it touch the floor at bar height `touchM`. */
export interface Chain {
  kind: "chain";
  name: string;
  /** Linear density, kg/m, and length, m. */
  densityKgPerM: number;
  lengthM: number;
  /** Bar height at which the chain's end just touches the floor, m. */
  touchM: number;
  /** Hung from its middle: two strands of half the length. */
  folded: boolean;
}

/** A hanging-scale reading: length from anchor to bar, m, and what the scale shows, kg. */
export interface Reading {
  lengthM: number;
  tensionKg: number;
}

export interface Band {
  kind: "band";
  name: string;
  restM: number;
  readings: readonly Reading[];
  /** Doubled over: two strands, each twice the anchor's distance long. */
  folded: boolean;
  /** Height of the anchor, m; lengths run from it to the bar. */
  anchorM: number;
}

/** What hangs on the bar, and on how many sides: both is the rule. */
export interface Resistance {
  what: Chain | Band;
  /** Pieces on each side. */
  perSide: number;
}

export type BandRefusal =
  | "under-two-readings"
  | "length-not-rising"
  | "tension-not-rising"
  | "not-metres"
  | "negative"
  | "not-finite";

/** A band longer than this was not measured in metres, m. */
export const LONGEST_BAND_M = 4;

export type BandCurve = { ok: true; curve: HermiteCurve } | { ok: false; reason: BandRefusal };

/**
 * The tension curve of a band from its hanging-scale readings. A shop's label is no measurement:
 * without two readings there is no curve.
 */
export function bandCurve(band: Pick<Band, "readings" | "restM">): BandCurve {
  const readings = [...band.readings].sort((a, b) => a.lengthM - b.lengthM);
  if (readings.length < 2) return { ok: false, reason: "under-two-readings" };
  for (const one of readings) {
    if (!Number.isFinite(one.lengthM) || !Number.isFinite(one.tensionKg)) {
      return { ok: false, reason: "not-finite" };
    }
    if (!(one.lengthM > 0) || !(one.tensionKg >= 0)) return { ok: false, reason: "negative" };
    if (one.lengthM > LONGEST_BAND_M) return { ok: false, reason: "not-metres" };
  }
  for (let i = 1; i < readings.length; i++) {
    const [a, b] = [readings[i - 1] as Reading, readings[i] as Reading];
    if (a.lengthM === b.lengthM) return { ok: false, reason: "length-not-rising" };
    // A scale may read the same at two lengths near each other.
    if (b.tensionKg < a.tensionKg) return { ok: false, reason: "tension-not-rising" };
  }
  const curve = hermiteCurve(readings.map((one) => ({ x: one.lengthM, y: one.tensionKg })));
  if (!("ok" in curve)) return { ok: true, curve };
  return { ok: false, reason: curve.reason === "not-finite" ? "not-finite" : "length-not-rising" };
}

export const BAND_WORDS: Record<BandRefusal, string> = {
  "under-two-readings":
    "Hang the band from a scale at two lengths or more. A label gives a range, not a tension.",
  "length-not-rising": "Two readings stand at the same length. Measure another length.",
  "tension-not-rising":
    "A longer stretch shows less tension. Check the readings: a band pulls harder the longer it is.",
  "not-metres": `A band over ${LONGEST_BAND_M} m: was it measured in centimetres or feet?`,
  "not-finite": "A number of this piece is missing or is none. Measure it again.",
  negative: "Lengths are over 0 and tensions not under it.",
};

const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value));

/**
 * Mass that one chain puts on the bar at a height, kg: density × the length that hangs free,
 * λ·clamp(h − ℓ, 0, L); folded 2λ·clamp(h − ℓ, 0, L/2).
 */
export function chainKgAt(chain: Chain, heightM: number): number {
  const raised = heightM - chain.touchM;
  return chain.folded
    ? 2 * chain.densityKgPerM * clamp(raised, 0, chain.lengthM / 2)
    : chain.densityKgPerM * clamp(raised, 0, chain.lengthM);
}

/** Pull of one band at a bar height, kg of force: 0 under its rest length; folded 2·T(2d). */
export function bandKgAt(band: Band, curve: HermiteCurve, heightM: number): number {
  const distance = heightM - band.anchorM;
  const length = band.folded ? 2 * distance : distance;
  if (length <= band.restM) return 0;
  const tension = Math.max(0, hermiteAt(curve, length));
  return band.folded ? 2 * tension : tension;
}

export interface ResistanceCurve {
  /** Both sides together, kg, by bar height. */
  at: (heightM: number) => number;
  bottomKg: number;
  lockoutKg: number;
  /** Mean over the range, by displacement. */
  meanKg: number;
  /** Lengths outside a band's readings were used. */
  extrapolated: boolean;
  /** Bar heights where a piece begins or ends to count: between them every piece is a cubic. */
  knots: number[];
}

export type CurveResult =
  | { ok: true; curve: ResistanceCurve }
  | { ok: false; reason: BandRefusal | "no-range" | "too-large"; name: string };

/** No bar goes higher, m. */
const HIGHEST_M = 4;
/** Pieces that hang on a bar at the most. */
export const MOST_PIECES = 200;

/**
 * What bands and chains add over the range of a lift, both sides together. The mean is the
 * integral over displacement, exact: two Gauss points between the knots of a piecewise cubic (they
 * lie inside, so that a band that snaps tight does no harm at a knot).
 */
export function resistanceCurve(
  pieces: readonly Resistance[],
  heights: Pick<BarHeights, "bottomM" | "lockoutM">,
): CurveResult {
  const { bottomM, lockoutM } = heights;
  if (!(lockoutM > bottomM) || bottomM < 0 || !(lockoutM <= HIGHEST_M)) {
    return { ok: false, reason: "no-range", name: "" };
  }
  if (pieces.length > MOST_PIECES) return { ok: false, reason: "too-large", name: "" };
  const parts: Array<(heightM: number) => number> = [];
  const knots = new Set<number>();
  let extrapolated = false;
  for (const { what, perSide } of pieces) {
    if (!(perSide >= 0) || !Number.isFinite(perSide)) {
      return { ok: false, reason: "negative", name: what.name };
    }
    if (what.kind === "chain") {
      const { densityKgPerM, lengthM, touchM } = what;
      if (![densityKgPerM, lengthM, touchM].every(Number.isFinite)) {
        return { ok: false, reason: "not-finite", name: what.name };
      }
      if (densityKgPerM < 0 || lengthM < 0) {
        return { ok: false, reason: "negative", name: what.name };
      }
      parts.push((h) => 2 * perSide * chainKgAt(what, h));
      const reach = what.folded ? what.lengthM / 2 : what.lengthM;
      knots.add(what.touchM).add(what.touchM + reach);
      continue;
    }
    const found = bandCurve(what);
    if (!found.ok) return { ok: false, reason: found.reason, name: what.name };
    if (![what.restM, what.anchorM].every(Number.isFinite) || what.restM < 0) {
      return { ok: false, reason: "not-finite", name: what.name };
    }
    const { curve } = found;
    parts.push((h) => 2 * perSide * bandKgAt(what, curve, h));
    const strands = what.folded ? 2 : 1;
    for (const length of [what.restM, ...curve.xs]) knots.add(what.anchorM + length / strands);
    // Where the straight end of the curve reaches no tension.
    const firstX = curve.xs[0] as number;
    const slope = curve.tangents[0] as number;
    if (slope > 0) knots.add(what.anchorM + (firstX - (curve.ys[0] as number) / slope) / strands);
    const longest = strands * (lockoutM - what.anchorM);
    const shortest = strands * (bottomM - what.anchorM);
    if (
      longest > (curve.xs[curve.xs.length - 1] as number) ||
      (shortest > what.restM && shortest < firstX)
    ) {
      extrapolated = true;
    }
  }
  const at = (heightM: number) => parts.reduce((sum, part) => sum + part(heightM), 0);
  const inside = [...knots].filter((h) => h > bottomM && h < lockoutM);
  const ends = [bottomM, ...inside, lockoutM].sort((a, b) => a - b);
  let area = 0;
  for (let i = 0; i + 1 < ends.length; i++) {
    const [a, b] = [ends[i] as number, ends[i + 1] as number];
    const [middle, half] = [(a + b) / 2, (b - a) / 2];
    const off = half / Math.sqrt(3);
    area += half * (at(middle - off) + at(middle + off));
  }
  if (![area, at(bottomM), at(lockoutM)].every(Number.isFinite)) {
    return { ok: false, reason: "not-finite", name: pieces[0]?.what.name ?? "" };
  }
  return {
    ok: true,
    curve: {
      at,
      bottomKg: at(bottomM),
      lockoutKg: at(lockoutM),
      meanKg: area / (lockoutM - bottomM),
      extrapolated,
      knots: ends,
    },
  };
}

/** Three ways in which a percentage can count resistance. */
export const CONVENTIONS = ["bar", "lockout", "mean"] as const;
export type Convention = (typeof CONVENTIONS)[number];

export const CONVENTION_NAMES: Record<Convention, string> = {
  bar: "the bar is the percentage, resistance on top",
  lockout: "bar and resistance at lockout are the percentage",
  mean: "bar and mean resistance are the percentage",
};

export interface ConventionTotals {
  convention: Convention;
  barKg: number;
  bottomKg: number;
  lockoutKg: number;
  meanKg: number;
  /** Of the working max. */
  lockoutPercent: number;
  /** Resistance at lockout, share of the whole lockout load. */
  shareAtLockout: number;
}

/** The bar load that a percentage asks for under each convention, before rounding to plates. */
export function byConventions(
  curve: Pick<ResistanceCurve, "bottomKg" | "lockoutKg" | "meanKg">,
  maxKg: number,
  percent: number,
): ConventionTotals[] {
  const target = (maxKg * percent) / 100;
  const bars: Record<Convention, number> = {
    bar: target,
    lockout: target - curve.lockoutKg,
    mean: target - curve.meanKg,
  };
  return CONVENTIONS.map((convention) => {
    const barKg = bars[convention];
    const lockoutKg = barKg + curve.lockoutKg;
    return {
      convention,
      barKg,
      bottomKg: barKg + curve.bottomKg,
      lockoutKg,
      meanKg: barKg + curve.meanKg,
      lockoutPercent: (100 * lockoutKg) / maxKg,
      shareAtLockout: lockoutKg > 0 ? curve.lockoutKg / lockoutKg : Number.POSITIVE_INFINITY,
    };
  });
}

/** What hangs on a bar, both sides together, over its way. */
export const resistanceWorking = (
  pieces: readonly Resistance[],
  curve: ResistanceCurve,
): Working => ({
  title: "Resistance, both sides",
  lines: [
    ...pieces.map((piece) => ({
      label: piece.what.name,
      value: `${piece.perSide} a side, ${2 * piece.perSide} in all`,
    })),
    { label: "At the bottom", value: written(curve.bottomKg, 2) },
    { label: "At lockout", value: written(curve.lockoutKg, 2) },
    {
      label: "Mean over the range",
      value: written(curve.meanKg, 2),
      emphasis: "answer",
    },
  ],
  sources: [
    "Chains: density × length off the floor. Bands: monotone cubic through the scale's readings (Fritsch & Carlson 1980)",
  ],
  changes: ["Measured bar heights, another leader or anchor."],
});

/** The share of the load at lockout that bands and chains make, %. */
export const lockoutShare = (curve: ResistanceCurve, barKg: number): number =>
  (100 * curve.lockoutKg) / (curve.lockoutKg + barKg);
