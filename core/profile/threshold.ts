import { standardDeviation } from "../numeric/statistics";
import type { LocalDate } from "../units/time";
import { formatVelocity, type VelocityMetric } from "../units/velocity";
import type { Working } from "../units/working";
import { say, written } from "../units/written";

/** Lifts that a bar's speed is measured on. */
export const LIFTS = [
  "bench",
  "squat",
  "box-squat",
  "deadlift",
  "trap-bar-deadlift",
  "press",
  "bench-pull",
  "pull-up",
  "hip-thrust",
] as const;
export type Lift = (typeof LIFTS)[number];

export const LIFT_NAMES: Record<Lift, string> = {
  bench: "Bench press",
  squat: "Squat",
  "box-squat": "Box squat",
  deadlift: "Deadlift",
  "trap-bar-deadlift": "Trap-bar deadlift",
  press: "Overhead press",
  "bench-pull": "Bench pull",
  "pull-up": "Pull-up",
  "hip-thrust": "Hip thrust",
};

/**
 * Minimum velocity thresholds: the mean concentric velocity of a maximal single, group means,
 * m/s (docs/sources.md). A box squat stands as a squat until it is measured.
 */
export const MVT_DEFAULTS_MPS: Record<Lift, { mps: number; note?: string }> = {
  bench: { mps: 0.17 },
  squat: { mps: 0.3 },
  "box-squat": { mps: 0.3, note: "as the squat until measured" },
  deadlift: { mps: 0.15 },
  "trap-bar-deadlift": { mps: 0.2, note: "weak source" },
  press: { mps: 0.19 },
  "bench-pull": { mps: 0.5 },
  "pull-up": { mps: 0.23 },
  "hip-thrust": { mps: 0.25 },
};

/** Spread of a threshold from lift to lift, m/s (one standard deviation). */
export const MVT_SD_MPS = 0.03;
/** The default counts as this many singles against the athlete's own. */
export const MVT_DEFAULT_WEIGHT = 1;

export interface OwnSingle {
  loadKg: number;
  velocityMps: number;
  metric: VelocityMetric;
  date: LocalDate;
}

export interface Threshold {
  mps: number;
  /** What it stood at before own singles, and the mean of the own ones. */
  defaultMps: number;
  ownMps: number | undefined;
  singles: number;
  sdMps: number;
  working: Working;
}

/**
 * The velocity threshold of a variant for an athlete: the lift's group mean (or the team's own),
 * moved towards the mean of the athlete's coach-confirmed maximal singles by their number,
 * (w·default + Σ own) ÷ (w + n). The group means are of MCV; for another metric there is no
 * default, and own singles of that metric are needed.
 */
export function velocityThreshold(input: {
  lift: Lift;
  metric: VelocityMetric;
  teamMps: number | undefined;
  singles: readonly OwnSingle[];
  defaultWeight?: number;
}): Threshold | undefined {
  const own = input.singles.filter((single) => single.metric === input.metric);
  const group = input.metric === "MCV" ? MVT_DEFAULTS_MPS[input.lift] : undefined;
  const start = input.teamMps ?? group?.mps;
  const asked = input.defaultWeight;
  const given = asked !== undefined && asked >= 0 && asked < 1000 ? asked : MVT_DEFAULT_WEIGHT;
  const weight = start === undefined ? 0 : given;
  if (weight + own.length === 0) return undefined;
  const sum = own.reduce((total, single) => total + single.velocityMps, 0);
  const mps = (weight * (start ?? 0) + sum) / (weight + own.length);
  const ownMps = own.length > 0 ? sum / own.length : undefined;
  const ownSd = own.length >= 3 ? standardDeviation(own.map((one) => one.velocityMps)) : undefined;
  return {
    mps,
    defaultMps: start ?? mps,
    ownMps,
    singles: own.length,
    sdMps: Math.max(ownSd ?? MVT_SD_MPS, 0.01),
    working: {
      title: `Velocity threshold, ${LIFT_NAMES[input.lift].toLowerCase()}`,
      lines: [
        {
          label: input.teamMps === undefined ? "Group mean" : "Set by the team",
          value: start === undefined ? "none for this metric" : `${formatVelocity(start)} m/s`,
          detail: input.teamMps === undefined ? group?.note : undefined,
        },
        ...own.map((single) => ({
          label: `Own maximal single, ${single.date}`,
          value: `${formatVelocity(single.velocityMps)} m/s`,
          detail: say`${written(single.loadKg)}, confirmed by a coach`,
        })),
        {
          label:
            own.length === 0
              ? "No own single yet"
              : `Default counts as ${weight}, own as ${own.length}`,
          value: `${formatVelocity(mps)} m/s`,
          emphasis: "answer",
        },
      ],
      sources: ["Group means: docs/sources.md, velocity thresholds"],
      changes: ["A confirmed maximal single with its speed, or the team's own default."],
    },
  };
}
