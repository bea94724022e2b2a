import type { RecipeSettings } from "../recipe/recipe";
import type { LocalDate } from "../units/time";
import { type Block, dateOf, daysOf } from "./block";
import { dayStave } from "./day-time";

/** A day of a block on the room's clock, minutes from midnight. */
export interface DayTimes {
  dayId: string;
  name: string;
  week: number;
  date: LocalDate;
  startMin: number;
  /** By the minutes that it has, else by its stave. */
  endMin: number;
}

/** The same of another plan in the room. */
export interface RoomTimes extends DayTimes {
  planId: string;
  /** Its name, with whom it is for. */
  plan: string;
}

/** "17:30" as minutes from midnight; undefined for what is no time. */
export function minutesOf(time: string | undefined): number | undefined {
  const match = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(time ?? "");
  return match ? 60 * Number(match[1]) + Number(match[2]) : undefined;
}

/** Minutes that a day's stave is long in a week, to the next whole one; 0 where nothing is done. */
export const staveMinutes = (
  block: Block,
  dayId: string,
  week: number,
  settings: RecipeSettings,
): number => {
  const stave = dayStave(block, dayId, week, settings);
  return stave.lines.length === 0 ? 0 : Math.ceil(stave.lengthS / 60);
};

/** Every day of a block that has a time, in each week in which something is done. */
export function dayTimes(block: Block, settings: RecipeSettings = {}): DayTimes[] {
  return daysOf(block).flatMap((day) => {
    const startMin = minutesOf(day.startAt);
    if (startMin === undefined) return [];
    return Array.from({ length: block.weeks }, (_, i) => i + 1).flatMap((week): DayTimes[] => {
      const long = staveMinutes(block, day.id, week, settings);
      if (long === 0) return [];
      const endMin = startMin + (day.lengthMin ?? long);
      return [
        { dayId: day.id, name: day.name, week, date: dateOf(block, week, day), startMin, endMin },
      ];
    });
  });
}

/** Days of two blocks that want one room at one time: the first of each pair of days. */
export function roomClashes(
  own: readonly DayTimes[],
  others: readonly RoomTimes[],
): Array<{ own: DayTimes; other: RoomTimes }> {
  const seen = new Set<string>();
  return own.flatMap((one) =>
    others.flatMap((other) => {
      const key = `${one.dayId}/${other.planId}/${other.dayId}`;
      const meet =
        one.date === other.date && one.startMin < other.endMin && other.startMin < one.endMin;
      if (!meet || seen.has(key)) return [];
      seen.add(key);
      return [{ own: one, other }];
    }),
  );
}

/** Minutes from midnight as a time of the day, "17:30". */
export const timeOf = (minutes: number): string =>
  `${String(Math.floor(minutes / 60) % 24).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
