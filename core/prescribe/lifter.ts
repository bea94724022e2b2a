import type { PlainMax } from "../maxes/records";
import type { ProfilePoint } from "../profile/line";
import type { DatedLine } from "../profile/target-speed";
import type { BasisFacts } from "../recipe/basis";
import type { BarHeights } from "../resistance/setup";
import type { MassUnit } from "../units/mass";
import type { LocalDate } from "../units/time";
import type { VelocityMetric } from "../units/velocity";

/** A speed weight as it was found, and the day. */
export interface FoundWeight {
  kg: number;
  on: LocalDate;
}

/** What an athlete brings to one lift variant. Every fact is there, or known to be missing. */
export interface LiftFacts {
  workingMax: PlainMax | undefined;
  profile: DatedLine | undefined;
  /** Every counted rep of that profile's test, in order at each load. */
  profileReps: readonly ProfilePoint[];
  /** Speed of peak force (m/s) and load of peak power (kg) in the newest test that has them. */
  peakForceMps: number | undefined;
  peakPowerKg: number | undefined;
  /** Whether those were peaks, not the end of a rise; undefined where not known. */
  peakForceReached: boolean | undefined;
  peakPowerReached: boolean | undefined;
  /** The heaviest ever lifted in it, competition or test, kg. */
  lifetimeBestKg: number | undefined;
  /**
   * What a coach made of today's form on this lift: decided ÷ planned, and who. Only where today's
   * session or card is asked for; a plan does not change by it.
   */
  today: { share: number; by: string } | undefined;
  /** The newest speed weight found in it. */
  found: FoundWeight | undefined;
  /** Bar heights at bottom and lockout, measured or by stature: what bands and chains pull at. */
  heights: BarHeights | undefined;
}

export const NO_LIFT_FACTS: LiftFacts = {
  workingMax: undefined,
  profile: undefined,
  profileReps: [],
  peakForceMps: undefined,
  peakPowerKg: undefined,
  peakForceReached: undefined,
  peakPowerReached: undefined,
  lifetimeBestKg: undefined,
  today: undefined,
  found: undefined,
  heights: undefined,
};

/** What an athlete brings to any work: plan, card, paper, session and pairing read this one. */
export interface Lifter {
  id: string;
  name: string;
  /** In which this athlete reads loads: the own one, else the team's. */
  unit: MassUnit;
  /** What this athlete may not do, in the words that cards and racks show; never a reason. */
  instructions: readonly string[];
  /** Years of real barbell training. */
  trainingYears: number | undefined;
  bodyKg: number | undefined;
  byVariant: Readonly<Record<string, LiftFacts>>;
}

/** A lifter with one lift in hand: what one set is worked out from. */
export type LifterAtLift = LiftFacts & Pick<Lifter, "trainingYears" | "bodyKg">;

export function atLift(lifter: Lifter, variantId: string): LifterAtLift {
  return {
    ...(lifter.byVariant[variantId] ?? NO_LIFT_FACTS),
    trainingYears: lifter.trainingYears,
    bodyKg: lifter.bodyKg,
  };
}

/**
 * What a basis reads of a lifter at a lift. A line counts where it was tested in that variant.
 * @param metric the metric that speeds are asked in; any that the line has where left out
 */
export function basisFacts(
  athlete: LifterAtLift,
  variantId: string,
  metric: VelocityMetric | undefined,
): BasisFacts {
  const { profile } = athlete;
  const fits =
    profile?.variantId === variantId && (metric === undefined || profile.line.metric === metric);
  return {
    maxKg: athlete.workingMax?.kg,
    line: fits ? profile.line : undefined,
    peakForceMps: fits ? athlete.peakForceMps : undefined,
    peakPowerKg: fits ? athlete.peakPowerKg : undefined,
    foundKg: athlete.found?.kg,
    bodyKg: athlete.bodyKg,
  };
}
