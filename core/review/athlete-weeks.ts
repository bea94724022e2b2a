import type { Muscle } from "../exercise/exercise";
import { addDays, daysBetween, type LocalDate } from "../units/time";
import type { ExerciseSum, LiftPoints, PairingSum } from "./session-sum";

/** A day's work of one athlete. */
export interface DayWork {
  date: LocalDate;
  lifts: ReadonlyArray<{ points: LiftPoints; muscles: readonly Muscle[] }>;
  exercises: ReadonlyArray<{
    muscles: readonly Muscle[];
    sum: ExerciseSum;
  }>;
  pairings: ReadonlyArray<{ sum: PairingSum }>;
}

/** Planned against done. */
export interface Dose {
  planned: number;
  done: number;
}

/** What a week of an athlete came to. */
export interface AthleteWeek {
  /** Its Monday. */
  from: LocalDate;
  tonnageKg: number;
  sets: Dose;
  heavyDays: number;
  cut: number;
  faults: number;
  contacts: Dose;
  metres: Dose;
  depth: { full: number; high: number };
  sides: { left: number; right: number };
  muscles: Array<{ muscle: Muscle; hard: number; speed: number }>;
}

/** The Monday of a day's week. */
export function mondayOf(date: LocalDate): LocalDate {
  // 2024-01-01 was a Monday.
  const days = daysBetween("2024-01-01" as LocalDate, date);
  return addDays(date, -(((days % 7) + 7) % 7));
}

/** Weeks of an athlete in order, those without training left out. */
export function athleteWeeks(days: readonly DayWork[]): AthleteWeek[] {
  const weeks = new Map<
    LocalDate,
    AthleteWeek & { by: Map<Muscle, { hard: number; speed: number }> }
  >();
  for (const day of days) {
    const from = mondayOf(day.date);
    let week = weeks.get(from);
    if (!week) {
      week = { ...emptyWeek(from), by: new Map() };
      weeks.set(from, week);
    }
    const heavy = day.lifts.some((lift) => lift.points.heavy);
    if (heavy) week.heavyDays++;
    for (const { points, muscles } of day.lifts) {
      week.tonnageKg += points.tonnageKg;
      week.sets.planned += points.setsPlanned;
      week.sets.done += points.setsDone;
      week.cut += points.cut;
      week.faults += points.faults.reduce((n, [, sets]) => n + sets, 0);
      if (points.depth === "full") week.depth.full += points.setsDone;
      if (points.depth === "high-box") week.depth.high += points.setsDone;
      add(week.by, muscles, points.hardSets, points.speedSets);
    }
    for (const { muscles, sum } of day.exercises) {
      week.sets.planned += sum.setsPlanned;
      week.sets.done += sum.setsDone;
      week.tonnageKg += sum.tonnageKg ?? 0;
      const dose =
        sum.counts === "contacts"
          ? week.contacts
          : sum.counts === "metres"
            ? week.metres
            : undefined;
      if (dose) {
        dose.planned += sum.repsPlanned;
        dose.done += sum.repsDone;
      }
      week.sides.left += sum.sides?.left ?? 0;
      week.sides.right += sum.sides?.right ?? 0;
      // What is held is trained for strength or growth; jumps, throws and sprints are for speed.
      const held = sum.tonnageKg !== undefined;
      add(week.by, muscles, held ? sum.setsDone : 0, held ? 0 : sum.setsDone);
    }
    for (const { sum } of day.pairings)
      for (const { left, right } of sum.sides) {
        week.sides.left += left;
        week.sides.right += right;
      }
  }
  return [...weeks.values()]
    .sort((a, b) => a.from.localeCompare(b.from))
    .map(({ by, ...week }) => ({
      ...week,
      muscles: [...by]
        .map(([muscle, sets]) => ({ muscle, ...sets }))
        .sort((a, b) => b.hard + b.speed - a.hard - a.speed || a.muscle.localeCompare(b.muscle)),
    }));
}

const emptyWeek = (from: LocalDate): AthleteWeek => ({
  from,
  tonnageKg: 0,
  sets: { planned: 0, done: 0 },
  heavyDays: 0,
  cut: 0,
  faults: 0,
  contacts: { planned: 0, done: 0 },
  metres: { planned: 0, done: 0 },
  depth: { full: 0, high: 0 },
  sides: { left: 0, right: 0 },
  muscles: [],
});

function add(
  by: Map<Muscle, { hard: number; speed: number }>,
  muscles: readonly Muscle[],
  hard: number,
  speed: number,
): void {
  for (const muscle of muscles) {
    const row = by.get(muscle) ?? { hard: 0, speed: 0 };
    by.set(muscle, { hard: row.hard + hard, speed: row.speed + speed });
  }
}
