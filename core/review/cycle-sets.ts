import type { CycleSet } from "./cycle-week";
import type { LiftSum } from "./session-sum";

/**
 * The done sets of a lift's day as a week's review counts them.
 * @param smallestStopS the slot's smallest stop on the box, s; undefined where none is asked
 */
export function cycleSets(sum: LiftSum, smallestStopS: number | undefined): CycleSet[] {
  return sum.sets.map((set) => ({
    loadKg: set.loadKg ?? 0,
    percent: set.percent,
    // Speeds of an older processing compare with their own day's alone, not over the weeks.
    bestMps: set.older ? undefined : set.bestMps,
    standing: set.standing,
    reps: set.counted,
    pausesS: set.box.pausesS,
    bounces:
      smallestStopS === undefined || set.box.pausesS.length === 0
        ? undefined
        : set.box.pausesS.filter((one) => one < smallestStopS).length,
    contactsMps: set.box.contactsMps,
    toPeakS: set.box.toPeakS,
    faults: set.faults,
    cut: set.cut,
  }));
}
