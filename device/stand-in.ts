import { seededRandom, seedFromText } from "../core/numeric/random";
import { type Lift, MVT_DEFAULTS_MPS } from "../core/profile/threshold";
import type { SimulatedLifter } from "./lifter";

/** How far and how high the bar moves, and how fast nothing would, by lift: a grown lifter's. */
const MOVES: Record<Lift, { v0Mps: number; rangeM: number; topM: number; fromFloor?: true }> = {
  bench: { v0Mps: 1.42, rangeM: 0.4, topM: 1.05 },
  squat: { v0Mps: 1.5, rangeM: 0.58, topM: 1.45 },
  "box-squat": { v0Mps: 1.45, rangeM: 0.52, topM: 1.45 },
  deadlift: { v0Mps: 1.4, rangeM: 0.55, topM: 0.78, fromFloor: true },
  "trap-bar-deadlift": { v0Mps: 1.5, rangeM: 0.5, topM: 0.75, fromFloor: true },
  press: { v0Mps: 1.4, rangeM: 0.55, topM: 2 },
  "bench-pull": { v0Mps: 1.7, rangeM: 0.45, topM: 0.9, fromFloor: true },
  "pull-up": { v0Mps: 1.5, rangeM: 0.5, topM: 2.2 },
  "hip-thrust": { v0Mps: 1.4, rangeM: 0.35, topM: 0.8, fromFloor: true },
};

/** The max of somebody of whom none is known, kg: light enough for any bar and any plan. */
const UNKNOWN_MAX_KG = 80;

/**
 * A lifter for the simulated sensor where nobody has been measured: a line from the lift's usual
 * velocity at no load to its usual threshold at the working max, with a person's own small
 * differences. For trying Sprezza out; what it lifts says nothing about the athlete.
 * @param maxKg working max of the lift, kg; undefined where none is known
 * @param who the same words give the same lifter
 */
export function standInLifter(lift: Lift, maxKg: number | undefined, who: string): SimulatedLifter {
  const random = seededRandom(seedFromText(who));
  const move = MOVES[lift];
  const v0Mps = move.v0Mps + 0.06 * (random.uniform() - 0.5);
  const max = maxKg !== undefined && maxKg > 0 && maxKg < 1000 ? maxKg : UNKNOWN_MAX_KG;
  return {
    v0Mps,
    l0Kg: max / (1 - MVT_DEFAULTS_MPS[lift].mps / v0Mps),
    repFade: 0.02 + 0.03 * random.uniform(),
    setFade: 0.008 + 0.008 * random.uniform(),
    fullRestS: 150,
    spreadMps: 0.015,
    rangeM: move.rangeM,
    topM: move.topM,
    loweringMps: 0.75,
    pauseS: lift === "box-squat" ? 0.6 : 0,
    sticking: 0.25,
    ...(move.fromFloor ? { path: "from-floor" as const } : {}),
  };
}
