import type { LoadingGear, RoundingMode } from "../barload/gear";
import { describeRefusal, loadBar, loadingWorking } from "../barload/load";
import { TRUSTED_TRAINING_YEARS, type WorkingMax } from "../maxes/records";
import { type DatedLine, type GroupCurve, targetSpeed } from "../profile/line";
import { formatKg, type Mass } from "../units/mass";
import { formatPercent } from "../units/percent";
import type { VelocityMetric } from "../units/velocity";
import type { Working } from "../units/working";
import type { Recipe, WaveSet } from "../wave/recipe";

/** One set of one athlete, with every number settled for the room it is done in. */
export interface SetPrescription {
  key: string;
  number: number;
  reps: number;
  cycleItem: string | undefined;
  percent: number;
  /** What the percentage is of, in words. */
  percentOf: string;
  /** Undefined where no load can be given; `loadReason` then says why. */
  loadKg: number | undefined;
  loadReason: string | undefined;
  side: Mass[];
  truePercent: number | undefined;
  /** Grey: the athlete's max is not to be trusted yet. */
  informationOnly: boolean;
  /** A coach's own load in place of the recipe's. */
  overridden: boolean;
  target: { lowMps: number; highMps: number; metric: VelocityMetric; source: string } | undefined;
  working: Working;
}

/** What is known of the athlete for one lift variant. */
export interface AthleteBase {
  workingMax: WorkingMax | undefined;
  profile: DatedLine | undefined;
  /** Years of real barbell training. */
  trainingYears: number | undefined;
}

export interface PrescribeInput {
  recipe: Recipe;
  set: WaveSet;
  variant: { id: string; name: string };
  athlete: AthleteBase;
  gear: LoadingGear;
  mode: RoundingMode;
  metric: VelocityMetric;
  groupCurve: GroupCurve | undefined;
  /** A coach's load for this set, kg. */
  overrideKg?: number;
}

/** Percent → load → plates → true percentage → wanted speed, with its working. */
export function prescribeSet(input: PrescribeInput): SetPrescription {
  const { set, variant, athlete, recipe } = input;
  const max = athlete.workingMax;
  const percentOf = `working max, ${variant.name}`;
  const informationOnly =
    athlete.trainingYears !== undefined && athlete.trainingYears < TRUSTED_TRAINING_YEARS;
  const base = {
    key: set.key,
    number: set.number,
    reps: set.reps,
    cycleItem: set.cycleItem,
    percent: set.percent,
    percentOf,
    informationOnly,
    overridden: input.overrideKg !== undefined,
  };
  const refuse = (reason: string): SetPrescription => ({
    ...base,
    loadKg: undefined,
    loadReason: reason,
    side: [],
    truePercent: undefined,
    target: undefined,
    working: {
      title: `Set ${set.number}`,
      lines: [{ label: "No load", value: "not set", detail: reason }],
    },
  });
  if (!max && input.overrideKg === undefined) {
    return refuse(`No working max for ${variant.name}. Choose a record on the athlete's page.`);
  }
  const askedKg = input.overrideKg ?? ((max as WorkingMax).kg * set.percent) / 100;
  const loading = loadBar(input.gear, askedKg, input.mode);
  if (!loading.ok) return refuse(describeRefusal(loading));

  const truePercent = max ? (100 * loading.totalKg) / max.kg : undefined;
  const target = targetSpeed({
    variantId: variant.id,
    loadKg: loading.totalKg,
    metric: input.metric,
    coach: recipe.target,
    profile: athlete.profile,
    percentOfMax: truePercent,
    groupCurve: input.groupCurve,
  });
  const askedLine = {
    label: `${formatPercent(set.percent)} of it`,
    value: input.overrideKg === undefined ? formatKg(askedKg) : "set aside",
    detail: `${recipe.name}, set ${set.number}`,
  };
  const working: Working = {
    title: `${formatKg(loading.totalKg)}, set ${set.number}`,
    lines: [
      ...(max ? max.working.lines : []),
      askedLine,
      ...(input.overrideKg === undefined
        ? []
        : [{ label: "Coach's own load", value: formatKg(input.overrideKg) }]),
      ...loadingWorking(loading, max?.kg),
      ...(target ? target.working.lines : [{ label: "Wanted speed", value: "not set" }]),
    ],
    sources: ["Percentage of the working max, rounded to this room's plates; a tie goes down"],
    changes: ["The recipe, the working max or its factor, the room's bar and plates."],
  };
  if (informationOnly) {
    working.lines.push({
      label: "Training age",
      value: `${athlete.trainingYears} years`,
      detail: `under ${TRUSTED_TRAINING_YEARS}: percentages are information only; ramp by speed`,
    });
  }
  return {
    ...base,
    loadKg: loading.totalKg,
    loadReason: undefined,
    side: loading.side.plates,
    truePercent,
    target: target && {
      lowMps: target.lowMps,
      highMps: target.highMps,
      metric: target.metric,
      source: target.source,
    },
    working,
  };
}
