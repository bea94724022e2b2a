import { faultHistory } from "../boxsquat/box-faults";
import type { LocalDate } from "../units/time";

/** A training day of a lift: the heaviest set's share of the max, and each fault's least share, %. */
export interface MarkDay {
  date: LocalDate;
  topPercent: number | null;
  faults: ReadonlyArray<readonly [fault: string, sets: number, percent: number | null]>;
}

export interface FaultMarks {
  fault: string;
  /** Shares of the max at which it was seen, % of the day's first seen set; newest last. */
  seen: number[];
  /** Heaviest sets of the days without it, %; newest last. */
  clean: number[];
  lastOn: LocalDate;
  cured: boolean;
  /** After a cure it came back at this share, %. */
  returnsAt: number | undefined;
}

/** Days of a lift that a drawing of faults looks back over. */
export const MARK_DAYS = 12;
/** Faults that are drawn, those seen last first. */
export const MARKED_FAULTS = 2;

/**
 * Each fault of a lift over the share of the max: where it was seen and what was clean, over the last
 * days of training. Days without a share (no max that day) have no place on the axis and are left out
 * of the drawing; they still count as days without the fault.
 * @param days in any order
 */
export function faultMarks(days: readonly MarkDay[]): FaultMarks[] {
  const ordered = [...days].sort((a, b) => a.date.localeCompare(b.date)).slice(-MARK_DAYS);
  const seen = ordered.flatMap((day) =>
    day.faults.map(([fault, , percent]) => ({
      fault,
      date: day.date,
      percent: percent ?? undefined,
    })),
  );
  const histories = faultHistory(
    seen,
    ordered.map((day) => day.date),
  );
  return histories.slice(0, MARKED_FAULTS).map(({ fault, lastOn, cured, returnsAt }) => ({
    fault,
    lastOn,
    cured,
    returnsAt,
    seen: seen.flatMap((one) =>
      one.fault === fault && one.percent !== undefined ? [one.percent] : [],
    ),
    clean: ordered.flatMap((day) =>
      day.topPercent !== null && !day.faults.some(([of]) => of === fault) ? [day.topPercent] : [],
    ),
  }));
}
