import { grains, type Mass } from "../units/mass";

/** How a rack stands for one set of one lifter. */
export interface Setting {
  /** Plates of a side from the inside out, in grains; undefined where no load is planned. */
  side: readonly number[] | undefined;
  /** cm; undefined where nobody knows, which costs nothing. */
  hooksCm: number | undefined;
  safetiesCm: number | undefined;
  /** The seat of a box squat; undefined without one. */
  seat: { base: string; pinCm: number; mats: Readonly<Record<string, number>> } | undefined;
  /** Bands and chains, pieces a side by name. */
  hangs: Readonly<Record<string, number>>;
}

/** What is done to a rack between two sets. */
export interface Moves {
  /** Plates put on or off, both sides. */
  plates: number;
  /** Hooks set to another hole: both at once are one change. */
  hooks: number;
  /** Safeties, and the pin of a box, likewise. */
  pins: number;
  /** Mats put on or off a seat. */
  mats: number;
  /** Boxes exchanged. */
  boxes: number;
  /** Bands and chains put on or off, both sides. */
  bands: number;
}

export const MOVE_KINDS = ["plates", "hooks", "pins", "mats", "boxes", "bands"] as const;
export type MoveKind = (typeof MOVE_KINDS)[number];

export const NO_MOVES: Moves = { plates: 0, hooks: 0, pins: 0, mats: 0, boxes: 0, bands: 0 };

/** What a move of each kind costs, in one unit for all: seconds, or points. */
export type MoveWeights = Readonly<Record<MoveKind, number>>;

/**
 * Usual seconds of one person for each move; a team sets its own. A plate is one of one side.
 */
export const MOVE_SECONDS: MoveWeights = {
  plates: 3,
  hooks: 8,
  pins: 8,
  mats: 5,
  boxes: 15,
  bands: 10,
};

export const grainsOfSide = (side: readonly Mass[]): number[] => side.map(grains);

/** Plates that stay on when one side becomes another: those alike from the inside. */
function alike(from: readonly number[], to: readonly number[]): number {
  let n = 0;
  while (n < from.length && n < to.length && from[n] === to[n]) n++;
  return n;
}

function differences(
  from: Readonly<Record<string, number>>,
  to: Readonly<Record<string, number>>,
): number {
  let sum = 0;
  for (const name in from) sum += Math.abs((from[name] ?? 0) - (to[name] ?? 0));
  for (const name in to) if (from[name] === undefined) sum += to[name] ?? 0;
  return sum;
}

const differ = (from: number | undefined, to: number | undefined): number =>
  from !== undefined && to !== undefined && from !== to ? 1 : 0;

/** What is done to a rack that stands in one way so that it stands in another. */
export function movesBetween(from: Setting, to: Setting): Moves {
  const plates =
    from.side && to.side ? from.side.length + to.side.length - 2 * alike(from.side, to.side) : 0;
  const sameBase =
    from.seat === undefined || to.seat === undefined || from.seat.base === to.seat.base;
  return {
    plates: 2 * plates,
    hooks: differ(from.hooksCm, to.hooksCm),
    pins:
      differ(from.safetiesCm, to.safetiesCm) +
      (sameBase ? differ(from.seat?.pinCm, to.seat?.pinCm) : 0),
    mats: from.seat && to.seat ? differences(from.seat.mats, to.seat.mats) : 0,
    boxes: sameBase ? 0 : 1,
    bands: 2 * differences(from.hangs, to.hangs),
  };
}

export function addMoves(a: Moves, b: Moves): Moves {
  return {
    plates: a.plates + b.plates,
    hooks: a.hooks + b.hooks,
    pins: a.pins + b.pins,
    mats: a.mats + b.mats,
    boxes: a.boxes + b.boxes,
    bands: a.bands + b.bands,
  };
}

/** The moves' cost in the unit of the weights. */
export function costOf(moves: Moves, weights: MoveWeights): number {
  return (
    moves.plates * weights.plates +
    moves.hooks * weights.hooks +
    moves.pins * weights.pins +
    moves.mats * weights.mats +
    moves.boxes * weights.boxes +
    moves.bands * weights.bands
  );
}
