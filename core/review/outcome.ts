import { Z90 } from "../numeric/normal";
import type { LocalDate } from "../units/time";
import type { CallEvidence } from "./calls";
import type { EqualSpeed } from "./equal-speed";

/** What became of a call: told from the days since, against what was so when it was decided. */
export type Outcome =
  | { known: false; why: "too-early" | "not-comparable" }
  | {
      known: true;
      days: number;
      /** Speed at the decision's load since, less what it was, m/s, 90 %. */
      changeMps: number;
      lowMps: number;
      highMps: number;
      verdict: "rose" | "fell" | "no-clear-change";
    };

/** Days of the lift since a decision before it is told. */
export const OUTCOME_DAYS = 1;

/**
 * What became of a call, at the load that it stood on: the mean of the days since, carried there by the
 * athlete's own slope, against the level that was known then. No experiment: whatever else changed
 * is in it too.
 */
export function whatBecame(
  level: CallEvidence["level"],
  decidedOn: LocalDate,
  speed: EqualSpeed,
): Outcome {
  if (!level || !speed.ok) return { known: false, why: "not-comparable" };
  const since = speed.days.filter((day) => day.date > decidedOn);
  if (since.length < OUTCOME_DAYS) return { known: false, why: "too-early" };
  const carried = speed.slopeMpsPerKg * (level.loadKg - speed.loadKg);
  const n = since.length;
  const mean = since.reduce((sum, day) => sum + day.speedMps, 0) / n + carried;
  const variance =
    since.reduce((sum, day) => sum + day.readingSdMps ** 2 + speed.daySdMps ** 2, 0) / (n * n) +
    level.sdMps ** 2;
  const changeMps = mean - level.speedMps;
  const half = Z90 * Math.sqrt(variance);
  return {
    known: true,
    days: n,
    changeMps,
    lowMps: changeMps - half,
    highMps: changeMps + half,
    verdict: changeMps > half ? "rose" : changeMps < -half ? "fell" : "no-clear-change",
  };
}
