import { type MatStock, type SeatAnswer, type SeatBase, seatFor } from "./stack";

export interface LoweringWeek {
  week: number;
  targetCm: number;
  answer: SeatAnswer;
}

/** Weeks over which somebody would lower a box. */
const MOST_WEEKS = 26;

/**
 * A box that goes from one height to another by mats, a step a week, equal steps: each week's stack of
 * what the room has, within the tolerance, or the nearest with how far off it is.
 * @param toCm may lie over `fromCm`: a box that is raised after an injury
 * @returns undefined for heights or weeks that are none
 */
export function boxLowering(input: {
  fromCm: number;
  toCm: number;
  weeks: number;
  bases: readonly SeatBase[];
  mats: readonly MatStock[];
  /** How far off a week's stack may be either way, cm. */
  withinCm: number;
}): LoweringWeek[] | undefined {
  const { fromCm, toCm, weeks, bases, mats, withinCm } = input;
  const isHeight = (cm: number) => cm >= 10 && cm <= 90;
  if (!isHeight(fromCm) || !isHeight(toCm)) return undefined;
  if (!Number.isInteger(weeks) || weeks < 2 || weeks > MOST_WEEKS) return undefined;
  if (!(withinCm >= 0 && withinCm <= 10)) return undefined;
  return Array.from({ length: weeks }, (_, i) => {
    const targetCm = fromCm + ((toCm - fromCm) * i) / (weeks - 1);
    return {
      week: i + 1,
      targetCm,
      answer: seatFor({
        targetCm,
        bases,
        mats,
        tolerance: { underCm: withinCm, overCm: withinCm },
      }),
    };
  });
}
