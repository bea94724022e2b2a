import { isFirstTime } from "../maxes/records";
import type { BasisKind } from "../recipe/basis";
import { formatKg, type MassUnit, plainNumber } from "../units/mass";
import { formatVelocity, isFilmed } from "../units/velocity";
import type { LiftFacts } from "./lifter";
import { type Rigging, riggingWords } from "./rigging";

/**
 * What is to be asked before an athlete's week is lifted: a load over the lifetime best, and a
 * peak that the test did not reach. DOMAIN 2 and 6.
 * @param loadsKg of the week's sets; undefined where one has none
 */
export function guardWords(input: {
  loadsKg: ReadonlyArray<number | undefined>;
  facts: Pick<
    LiftFacts,
    "lifetimeBestKg" | "peakForceReached" | "peakPowerReached" | "today" | "profile"
  >;
  basis: BasisKind;
  /** The recipe has a range of speeds of its own: no profile is asked for one. */
  coachSpeed: boolean;
  unit: MassUnit;
  /** More rest than the slot gives, s. */
  addRestS: number;
  /** A floor of the athlete's own, m/s. */
  floorMps: number | undefined;
}): string[] {
  const { facts, unit } = input;
  const heaviest = Math.max(0, ...input.loadsKg.map((kg) => kg ?? 0));
  const best = facts.lifetimeBestKg;
  const words: string[] = [];
  if (input.addRestS > 0) words.push(`${input.addRestS} s more rest than the slot gives`);
  if (input.floorMps !== undefined)
    words.push(`A floor of their own: ${formatVelocity(input.floorMps)} m/s`);
  const bySpeed = SPEED_BASES.has(input.basis);
  if (isFilmed(facts.profile?.source ?? "") && (bySpeed || !input.coachSpeed)) {
    words.push(
      `${bySpeed ? "Loads by speed" : "Wanted speeds"} are from a film's test: a device may read beside it`,
    );
  }
  if (facts.today) {
    words.push(
      `Today's form: ${plainNumber(100 * facts.today.share, 0)} % of the plan, decided by ${facts.today.by}`,
    );
  }
  if (best !== undefined && isFirstTime(heaviest, best)) {
    words.push(
      `${formatKg(heaviest, unit)} is above the lifetime best of ${formatKg(best, unit)}: ask first, stopping is no failure`,
    );
  }
  if (isPeakOpen(input.basis, facts)) {
    words.push(
      `Peak ${input.basis === "peak-force" ? "force" : "power"} was not reached in the test: the load is a lower bound`,
    );
  }
  return words;
}

/** Bases whose loads are read off a profile's line. */
const SPEED_BASES: ReadonlySet<BasisKind> = new Set(["speed", "peak-force", "peak-power"]);

/** Whether a basis stands on a peak that was still rising at the test's heaviest load. */
export const isPeakOpen = (
  basis: BasisKind,
  facts: Pick<LiftFacts, "peakForceReached" | "peakPowerReached">,
): boolean =>
  (basis === "peak-force" && facts.peakForceReached === false) ||
  (basis === "peak-power" && facts.peakPowerReached === false);

/**
 * What is an athlete's own in a week besides the loads, a line each: what hangs on the bar, and
 * what to ask first. Plan, CSV, card, paper and rack show these.
 */
export const ownWords = (
  input: Parameters<typeof guardWords>[0] & { rigging: Rigging },
): string[] => [...riggingWords(input.rigging, input.unit), ...guardWords(input)];
