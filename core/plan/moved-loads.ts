import type { LoadRun, SlotCell } from "./block-loads";

/** How far a change of a slot's recipe reaches: loads that are others, of whom, in which weeks. */
export interface MovedLoads {
  loads: number;
  athletes: number;
  weeks: number[];
}

/** Each set's load in order; undefined where it has none. */
const each = (runs: readonly LoadRun[]) =>
  runs.flatMap((run) => Array.from({ length: run.count }, () => run.loadKg));

/**
 * Compares a slot's loads before and after, set by set; a set that is new or gone counts as moved.
 * @param before and `now` of the same weeks and athletes, in the same order
 */
export function movedLoads(before: readonly SlotCell[], now: readonly SlotCell[]): MovedLoads {
  const weeks: number[] = [];
  const people = new Set<number>();
  let loads = 0;
  now.forEach((cell, at) => {
    const loadsBefore = loads;
    cell.byAthlete.forEach((runs, person) => {
      const [was, is] = [each(before[at]?.byAthlete[person] ?? []), each(runs)];
      const sets = Math.max(was.length, is.length);
      for (let i = 0; i < sets; i++)
        if (was[i] !== is[i]) {
          loads++;
          people.add(person);
        }
    });
    if (loads > loadsBefore) weeks.push(cell.week);
  });
  return { loads, athletes: people.size, weeks };
}

/** Keys of the sets that one of a week's runs stands for. */
export function keysOfRun(
  sets: ReadonlyArray<{ key: string }>,
  runs: readonly LoadRun[],
  at: number,
): string[] {
  const from = runs.slice(0, at).reduce((sum, run) => sum + run.count, 0);
  return sets.slice(from, from + (runs[at]?.count ?? 0)).map((set) => set.key);
}
