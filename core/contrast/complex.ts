import type { Lift } from "../profile/threshold";
import type { LoadBasis } from "../recipe/basis";
import type { Output } from "./outputs";

/**
 * A complex: items done one after the other with a gap between them, again for some rounds.
 * DOMAIN 10. Gaps within a round may be short (complex) or minutes (potentiation).
 */
export const ITEM_KINDS = ["lift", "jump", "throw", "sprint"] as const;
export type ItemKind = (typeof ITEM_KINDS)[number];
export const ITEM_KIND_NAMES: Record<ItemKind, string> = {
  lift: "lift",
  jump: "jump",
  throw: "throw",
  sprint: "sprint",
};

/** How an item's load is set; `none` for body weight alone. */
export type ItemLoad = LoadBasis | { by: "none" };

export interface ComplexItem {
  id: string;
  name: string;
  kind: ItemKind;
  /** Movement pattern, as an exercise's; items of a pairing share it or say why not. */
  pattern: string;
  reps: number;
  load: ItemLoad;
  /** The lift whose max or peak power a share is of; a share without it is refused. */
  of?: Lift;
  /** Rest to the next item of the round, s; of the last item it counts for nothing. */
  gapS: number;
  output: Output;
  /** Done left and right: reps are a side. */
  sides: boolean;
  /** Its load is found by raising it from round to round while output rises. */
  seek?: boolean;
}

export const COMPLEX_AIMS = ["complex", "potentiation"] as const;
export type ComplexAim = (typeof COMPLEX_AIMS)[number];
export const COMPLEX_AIM_NAMES: Record<ComplexAim, string> = {
  complex: "dense: gaps of seconds",
  potentiation: "potentiation: gaps of minutes",
};

export interface Complex {
  name: string;
  aim: ComplexAim;
  /** The school it comes from, shown with its warnings. */
  school: string;
  /** What it is for, in one sentence. */
  purpose: string;
  items: ComplexItem[];
  rounds: number;
  restS: number;
  /** A reason where its items do not share a pattern. */
  patternReason: string;
  /** Which way the light item's load goes over a block. */
  direction: Direction;
  /** Points (of its own basis) a week that the light item moves. */
  weekStep: number;
  /** Stands before the main heavy work of its day. */
  beforeMain: boolean;
}

export const DIRECTIONS = ["load", "speed", "hold"] as const;
export type Direction = (typeof DIRECTIONS)[number];
export const DIRECTION_NAMES: Record<Direction, string> = {
  load: "up over the block, for load",
  speed: "down over the block, for speed",
  hold: "the same all block",
};

/** Seconds of work taken for a rep, a jump, a throw; a sprint's reps are metres. */
const WORK_S: Record<ItemKind, number> = { lift: 3, jump: 3, throw: 4, sprint: 0.25 };

/** Work of one item, s: an estimate for drawing and for the length. */
export function itemWorkS(item: Pick<ComplexItem, "kind" | "reps" | "sides">): number {
  return Math.max(1, Math.round(WORK_S[item.kind] * item.reps * (item.sides ? 2 : 1)));
}

export interface ComplexTotals {
  /** Reps of each item over all rounds; both sides counted. */
  reps: Array<{ id: string; name: string; reps: number }>;
  totalReps: number;
  workS: number;
  /** Gaps and rests with the rest after the last round, and without. */
  restS: number;
  restWithoutLastS: number;
  lengthS: number;
}

export function complexTotals(complex: Complex): ComplexTotals {
  const { items, rounds } = complex;
  const reps = items.map((item) => ({
    id: item.id,
    name: item.name,
    reps: item.reps * (item.sides ? 2 : 1) * rounds,
  }));
  const gaps = items.slice(0, -1).reduce((sum, item) => sum + item.gapS, 0);
  const workS = rounds * items.reduce((sum, item) => sum + itemWorkS(item), 0);
  const restS = rounds * (gaps + complex.restS);
  const restWithoutLastS = rounds === 0 ? 0 : restS - complex.restS;
  return {
    reps,
    // A sprint's metres are no reps.
    totalReps: reps
      .filter((_, i) => items[i]?.kind !== "sprint")
      .reduce((sum, one) => sum + one.reps, 0),
    workS,
    restS,
    restWithoutLastS,
    lengthS: workS + restWithoutLastS,
  };
}

export interface StaveBlock {
  round: number;
  item: number;
  startS: number;
  lengthS: number;
}

/** Every item of every round on the clock, s from the first start. */
export function complexStave(complex: Complex): StaveBlock[] {
  const blocks: StaveBlock[] = [];
  let at = 0;
  for (let round = 1; round <= complex.rounds; round++) {
    complex.items.forEach((item, i) => {
      const lengthS = itemWorkS(item);
      blocks.push({ round, item: i, startS: at, lengthS });
      at += lengthS + (i === complex.items.length - 1 ? complex.restS : item.gapS);
    });
  }
  return blocks;
}
