import type { RoundingMode } from "../barload/loading-gear";
import { type HandKind, type HandWeight, loadHand } from "../gear/hand";
import { BASIS_REFUSALS, type BasisFacts, type BasisKind, basisLoad } from "../recipe/basis";
import type { WaveSet } from "../recipe/recipe";
import type { MassUnit } from "../units/mass";
import { type Block, exerciseIn, type Slot } from "./block";

/** A set's load in a room, or why there is none; neither by eye and with body weight. */
export interface SetKg {
  kg: number | undefined;
  reason: string | undefined;
  /** What was asked of the bar before it was rounded; undefined off the bar. */
  askedKg?: number | undefined;
}

/** What a room's hand weights are asked with. */
export interface HandRoom {
  rounding: RoundingMode;
  /** In which a reason without a load is written: the reader's. */
  unit: MassUnit;
  /** Its dumbbells and kettlebells; undefined where nobody described any. */
  hand: readonly HandWeight[] | undefined;
  /** By exercise, the hand weights it is done with. */
  handOf: Readonly<Record<string, HandKind>>;
}

/** Bases that stand on a lift's max or line, which an exercise has none of. */
const OF_A_LIFT: ReadonlySet<BasisKind> = new Set([
  "percent",
  "speed",
  "peak-force",
  "peak-power",
  "reserve",
  "found",
]);

/** Whether a basis can load an exercise; else it takes a fixed load, body mass or the eye. */
export const loadsExercise = (basis: BasisKind): boolean => !OF_A_LIFT.has(basis);

const NO_LIFT =
  "An exercise has no max and no line of its own. Give a fixed load, a share of body mass, or the eye.";

/** What an exercise is held with. */
type Held = Omit<Parameters<typeof loadHand>[0], "askedKg">;

/** The hand weights of an exercise's week; undefined for others, and in a room that has none drawn up. */
export function inHands(block: Block, slot: Slot, week: number, room: HandRoom): Held | undefined {
  if (slot.work.kind !== "exercise" || !room.hand) return undefined;
  const kind = room.handOf[exerciseIn(block, slot, week) ?? ""];
  if (!kind) return undefined;
  return {
    kind,
    hands: slot.work.hands,
    stock: room.hand,
    mode: room.rounding,
    unit: room.unit,
  };
}

/**
 * An exercise without a bar: its load as the recipe says, rounded to the hand weights that the room
 * has, else to half a kilogram; no load and no reason where it is done by eye or with body weight alone.
 */
export function exerciseLoad(
  set: WaveSet,
  bodyKg: number | undefined,
  held: Held | undefined,
): SetKg {
  const { basis } = set;
  if (!loadsExercise(basis.by)) return { kg: undefined, reason: NO_LIFT };
  if (basis.by === "eye" || (basis.by === "fixed" && basis.kg === 0)) {
    return { kg: undefined, reason: undefined };
  }
  const found = basisLoad(basis, { ...NO_FACTS, bodyKg }, set.reps);
  if (!found.ok) return { kg: undefined, reason: BASIS_REFUSALS[found.reason] };
  const askedKg = found.kg * (set.factor ?? 1);
  if (!held) return { kg: Math.round(2 * askedKg) / 2, reason: undefined };
  const hand = loadHand({ ...held, askedKg });
  return hand.ok ? { kg: hand.kg, reason: undefined } : { kg: undefined, reason: hand.reason };
}

const NO_FACTS: BasisFacts = {
  maxKg: undefined,
  line: undefined,
  peakForceMps: undefined,
  peakPowerKg: undefined,
  foundKg: undefined,
  bodyKg: undefined,
};
