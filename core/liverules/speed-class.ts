import { SPEED_CLASSES, type SpeedClass } from "../exercise/speed-classes";
import type { Lift } from "../profile/threshold";
import type { Aim } from "../recipe/recipe";
import type { CoachValues } from "../settings/coach-values";
import { isSpeed } from "./rep";

/** The three speeds that part a lift's four classes, slowest first, by their settings' keys. */
const BORDERS_OF: Readonly<Record<Lift, readonly [string, string, string]>> = {
  squat: ["strengthSpeedSquatMps", "speedStrengthSquatMps", "absoluteSpeedSquatMps"],
  "box-squat": ["strengthSpeedBoxSquatMps", "speedStrengthBoxSquatMps", "absoluteSpeedBoxSquatMps"],
  bench: ["strengthSpeedBenchMps", "speedStrengthBenchMps", "absoluteSpeedBenchMps"],
  press: ["strengthSpeedPressMps", "speedStrengthPressMps", "absoluteSpeedPressMps"],
  deadlift: ["strengthSpeedDeadliftMps", "speedStrengthDeadliftMps", "absoluteSpeedDeadliftMps"],
  "trap-bar-deadlift": [
    "strengthSpeedTrapBarMps",
    "speedStrengthTrapBarMps",
    "absoluteSpeedTrapBarMps",
  ],
  "bench-pull": [
    "strengthSpeedBenchPullMps",
    "speedStrengthBenchPullMps",
    "absoluteSpeedBenchPullMps",
  ],
  "pull-up": ["strengthSpeedPullUpMps", "speedStrengthPullUpMps", "absoluteSpeedPullUpMps"],
  "hip-thrust": [
    "strengthSpeedHipThrustMps",
    "speedStrengthHipThrustMps",
    "absoluteSpeedHipThrustMps",
  ],
};

/** Speeds from which a set is strength-speed, speed-strength, absolute speed, m/s. */
export type ClassBorders = readonly [number, number, number];

/**
 * A lift's borders where the coach has set all three, in rising order; undefined else: nothing is
 * guessed (DOMAIN 11: borders are coach-set speeds per lift).
 */
export function classBorders(lift: Lift, values: CoachValues): ClassBorders | undefined {
  const [a, b, c] = BORDERS_OF[lift].map((key) => values[key]);
  return isSpeed(a) && isSpeed(b) && isSpeed(c) && a < b && b < c ? [a, b, c] : undefined;
}

/**
 * The class that a speed belongs to; a border belongs to the faster class.
 * @param mps mean speed of a set's best rep, over 0
 * @returns undefined for what is no speed
 * @example speedClassAt(0.6, [0.5, 0.75, 1]) // "strength-speed"
 */
export function speedClassAt(mps: number, borders: ClassBorders): SpeedClass | undefined {
  if (!(mps > 0 && Number.isFinite(mps))) return undefined;
  return SPEED_CLASSES[borders.filter((border) => mps >= border).length];
}

/** The class that a lift is trained in by its slot's aim. */
export const liftSpeedClass = (aim: Aim): SpeedClass =>
  aim === "speed" || aim === "power" ? "strength-speed" : "absolute-strength";
