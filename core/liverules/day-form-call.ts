import { stepFrom } from "../barload/load";
import type { LoadingGear } from "../barload/loading-gear";
import { type RepAtLoad, readinessChange, todaysForm } from "../profile/todays-form";
import { formatVelocity } from "../units/velocity";
import { say, written } from "../units/written";
import { nearestWithin } from "./nearest-within";
import type { Call } from "./set";

/** What an athlete's newest test had, for judging a day by the way up. */
export interface TestedReps {
  /** Every counted rep in its order. */
  reps: readonly RepAtLoad[];
  /** Where its speeds are from; absent in older sessions: measured. */
  source?: string | undefined;
}

export interface DayFormInput {
  test: TestedReps;
  /** Counted and measured reps of the way up, each set's in their order. */
  wayUp: readonly RepAtLoad[];
  /** The first work set as it stands. */
  first: { loadKg: number; target: { lowMps: number; highMps: number } };
  gear: LoadingGear;
}

/**
 * The call on today's form from the way up, before the first work set: the load that gives the
 * middle of the wanted range today, where it is away from the planned one by more than a loadable
 * step and one standard deviation, ten percent at most.
 *
 * Reps lighter than the test's lightest load or heavier than its heaviest do not count: the line
 * says nothing there, and an empty bar is seldom moved as fast as it goes.
 *
 * @example with the profile and the day of docs/sources.md and 80 kg planned for 0.75 to 0.85 m/s
 *   the call is to lower to 72.5 kg
 * @returns undefined where no call is due, or a day cannot be judged by these reps
 */
export function dayFormCall({ test, wayUp, first, gear }: DayFormInput): Call | undefined {
  const loads = test.reps.map((rep) => rep.loadKg);
  const lightest = Math.min(...loads);
  const heaviest = Math.max(...loads);
  const today = wayUp.filter(({ loadKg }) => loadKg >= lightest && loadKg <= heaviest);
  const targetMps = (first.target.lowMps + first.target.highMps) / 2;
  const found = todaysForm({ profile: test.reps, today, thresholdMps: undefined, targetMps });
  if (!found.ok) return undefined;
  const next = stepFrom(
    gear,
    first.loadKg,
    found.targetLoad.estimate > first.loadKg ? 1e-6 : -1e-6,
  );
  if (!next) return undefined;
  const change = readinessChange({
    plannedKg: first.loadKg,
    targetLoadKg: found.targetLoad.estimate,
    targetSdKg: found.targetSdKg,
    stepKg: Math.abs(next.totalKg - first.loadKg),
  });
  const loading = change.changes && nearestWithin(gear, first.loadKg, change.loadKg - first.loadKg);
  if (!loading) return undefined;
  const toKg = loading.totalKg;
  const shift = found.shift.estimate;
  return {
    kind: "day-form",
    proposal: say`${toKg > first.loadKg ? "Raise" : "Lower"} the first set, ${written(first.loadKg)}, to ${written(toKg)} today`,
    evidence: say`${today.length} ${today.length === 1 ? "rep" : "reps"} on the way up: ${shift < 0 ? "slower" : "faster"} than the profile by ${Math.abs(shift).toFixed(2)} m/s; ${formatVelocity(targetMps)} m/s is ${written(found.targetLoad.estimate, 1)} today, 90 % ${written(found.targetLoad.low, 1)} to ${written(found.targetLoad.high, 1)}.${change.reason === "held-to-ten-percent" ? " Held to ten percent." : ""} The stored max stays.`,
    action: { type: "load", deltaKg: toKg - first.loadKg, toKg },
    velocities: today.slice(-3).map((rep) => rep.velocityMps),
    target: undefined,
  };
}
