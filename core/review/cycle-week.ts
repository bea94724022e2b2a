import { mean } from "../numeric/statistics";
import type { LocalDate } from "../units/time";

/** One done set of a cycle on the box. */
export interface CycleSet {
  loadKg: number;
  /** Share of the working max it stood on, %. */
  percent: number | undefined;
  /** Fastest counted rep, m/s; undefined where nothing was measured. */
  bestMps: number | undefined;
  standing: "under" | "on" | "over" | "no-target" | "not-measured";
  reps: number;
  /** Stops at the bottom that were measured, s. */
  pausesS: readonly number[];
  /** Of them shorter than the slot's smallest stop; undefined where the slot sets none. */
  bounces: number | undefined;
  /** Speed on meeting the box and time to the peak, a rep each, where they were measured. */
  contactsMps: readonly number[];
  toPeakS: readonly number[];
  faults: readonly string[];
  cut: boolean;
}

/** One session of a cycle, as planned and as done. */
export interface CycleSession {
  week: number;
  date: LocalDate;
  kind: "work" | "deload" | "test" | "off";
  planned: { sets: number; reps: number };
  /** Box as it stood that day, cm; undefined where it was not frozen. */
  heightCm: number | undefined;
  style: string | undefined;
  /** Undefined: this athlete was not on the floor. */
  sets: readonly CycleSet[] | undefined;
}

/** The main work of a session: its sets at the load done most, the heavier where two tie. */
export interface CycleWeek {
  week: number;
  date: LocalDate;
  kind: CycleSession["kind"];
  heightCm: number | undefined;
  style: string | undefined;
  present: boolean;
  plannedSets: number;
  doneSets: number;
  cutSets: number;
  reps: number;
  loadKg: number | undefined;
  percent: number | undefined;
  /** Mean of the set bests at that load, m/s, of so many sets. */
  speedMps: number | undefined;
  speedSets: number;
  /** First set's best less the last one's, at that load, m/s: the fade over the sets. */
  fadeMps: number | undefined;
  onSpeed: number;
  judged: number;
  meanStopS: number | undefined;
  bounces: number | undefined;
  meanContactMps: number | undefined;
  meanToPeakS: number | undefined;
  faults: Array<{ fault: string; times: number }>;
}

/** "1 week", "3 weeks". */
export const several = (n: number, one: string, more: string): string =>
  `${n} ${n === 1 ? one : more}`;

/** What one session came to. */
export function weekOf(session: CycleSession): CycleWeek {
  const { sets } = session;
  const done = sets ?? [];
  const byLoad = new Map<number, CycleSet[]>();
  for (const set of done) byLoad.set(set.loadKg, [...(byLoad.get(set.loadKg) ?? []), set]);
  const main = [...byLoad].sort((a, b) => b[1].length - a[1].length || b[0] - a[0])[0];
  const bests = (main?.[1] ?? []).flatMap((set) => set.bestMps ?? []);
  const faults = new Map<string, number>();
  for (const set of done)
    for (const fault of set.faults) faults.set(fault, (faults.get(fault) ?? 0) + 1);
  const watched = done.filter((set) => set.bounces !== undefined);
  const judged = done.filter((set) => !["no-target", "not-measured"].includes(set.standing));
  return {
    week: session.week,
    date: session.date,
    kind: session.kind,
    heightCm: session.heightCm,
    style: session.style,
    present: sets !== undefined,
    plannedSets: session.planned.sets,
    doneSets: done.length,
    cutSets: done.filter((set) => set.cut).length,
    reps: done.reduce((sum, set) => sum + set.reps, 0),
    loadKg: main?.[0],
    percent: main?.[1][0]?.percent,
    speedMps: mean(bests),
    speedSets: bests.length,
    fadeMps:
      bests.length > 1 ? (bests[0] as number) - (bests[bests.length - 1] as number) : undefined,
    onSpeed: judged.filter((set) => set.standing !== "under").length,
    judged: judged.length,
    meanStopS: mean(done.flatMap((set) => [...set.pausesS])),
    bounces:
      watched.length === 0 ? undefined : watched.reduce((sum, set) => sum + (set.bounces ?? 0), 0),
    meanContactMps: mean(done.flatMap((set) => [...set.contactsMps])),
    meanToPeakS: mean(done.flatMap((set) => [...set.toPeakS])),
    faults: [...faults]
      .map(([fault, times]) => ({ fault, times }))
      .sort((a, b) => b.times - a.times || a.fault.localeCompare(b.fault)),
  };
}
