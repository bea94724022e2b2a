import { CURED_AFTER_DAYS } from "../boxsquat/box-faults";
import type { LocalDate } from "../units/time";

/** A training day of a lift with the sets in which each fault was seen. */
export interface FaultDay {
  date: LocalDate;
  sets: number;
  faults: ReadonlyArray<{ fault: string; sets: number; percent: number | undefined }>;
}

export interface FaultReturn {
  fault: string;
  on: LocalDate;
  /** Sets in which it was seen that day, of so many. */
  seen: number;
  sets: number;
  /** Days of the lift without it before. */
  cleanDays: number;
  /** Share of the max at which it was seen, %, the least. */
  percent: number | undefined;
}

/** Sets of a day in which a fault is seen before its return is called: once is a slip. */
export const RETURN_SETS = 2;

/**
 * Faults that came back on the newest day: seen before, then not for as many days of the lift as
 * cure it, now in two sets or more.
 * @param days in any order
 */
export function faultReturns(days: readonly FaultDay[]): FaultReturn[] {
  const ordered = [...days].sort((a, b) => a.date.localeCompare(b.date));
  const last = ordered.at(-1);
  if (!last) return [];
  return last.faults.flatMap(({ fault, sets, percent }): FaultReturn[] => {
    if (sets < RETURN_SETS) return [];
    const before = ordered.slice(0, -1);
    // A single slip neither makes a fault nor breaks a cure.
    const seenAt = before.findLastIndex((day) =>
      day.faults.some((one) => one.fault === fault && one.sets >= RETURN_SETS),
    );
    if (seenAt < 0) return [];
    const cleanDays = before.length - 1 - seenAt;
    return cleanDays >= CURED_AFTER_DAYS
      ? [{ fault, on: last.date, seen: sets, sets: last.sets, cleanDays, percent }]
      : [];
  });
}
