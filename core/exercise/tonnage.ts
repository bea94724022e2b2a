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

/** One way to a wanted tonnage: one of sets, reps and load is changed, the others stay. */
export interface WayToTonnage {
  change: "reps" | "load" | "sets";
  /** What it would have to be, to the last figure: reps a set, kg, or sets. */
  exact: number;
  /** The line with it in whole reps or sets, the least that reaches it; a load as it is. */
  line: WorkLine;
  tonnageKg: number;
  /** Over what was wanted, kg; never under 0. */
  overKg: number;
}

/** Rounding of sums in binary is no rep more. */
const SAME = 1e-9;

/**
 * The ways back from a wanted tonnage, each with one thing changed. A way that nobody could do, or
 * that begins from nothing (no sets, no load), is left out; so is all where the wanted is none.
 * @param wantedKg over 0
 * @example waysToTonnage({ sets: 3, reps: 12, loadKg: 30, hands: 1 }, 1200)[0]?.line.reps // 14
 */
export function waysToTonnage(line: WorkLine, wantedKg: number): WayToTonnage[] {
  const now = tonnageKg(line);
  if (now === undefined || now <= 0 || !Number.isFinite(wantedKg) || wantedKg <= 0) return [];
  const share = wantedKg / now;
  const way = (change: WayToTonnage["change"], exact: number, to: WorkLine): WayToTonnage[] => {
    const then = tonnageKg(to);
    return then === undefined
      ? []
      : [{ change, exact, line: to, tonnageKg: then, overKg: Math.max(0, then - wantedKg) }];
  };
  const whole = (exact: number) => Math.max(1, Math.ceil(exact - SAME * exact));
  const reps = line.reps * share;
  const sets = line.sets * share;
  const loadKg = line.loadKg * share;
  return [
    ...way("reps", reps, { ...line, reps: whole(reps) }),
    ...way("load", loadKg, { ...line, loadKg }),
    ...way("sets", sets, { ...line, sets: whole(sets) }),
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
