import type { BarHeights } from "./setup";

/**
 * Heights and lengths as shares of stature (Drillis & Contini 1966, as printed in Winter 2009):
 * shoulder, hip and knee over the floor; upper arm, forearm and half of the hand.
 */
const SHOULDER = 0.818;
const HIP = 0.53;
const KNEE = 0.285;
const ARM = 0.186 + 0.146 + 0.108 / 2;
/** Half of a standard plate's diameter: the bar's centre when it lies on the floor, m. */
export const FLOOR_BAR_M = 0.225;

/**
 * Bar heights estimated from stature, marked as not measured. Squats end at shoulder height and
 * lose the height of the thigh; a lean of the trunk takes a little more. Undefined for lifts
 * whose heights stature does not give (benches, pulls to a bar).
 */
export function heightsFromStature(lift: string, statureCm: number): BarHeights | undefined {
  const h = statureCm / 100;
  if (!(h > 1 && h < 2.5)) return undefined;
  const pair = (bottomM: number, lockoutM: number): BarHeights => ({
    bottomM: Math.round(bottomM * 100) / 100,
    lockoutM: Math.round(lockoutM * 100) / 100,
    measured: false,
  });
  switch (lift) {
    case "squat":
    case "box-squat":
      return pair((SHOULDER - (HIP - KNEE)) * h, SHOULDER * h);
    case "deadlift":
    case "trap-bar-deadlift":
      return pair(FLOOR_BAR_M, (SHOULDER - ARM) * h);
    case "press":
      return pair(SHOULDER * h, (SHOULDER + ARM) * h);
    default:
      return undefined;
  }
}

/** Bar heights as measured at the athlete's set-up, else by stature and marked so. */
export function heightsKnown(
  setup: { bottomM: number | null; lockoutM: number | null } | undefined,
  lift: string | undefined,
  statureCm: number | null,
): BarHeights | undefined {
  const { bottomM, lockoutM } = setup ?? {};
  if (bottomM != null && lockoutM != null && Number.isFinite(lockoutM - bottomM)) {
    return { bottomM, lockoutM, measured: true };
  }
  return lift === undefined || statureCm === null ? undefined : heightsFromStature(lift, statureCm);
}

/** How far the bar goes in a lifter's lift. */
export interface OwnWay {
  m: number;
  /** By a tape at the lifter's own heights; by stature otherwise. */
  measured: boolean;
}

/** The way between two heights; undefined where they are none. */
export function wayBetween({ bottomM, lockoutM, measured }: BarHeights): OwnWay | undefined {
  const m = lockoutM - bottomM;
  return Number.isFinite(m) ? { m, measured } : undefined;
}
