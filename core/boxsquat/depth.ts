import { usual } from "../settings/usual";
import { daysBetween, type LocalDate } from "../units/time";

/** Share of squat sets to full depth that stands beside a high box, %, over so many weeks. */
export const FULL_DEPTH_SHARE_PERCENT = usual("fullDepthPercent");
export const DEPTH_WEEKS = usual("depthWeeks");
/** A box this much over its target height is a high box, cm. */
export const HIGH_BOX_OVER_CM = 2.5;

/** What no log holds is no set, and no setting goes beyond these. */
const MOST_SETS = 1000;
const MOST_WEEKS = 520;
const within = (value: number | undefined, most: number) =>
  value !== undefined && value >= 0 && value <= most ? value : undefined;

export interface DepthSet {
  date: LocalDate;
  /** Sets done that day. */
  sets: number;
  depth: "full" | "high-box";
}

export interface DepthLedger {
  full: number;
  high: number;
  /** Undefined where no squat set was done. */
  fullPercent: number | undefined;
  askedPercent: number;
  weeks: number;
  /** No high box, or the asked share to full depth beside it. */
  enough: boolean;
  words: string;
}

/** Crease over knee that a box gives, cm over its target: over this it is a high box. */
export const isHighBox = (overTargetCm: number): boolean => overTargetCm > HIGH_BOX_OVER_CM + 1e-9;

/**
 * Squat sets of the last weeks by depth. Without a high box there is nothing to balance; with
 * one, at least the asked share goes to full depth.
 */
export function depthLedger(
  sets: readonly DepthSet[],
  today: LocalDate,
  asked: { weeks?: number; percent?: number } = {},
): DepthLedger {
  const weeks = within(asked.weeks, MOST_WEEKS) ?? DEPTH_WEEKS;
  const askedPercent = within(asked.percent, 100) ?? FULL_DEPTH_SHARE_PERCENT;
  let full = 0;
  let high = 0;
  for (const one of sets) {
    const ago = daysBetween(one.date, today);
    if (ago < 0 || ago >= 7 * weeks || !(one.sets > 0 && one.sets < MOST_SETS)) continue;
    if (one.depth === "full") full += one.sets;
    else high += one.sets;
  }
  const all = full + high;
  const enough = high === 0 || 100 * full >= askedPercent * all - 1e-9;
  const missing =
    high === 0
      ? 0
      : Math.max(
          0,
          Math.ceil((askedPercent * all - 100 * full) / (100 - askedPercent || 1) - 1e-9),
        );
  return {
    full,
    high,
    fullPercent: all === 0 ? undefined : (100 * full) / all,
    askedPercent,
    weeks,
    enough,
    words:
      high === 0
        ? "No high box in these weeks."
        : enough
          ? `${full} of ${all} squat sets to full depth.`
          : `${full} of ${all} squat sets to full depth; ${missing} more would make ${askedPercent} %.`,
  };
}
