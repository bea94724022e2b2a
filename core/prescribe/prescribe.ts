import { type BarLoading, describeRefusal, loadBar, loadingWorking } from "../barload/load";
import type { LoadingGear, RoundingMode } from "../barload/loading-gear";
import { maxWorking, TRUSTED_TRAINING_YEARS } from "../maxes/records";
import { type GroupCurve, targetSpeed } from "../profile/line";
import {
  BASIS_REFUSALS,
  type BasisFacts,
  type BasisLoad,
  basisLoad,
  describeBasis,
} from "../recipe/basis";
import { percentOf, type Recipe, type WaveSet } from "../recipe/recipe";
import { targetOf } from "../recipe/speeds";
import { formatKg, type Mass, plainNumber } from "../units/mass";
import type { VelocityMetric } from "../units/velocity";
import type { Working, WorkingLine } from "../units/working";
import { basisFacts, type LifterAtLift } from "./lifter";

/** One set of one athlete, with every number settled for the room it is done in. */
export interface SetPrescription {
  key: string;
  number: number;
  reps: number;
  repsTo?: number | undefined;
  cycleItem: string | undefined;
  /** What was asked, in words: "62.5 %", "0.70 m/s". */
  asked?: string;
  /** Where the load is a percentage of the working max. */
  percent?: number | undefined;
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

export interface PrescribeInput {
  recipe: Recipe;
  set: WaveSet;
  variant: { id: string; name: string };
  athlete: LifterAtLift;
  gear: LoadingGear;
  mode: RoundingMode;
  metric: VelocityMetric;
  groupCurve: GroupCurve | undefined;
  /** A coach's load for this set, kg. */
  overrideKg?: number | undefined;
}

export type SetLoad =
  | { ok: true; loading: BarLoading; asked: BasisLoad | undefined }
  | { ok: false; reason: string };

export const DELOAD_UNSET =
  "The deload's factors are not set. Set them once under Coach-set values.";

/**
 * The load of one set on one bar: the basis, the week's factor, the coach's own load before both;
 * without workings, so that a whole squad's block is cheap.
 */
export function loadOfSet(
  input: Pick<PrescribeInput, "set" | "gear" | "mode" | "overrideKg"> & {
    facts: BasisFacts;
    variantName: string;
  },
): SetLoad {
  const { set, facts, overrideKg } = input;
  let askedKg = overrideKg;
  let asked: BasisLoad | undefined;
  if (askedKg === undefined) {
    if (set.factor === undefined) return { ok: false, reason: DELOAD_UNSET };
    const found = basisLoad(set.basis, facts, set.reps);
    if (!found.ok) {
      return {
        ok: false,
        reason:
          found.reason === "no-max"
            ? `No working max for ${input.variantName}. Choose a record on the athlete's page.`
            : BASIS_REFUSALS[found.reason],
      };
    }
    askedKg = found.kg * set.factor;
    asked = found;
  }
  const loading = loadBar(input.gear, askedKg, input.mode);
  return loading.ok
    ? { ok: true, loading, asked }
    : { ok: false, reason: describeRefusal(loading) };
}

/** Basis → load → plates → true percentage → wanted speed, with its working. */
export function prescribeSet(input: PrescribeInput): SetPrescription {
  const { set, variant, athlete, recipe, overrideKg } = input;
  const max = athlete.workingMax;
  const informationOnly =
    athlete.trainingYears !== undefined && athlete.trainingYears < TRUSTED_TRAINING_YEARS;
  const base = {
    key: set.key,
    number: set.number,
    reps: set.reps,
    repsTo: set.repsTo,
    cycleItem: set.cycleItem,
    asked: describeBasis(set.basis),
    percent: percentOf(set),
    percentOf: `working max, ${variant.name}`,
    informationOnly,
    overridden: overrideKg !== undefined,
  };
  const facts = basisFacts(athlete, variant.id, input.metric);
  const found = loadOfSet({ ...input, facts, variantName: variant.name });
  if (!found.ok) {
    return {
      ...base,
      loadKg: undefined,
      loadReason: found.reason,
      side: [],
      truePercent: undefined,
      target: undefined,
      working: {
        title: `Set ${set.number}`,
        lines: [{ label: "No load", value: "not set", detail: found.reason }],
      },
    };
  }
  const { loading } = found;
  const askedWorking = found.asked?.ok ? found.asked.working : undefined;
  const truePercent = max ? (100 * loading.totalKg) / max.kg : undefined;
  const target = targetSpeed({
    variantId: variant.id,
    loadKg: loading.totalKg,
    metric: input.metric,
    coach: targetOf(recipe),
    profile: athlete.profile,
    percentOfMax: truePercent,
    groupCurve: input.groupCurve,
  });
  const byMax = set.basis.by === "percent" && max !== undefined;
  const askedLines: WorkingLine[] =
    overrideKg === undefined
      ? [
          ...(byMax
            ? [
                ...maxWorking(max, variant.name).lines,
                {
                  label: `${describeBasis(set.basis)} of it`,
                  value: formatKg(
                    (max.kg * (set.basis.by === "percent" ? set.basis.percent : 0)) / 100,
                  ),
                  detail: `${recipe.name}, set ${set.number}`,
                },
              ]
            : (askedWorking?.lines ?? [])),
          ...(set.factor === 1 || set.factor === undefined
            ? []
            : [
                {
                  label: `× ${plainNumber(set.factor, 3)}`,
                  value: formatKg(loading.askedKg),
                  detail: "the week's factor",
                },
              ]),
        ]
      : [
          ...(max ? maxWorking(max, variant.name).lines : []),
          {
            label: describeBasis(set.basis),
            value: "set aside",
            detail: `${recipe.name}, set ${set.number}`,
          },
          { label: "Coach's own load", value: formatKg(overrideKg) },
        ];
  const working: Working = {
    title: `${formatKg(loading.totalKg)}, set ${set.number}`,
    lines: [
      ...askedLines,
      ...loadingWorking(loading, max?.kg),
      ...(target ? target.working.lines : [{ label: "Wanted speed", value: "not set" }]),
    ],
    sources: [
      byMax
        ? "Percentage of the working max, rounded to this room's plates; a tie goes down"
        : "Load by the recipe's basis, rounded to this room's plates; a tie goes down",
      ...(askedWorking?.sources ?? []),
    ],
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
