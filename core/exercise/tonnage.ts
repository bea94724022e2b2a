import type { Working } from "../units/working";
import { say, type Text, written } from "../units/written";

/** One line of work: sets × reps × load, a dumbbell counted for one hand or for both. */
export interface WorkLine {
  sets: number;
  reps: number;
  loadKg: number;
  /** 2 where the load is written per hand and both hands work. */
  hands: 1 | 2;
}

const MOST_SETS = 1000;
const MOST_REPS = 10_000;
const MOST_LOAD_KG = 2000;

/** A line that somebody could do. */
const isLine = ({ sets, reps, loadKg }: WorkLine): boolean =>
  sets >= 0 &&
  sets <= MOST_SETS &&
  reps >= 0 &&
  reps <= MOST_REPS &&
  loadKg >= 0 &&
  loadKg <= MOST_LOAD_KG;

/** Undefined where the line is none. */
export function tonnageKg(line: WorkLine): number | undefined {
  return isLine(line)
    ? line.sets * line.reps * line.loadKg * (line.hands === 2 ? 2 : 1)
    : undefined;
}

export interface Progression {
  name: Text;
  line: WorkLine;
  tonnageKg: number;
  deltaKg: number;
}

/** The next steps of an accessory, one thing changed at a time, with what each adds. */
export function progressions(
  line: WorkLine,
  step: { reps: number; loadKg: number; sets: number },
): Progression[] {
  const now = tonnageKg(line);
  if (now === undefined) return [];
  // What leads to no line is no step.
  const next = (name: Text, changed: WorkLine): Progression[] => {
    const then = tonnageKg(changed);
    if (then === undefined) return [];
    return [{ name, line: changed, tonnageKg: then, deltaKg: then - now }];
  };
  return [
    ...next(`${step.reps} more reps a set`, { ...line, reps: line.reps + step.reps }),
    ...next(say`${written(step.loadKg)} more`, { ...line, loadKg: line.loadKg + step.loadKg }),
    ...next(step.sets === 1 ? "one more set" : `${step.sets} more sets`, {
      ...line,
      sets: line.sets + step.sets,
    }),
  ];
}

export function tonnageWorking(line: WorkLine): Working {
  const { sets, reps, loadKg, hands } = line;
  const all = tonnageKg(line);
  if (all === undefined) return { title: "Tonnage", lines: [{ label: "Line", value: "not set" }] };
  return {
    title: "Tonnage",
    lines: [
      { label: "Sets × reps", value: `${sets} × ${reps} = ${sets * reps}` },
      {
        label: "Load",
        value: written(loadKg),
        detail: hands === 2 ? "per hand, both counted" : "in all",
      },
      { label: "Tonnage", value: written(all), emphasis: "answer" },
    ],
    changes: ["Whether a dumbbell counts one hand or both."],
  };
}
