import { studentQuantile } from "../numeric/student-t";
import { DAY_SHIFT_SD_MPS, READING_SD_MPS } from "../profile/day-form";
import { type LoadVelocityLine, loadAt } from "../profile/line";
import type { IntervalResult } from "../profile/prediction";
import type { LocalDate } from "../units/time";
import type { MeasuredSet } from "./equal-speed";
import { LIFTED_SD_PERCENT, type MaxSign } from "./max-trend";

/** A line of one day, and what it says of that day's max. */
export interface KnownLine {
  line: LoadVelocityLine;
  /** Load at the threshold, kg. */
  oneRepMaxKg: number;
  /** Its planning interval. */
  planning: IntervalResult;
}

/** The day's speeds count where its loads are at least this share of the line's max. */
export const LEAST_SHARE = 0.3;
/** How far a line of two points may be off, of its max, %. */
const UNKNOWN_LINE_PERCENT = 8;

/**
 * What each day's work sets say of the max: a bar moves as fast as its share of the max lets it
 * (González-Badillo & Sánchez-Medina 2010: speeds at a share stay where the max moves), so a day on
 * which load L moved as the line's load L' did has a max of L/L' of the line's.
 * @param daySdMps the athlete's spread from day to day, m/s
 * @param fadeMps what a set loses on the one before it, m/s
 */
export function speedSigns(
  sets: readonly MeasuredSet[],
  known: KnownLine,
  daySdMps: number,
  fadeMps: number,
): MaxSign[] {
  const { line, oneRepMaxKg } = known;
  const byDay = new Map<LocalDate, MeasuredSet[]>();
  for (const set of sets)
    if (set.loadKg >= LEAST_SHARE * oneRepMaxKg)
      byDay.set(set.date, [...(byDay.get(set.date) ?? []), set]);
  return [...byDay].flatMap(([date, own]): MaxSign[] => {
    const signs = own.flatMap((set) => {
      const asFast = loadAt(line, set.bestMps + fadeMps * set.before);
      return asFast > 0.1 * oneRepMaxKg
        ? [{ kg: (oneRepMaxKg * set.loadKg) / asFast, asFast }]
        : [];
    });
    if (signs.length === 0) return [];
    const kg = signs.reduce((sum, one) => sum + one.kg, 0) / signs.length;
    const asFast = signs.reduce((sum, one) => sum + one.asFast, 0) / signs.length;
    const speedSd = Math.sqrt(daySdMps ** 2 + READING_SD_MPS ** 2 / signs.length);
    return [{ date, kg, sdKg: (kg * speedSd) / (-line.slopeMpsPerKg * asFast), by: "speed" }];
  });
}

/** A lifted or tested single as a sign of the max. */
export const liftedSign = (date: LocalDate, kg: number): MaxSign => ({
  date,
  kg,
  sdKg: (kg * LIFTED_SD_PERCENT) / 100,
  by: "lifted",
});

/** How far a line may be off on every day alike, kg: its own error, the threshold's, and its day's. */
export function lineSdKg({ line, planning, oneRepMaxKg }: KnownLine): number {
  const own =
    planning.ok && line.n > 2
      ? (planning.high - planning.low) / 2 / studentQuantile((1 + planning.level) / 2, line.n - 2)
      : UNKNOWN_LINE_PERCENT * 0.01 * oneRepMaxKg;
  const form = DAY_SHIFT_SD_MPS / -line.slopeMpsPerKg;
  return Math.sqrt(own * own + form * form);
}
