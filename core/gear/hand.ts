import type { RoundingMode } from "../barload/loading-gear";
import { formatKg, type MassUnit, massKg } from "../units/mass";
import { type GearItem, ofKind } from "./kinds";

export const HAND_KINDS = ["dumbbell", "kettlebell"] as const;
export type HandKind = (typeof HAND_KINDS)[number];

/** A hand weight of a room, and how many of them there are. */
export interface HandWeight {
  what: HandKind;
  name: string;
  kg: number;
  count: number;
}

/** A room's dumbbells and kettlebells, lightest first. */
export const handStock = (items: readonly GearItem[]): HandWeight[] =>
  ofKind(items, "weight")
    .map((item) => ({
      what: item.values.what === "kettlebell" ? ("kettlebell" as const) : ("dumbbell" as const),
      name: item.name,
      kg: massKg(item.values.mass),
      count: item.count,
    }))
    .sort((a, b) => a.kg - b.kg);

/** The hand weights that an exercise is done with, by the gear it names; undefined for none. */
export function handKindOf(gear: readonly string[]): HandKind | undefined {
  return HAND_KINDS.find((kind) => gear.some((one) => one.toLowerCase().startsWith(kind)));
}

export type HandLoad = { ok: true; kg: number; name: string } | { ok: false; reason: string };

const MANY: Record<HandKind, string> = { dumbbell: "dumbbells", kettlebell: "kettlebells" };

/**
 * The hand weight nearest to what was asked, of which there are enough for the hands; a tie goes
 * to the lower, and a novice's load down. More than the heaviest, or less than the lightest, is no
 * load but a sentence that says what is possible.
 * @param askedKg per hand where both hold one, else in all
 */
export function loadHand(input: {
  askedKg: number;
  kind: HandKind;
  hands: 1 | 2;
  stock: readonly HandWeight[];
  mode: RoundingMode;
  unit: MassUnit;
}): HandLoad {
  const { askedKg, kind, hands, unit } = input;
  const there = input.stock.filter((one) => one.what === kind && one.count >= hands);
  const pair = hands === 2 ? "a pair of " : "";
  const [lightest] = there;
  const heaviest = there.at(-1);
  if (!lightest || !heaviest) {
    return {
      ok: false,
      reason: `This room has no ${hands === 2 ? "pair of " : ""}${MANY[kind]}. Describe them under Gear, or take another exercise.`,
    };
  }
  if (!(askedKg > 0 && Number.isFinite(askedKg))) {
    return { ok: false, reason: "A load is a number over 0." };
  }
  const at = (kg: number) => formatKg(kg, unit);
  if (askedKg > heaviest.kg * (1 + OVER_SHARE)) {
    return {
      ok: false,
      reason: `${at(askedKg)} is over ${pair}${MANY[kind]} here: the heaviest are ${at(heaviest.kg)}. Take them, or another exercise.`,
    };
  }
  if (askedKg < lightest.kg * (1 - OVER_SHARE)) {
    return {
      ok: false,
      reason: `${at(askedKg)} is under ${pair}${MANY[kind]} here: the lightest are ${at(lightest.kg)}. Take an easier version.`,
    };
  }
  const under = there.findLast((one) => one.kg <= askedKg + 1e-9);
  const over = there.find((one) => one.kg > askedKg + 1e-9);
  const down = input.mode === "down" || !over || (under && askedKg - under.kg <= over.kg - askedKg);
  const chosen = (down ? under : over) ?? lightest;
  return { ok: true, kg: chosen.kg, name: chosen.name };
}

/** What lies this much beyond the rack's ends still takes its end, of that end. */
const OVER_SHARE = 0.1;
