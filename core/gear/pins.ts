import type { BarHeights } from "../resistance/setup";

/** Safeties stand this far under the bar's lowest point at the least, cm. */
export const SAFETIES_UNDER_CM = 2;
/** Hooks stand this far under the bar at lockout at the least, cm: it is lifted out, not tiptoed. */
export const HOOKS_UNDER_CM = 4;

/** Where a rack's pins go for one lifter, cm over the floor. */
export interface Pins {
  /** Undefined where the lift starts on the floor, or the rack's holes are not in Gear. */
  hooksCm: number | undefined;
  safetiesCm: number | undefined;
  /** The heights were measured on the athlete; else estimated from stature. */
  measured: boolean;
}

/** The highest hole at or under a height, cm; undefined where all are higher. */
const highestUnder = (holesCm: readonly number[], heightCm: number): number | undefined =>
  holesCm.reduce<number | undefined>(
    (best, hole) =>
      Number.isFinite(hole) && hole <= heightCm && (best === undefined || hole > best)
        ? hole
        : best,
    undefined,
  );

/**
 * Hooks and safeties for a lifter at a rack: the highest holes that keep clear of the bar's lowest
 * point and of its lockout.
 * @param start where the lift begins: at the bottom it is taken from the floor or the pins, and
 *   needs no hooks
 * @returns undefined where the athlete's bar heights are not known, or no hole fits
 * @example pinsFor({ heights: { bottomM: 0.62, lockoutM: 1.44, measured: true }, start: "top",
 *   hooksCm: [130, 140, 150], safetiesCm: [50, 60, 70] }) // hooks 140, safeties 60
 */
export function pinsFor(input: {
  heights: BarHeights | undefined;
  start: "top" | "bottom";
  hooksCm: readonly number[];
  safetiesCm: readonly number[];
}): Pins | undefined {
  const { heights, start } = input;
  if (!heights || !(heights.bottomM > 0) || !(heights.lockoutM > heights.bottomM)) return undefined;
  if (start === "bottom") return undefined;
  const hooksCm = highestUnder(input.hooksCm, 100 * heights.lockoutM - HOOKS_UNDER_CM);
  const safetiesCm = highestUnder(input.safetiesCm, 100 * heights.bottomM - SAFETIES_UNDER_CM);
  if (hooksCm === undefined && safetiesCm === undefined) return undefined;
  return { hooksCm, safetiesCm, measured: heights.measured };
}
