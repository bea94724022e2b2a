import type { Lift } from "../profile/threshold";
import { kgToGrains, type MassUnit, massIn, massKg } from "../units/mass";
import { formatClock } from "../units/time";
import { type BasisFacts, type BasisLoad, basisLoad, type LoadBasis } from "../wave/basis";

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

/** What is written down of an item, and which way is better. */
export const OUTPUTS = {
  none: { name: "nothing", unit: "", up: true },
  height: { name: "jump height", unit: "cm", up: true },
  distance: { name: "throw", unit: "m", up: true },
  time: { name: "sprint time", unit: "s", up: false },
  speed: { name: "bar speed", unit: "m/s", up: true },
} as const;
export type Output = keyof typeof OUTPUTS;
export const OUTPUT_KINDS = Object.keys(OUTPUTS) as Output[];

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

/** An item's load in a week of a block: the light item moves by the complex's direction. */
export function loadInWeek(complex: Complex, item: ComplexItem, week: number): ItemLoad {
  const sign = complex.direction === "load" ? 1 : complex.direction === "speed" ? -1 : 0;
  const by = sign * complex.weekStep * (week - 1);
  if (item.kind !== "jump" || by === 0) return item.load;
  switch (item.load.by) {
    case "percent":
    case "body":
    case "peak-power":
      return { ...item.load, percent: Math.max(0, item.load.percent + by) };
    case "fixed":
      return { ...item.load, kg: Math.max(0, item.load.kg + by) };
    default:
      return item.load;
  }
}

/** Bases that are of a lift's max, line or power. */
export const needsLift = (load: ItemLoad): boolean =>
  ["percent", "peak-power", "speed", "peak-force", "reserve"].includes(load.by);

export type ItemKg = { kg: undefined; words: string } | { kg: number; load: BasisLoad };

/**
 * Steps in which an item is loaded, in the reader's unit: a bar by the smallest pair of plates that
 * every room has, what is held or thrown by the scale it comes in.
 */
export const ITEM_STEPS = {
  kg: { bar: 2.5, held: 0.5 },
  lb: { bar: 5, held: 1 },
} as const;

/** An item's load to the nearest step, kg. */
export function toItemStep(kg: number, kind: ItemKind, unit: MassUnit): number {
  const step = ITEM_STEPS[unit][kind === "lift" ? "bar" : "held"];
  return massKg({ amount: step * Math.round(massIn(kgToGrains(kg), unit) / step), unit });
}

/** An item's load for an athlete, kg before rounding; words where there is none. */
export function itemLoad(load: ItemLoad, facts: BasisFacts, reps: number): ItemKg {
  if (load.by === "none") return { kg: undefined, words: "body weight" };
  if (load.by === "eye") return { kg: undefined, words: "by eye" };
  const found = basisLoad(load, facts, reps);
  return found.ok ? { kg: found.kg, load: found } : { kg: undefined, words: found.reason };
}

/** Defaults of the checks; a school or a team may set its own. */
export const COMPLEX_DEFAULTS = {
  /** Dense gaps, s. */
  complexGapS: { least: 10, most: 30 },
  /** Under this much gap little potentiation is seen (Seitz & Haff 2016), s. */
  potentiationLeastS: 240,
  /** A light jump is at most this share of body mass, or of a max, %. */
  lightJumpBodyPercent: 40,
  lightJumpMaxPercent: 40,
  /** Strength asked for first. */
  squatPerBody: 1.5,
  trainingYears: 1,
  /** Rest between rounds that keeps output, s. */
  leastRoundRestS: 90,
  /** Power reps a set at most. */
  powerReps: 5,
};

export interface ComplexCheck {
  code: string;
  level: "warning" | "note";
  text: string;
}

export interface PairingAthlete {
  name: string;
  squatPerBody: number | undefined;
  trainingYears: number | undefined;
}

/** What stands against a complex, and for whom a simpler one is offered. */
export function checkComplex(
  complex: Complex,
  athletes: readonly PairingAthlete[] = [],
  /** Whether the day's template puts power before the heavy work. */
  powerFirst = true,
): ComplexCheck[] {
  const found: ComplexCheck[] = [];
  const say = (code: string, level: ComplexCheck["level"], text: string) =>
    found.push({ code, level, text });
  const { items } = complex;
  for (const item of items) {
    if (needsLift(item.load) && item.of === undefined)
      say(
        "no-base",
        "warning",
        `${item.name}: a share needs the lift that it is of. Name it, or set the load otherwise.`,
      );
  }
  if (items.length < 2) say("one-item", "warning", "A pairing has at least two items.");
  const patterns = new Set(items.map((item) => family(item.pattern)));
  if (patterns.size > 1 && complex.patternReason.trim() === "") {
    say(
      "pattern",
      "warning",
      "Its items do not share a movement pattern. Choose a matching one, or write the reason.",
    );
  }
  if (powerFirst && !complex.beforeMain)
    say("order", "warning", "It stands after the main heavy work; this template puts power first.");
  for (const item of items) {
    const light = COMPLEX_DEFAULTS;
    if (
      item.kind === "jump" &&
      item.load.by === "body" &&
      item.load.percent > light.lightJumpBodyPercent
    )
      say(
        "not-light",
        "warning",
        `${item.name}: ${item.load.percent} % of body mass is not light; over ${light.lightJumpBodyPercent} % the jump is a lift.`,
      );
    if (
      item.kind === "jump" &&
      item.load.by === "percent" &&
      item.load.percent > light.lightJumpMaxPercent
    )
      say(
        "not-light",
        "warning",
        `${item.name}: ${item.load.percent} % of the max is not light; over ${light.lightJumpMaxPercent} % the jump is a lift.`,
      );
    if ((item.kind === "jump" || item.kind === "throw") && item.reps > light.powerReps)
      say(
        "many-reps",
        "note",
        `${item.name}: ${item.reps} reps; beyond ${light.powerReps} it is no longer power work.`,
      );
    if (item.kind === "throw" && !item.sides && /one-hand|rotation|side|scoop/i.test(item.name))
      say(
        "one-side",
        "note",
        `${item.name}: thrown to one side only. Throw on both sides, or keep the ledger.`,
      );
  }
  items.slice(0, -1).forEach((item) => {
    const { least, most } = COMPLEX_DEFAULTS.complexGapS;
    if (complex.aim === "complex" && (item.gapS < least || item.gapS > most))
      say(
        "gap",
        "note",
        `After ${item.name}: ${item.gapS} s; dense work goes by ${least} to ${most} s.`,
      );
    if (
      complex.aim === "potentiation" &&
      item.kind === "lift" &&
      item.gapS < COMPLEX_DEFAULTS.potentiationLeastS
    )
      say(
        "gap",
        "note",
        `After ${item.name}: ${formatClock(item.gapS)}; under ${formatClock(COMPLEX_DEFAULTS.potentiationLeastS)} little is gained on average. The athlete's own gap comes before the average.`,
      );
  });
  if (complex.rounds > 1 && complex.restS < COMPLEX_DEFAULTS.leastRoundRestS)
    say(
      "rest",
      "note",
      `${complex.restS} s between rounds: power is judged by output. Watch whether it holds.`,
    );
  const weak = athletes.filter(
    (one) =>
      (one.squatPerBody !== undefined && one.squatPerBody < COMPLEX_DEFAULTS.squatPerBody) ||
      (one.trainingYears !== undefined && one.trainingYears < COMPLEX_DEFAULTS.trainingYears),
  );
  if (weak.length > 0)
    say(
      "strength-first",
      "warning",
      `Strength first for ${weak.map((one) => one.name).join(", ")} (squat ${COMPLEX_DEFAULTS.squatPerBody} × body mass and a year of training). Offer the simpler version.`,
    );
  const unknown = athletes.filter((one) => one.squatPerBody === undefined);
  if (unknown.length > 0)
    say(
      "strength-unknown",
      "note",
      `No squat max over body mass is known for ${unknown.map((one) => one.name).join(", ")}.`,
    );
  return found;
}

/** Patterns that belong together in a pairing: legs, pushes, pulls, the rest by themselves. */
function family(pattern: string): string {
  if (["squat", "hinge", "single-leg", "jump", "sprint", "olympic-pull"].includes(pattern))
    return "legs";
  if (["horizontal-push", "vertical-push"].includes(pattern)) return "push";
  if (["horizontal-pull", "vertical-pull"].includes(pattern)) return "pull";
  // A two-hand throw is driven by the legs and ends in a push: it goes with both.
  return pattern === "throw" ? "legs" : pattern;
}

/** The version for who is not yet strong enough: body weight, one item fewer, longer rest. */
export function simplerComplex(complex: Complex): Complex {
  const lifts = complex.items.filter((item) => item.kind !== "lift");
  const items = (lifts.length > 0 ? lifts : complex.items).map((item) => ({
    ...item,
    load: { by: "none" as const },
  }));
  return {
    ...complex,
    name: `${complex.name}, simpler`,
    items,
    rounds: Math.min(complex.rounds, 3),
    restS: Math.max(complex.restS, 120),
    direction: "hold",
    weekStep: 0,
  };
}

/** The same complex with an athlete's own gap after its lifts; for potentiation only. */
export function withOwnGap(complex: Complex, gapS: number | undefined): Complex {
  if (gapS === undefined || complex.aim !== "potentiation") return complex;
  return {
    ...complex,
    items: complex.items.map((item, i) =>
      item.kind === "lift" && i < complex.items.length - 1 ? { ...item, gapS } : item,
    ),
  };
}

/** Throws and jumps by side, and how far apart the two sides are. */
export function sideLedger(
  done: ReadonlyArray<{ item: string; side: "left" | "right"; reps: number }>,
): Array<{ item: string; left: number; right: number; apart: number }> {
  const by = new Map<string, { left: number; right: number }>();
  for (const one of done) {
    const row = by.get(one.item) ?? { left: 0, right: 0 };
    row[one.side] += one.reps;
    by.set(one.item, row);
  }
  return [...by].map(([item, row]) => ({ item, ...row, apart: row.left - row.right }));
}
