import { plainNumber } from "../units/mass";
import type { LocalDate } from "../units/time";
import { filmedWords, formatVelocity, isFilmed, type VelocityMetric } from "../units/velocity";
import type { Working } from "../units/working";
import { say, written } from "../units/written";
import { type LoadVelocityLine, velocityAt } from "./line";

/**
 * Half-width of a target range when a target is one number: 0.05 m/s, about the day-to-day
 * error of a mean velocity at one load (see docs/sources.md).
 */
export const TARGET_HALF_WIDTH_MPS = 0.05;

/** Where a slot's target speed came from, best first. */
export type TargetSource = "coach" | "profile" | "group" | "not-set";

export interface TargetSpeed {
  lowMps: number;
  highMps: number;
  metric: VelocityMetric;
  source: Exclude<TargetSource, "not-set">;
  working: Working;
}

/** A dated line of one athlete and one lift variant. */
export interface DatedLine {
  line: LoadVelocityLine;
  variantId: string;
  testedOn: LocalDate;
  /** Where its speeds are from; see `VelocitySource`. */
  source?: string | undefined;
}

/**
 * The target range at a load: the coach's, else the athlete's own profile of this variant and
 * metric, else a labelled group curve where one exists for this metric, else not set (undefined).
 * The coach's range holds at every load.
 */
export function targetSpeed(input: {
  variantId: string;
  loadKg: number;
  metric: VelocityMetric;
  coach: { lowMps: number; highMps: number } | undefined;
  profile: DatedLine | undefined;
  /** Percent of 1RM this load is, where a group curve may be used. */
  percentOfMax: number | undefined;
  groupCurve: GroupCurve | undefined;
}): TargetSpeed | undefined {
  const { coach, profile, metric, loadKg, variantId } = input;
  const range = (low: number, high: number) =>
    `${formatVelocity(low)} to ${formatVelocity(high)} m/s`;
  if (coach) {
    return {
      ...coach,
      metric,
      source: "coach",
      working: {
        title: "Wanted speed",
        lines: [
          {
            label: "Set by the coach",
            value: range(coach.lowMps, coach.highMps),
            detail: metric,
            emphasis: "answer",
          },
        ],
        changes: ["Another range in the recipe."],
      },
    };
  }
  if (profile && profile.variantId === variantId && profile.line.metric === metric) {
    const centre = velocityAt(profile.line, loadKg);
    if (centre > 0) {
      const low = centre - TARGET_HALF_WIDTH_MPS;
      const high = centre + TARGET_HALF_WIDTH_MPS;
      return {
        lowMps: low,
        highMps: high,
        metric,
        source: "profile",
        working: {
          title: "Wanted speed",
          lines: [
            {
              label: `Own profile, ${profile.testedOn}`,
              value: `v = ${profile.line.interceptMps.toFixed(3)} − ${Math.abs(profile.line.slopeMpsPerKg).toFixed(5)} × load`,
              detail: `n ${profile.line.n}, R² ${profile.line.rSquared.toFixed(3)}, ${metric}${filmedWords({ filmed: isFilmed(profile.source ?? "") })}`,
            },
            { label: say`At ${written(loadKg)}`, value: `${formatVelocity(centre)} m/s` },
            {
              label: `± ${TARGET_HALF_WIDTH_MPS} m/s`,
              value: range(low, high),
              emphasis: "answer",
            },
          ],
          sources: ["Least squares on the fastest rep at each load of one test"],
          changes: ["A newer profile test, or a range set in the recipe."],
        },
      };
    }
  }
  if (input.groupCurve && input.percentOfMax !== undefined && input.groupCurve.metric === metric) {
    const centre = groupVelocity(input.groupCurve, input.percentOfMax);
    return {
      lowMps: centre - TARGET_HALF_WIDTH_MPS,
      highMps: centre + TARGET_HALF_WIDTH_MPS,
      metric,
      source: "group",
      working: {
        title: "Wanted speed",
        lines: [
          {
            label: `Group curve at ${input.percentOfMax.toFixed(0)} %`,
            value: `${formatVelocity(centre)} m/s`,
            detail: "a group's mean, not this athlete's",
          },
          {
            label: `± ${TARGET_HALF_WIDTH_MPS} m/s`,
            value: range(centre - TARGET_HALF_WIDTH_MPS, centre + TARGET_HALF_WIDTH_MPS),
            emphasis: "answer",
          },
        ],
        sources: [input.groupCurve.source],
        changes: ["A profile test of this athlete."],
      },
    };
  }
  return undefined;
}

/** %1RM = c2·v² + c1·v + c0, for v in m/s, clamped to 30–100 %. */
export interface GroupCurve {
  metric: VelocityMetric;
  c2: number;
  c1: number;
  c0: number;
  source: string;
}

export const GROUP_CURVES: Record<"bench" | "squat", GroupCurve> = {
  bench: {
    metric: "MPV",
    c2: 8.4326,
    c1: -73.501,
    c0: 112.33,
    source: "González-Badillo & Sánchez-Medina 2010, Smith machine bench press",
  },
  squat: {
    metric: "MPV",
    c2: -5.961,
    c1: -50.71,
    c0: 117.0,
    source: "Sánchez-Medina et al. 2017, full squat",
  },
};

/** The group's velocity at a percentage: the falling branch of the quadratic. */
export function groupVelocity(curve: GroupCurve, percent: number): number {
  const held = Math.min(100, Math.max(30, percent));
  const { c2, c1 } = curve;
  const c0 = curve.c0 - held;
  const root = Math.sqrt(c1 * c1 - 4 * c2 * c0);
  return (-c1 - root) / (2 * c2);
}

/** The group's percentage at a velocity, held to 30–100 %; `held` says whether it had to be. */
export function groupPercent(
  curve: GroupCurve,
  velocityMps: number,
): { percent: number; held: boolean } {
  const exact = curve.c2 * velocityMps ** 2 + curve.c1 * velocityMps + curve.c0;
  const percent = Math.min(100, Math.max(30, exact));
  return { percent, held: percent !== exact };
}

/** A load by a group's curve, in place of a line of one's own. */
export const groupWorking = (curve: GroupCurve, velocityMps: number): Working => ({
  title: "By a group's curve",
  lines: [
    {
      label: "%1RM",
      value: `${curve.c2}v² ${curve.c1 < 0 ? "−" : "+"} ${Math.abs(curve.c1)}v + ${curve.c0}`,
      detail: `${curve.metric}, held to 30–100 %`,
    },
    { label: "v", value: `${formatVelocity(velocityMps)} m/s` },
    {
      label: "Share",
      value: `${plainNumber(groupPercent(curve, velocityMps).percent, 1)} %`,
      emphasis: "answer",
    },
  ],
  sources: [curve.source],
  changes: ["An own profile: a group's mean is not this athlete."],
});
