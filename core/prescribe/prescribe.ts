import { type BarLoading, loadBar } from "../barload/load";
import type { LoadingGear, RoundingMode } from "../barload/loading-gear";
import { describeRefusal, loadingWorking } from "../barload/loading-words";
import { maxWorking, TRUSTED_TRAINING_YEARS } from "../maxes/records";
import { type GroupCurve, targetSpeed } from "../profile/target-speed";
import {
  BASIS_REFUSALS,
  type BasisFacts,
  type BasisLoad,
  basisLoad,
  basisText,
  describeBasis,
} from "../recipe/basis";
import { percentOf, type Recipe, type WaveSet } from "../recipe/recipe";
import { targetOf } from "../recipe/speeds";
import { barUnder, rigWords } from "../resistance/rig";
import { CONVENTION_NAMES } from "../resistance/setup";
import { type Mass, type MassUnit, plainNumber } from "../units/mass";
import type { VelocityMetric } from "../units/velocity";
import type { Working, WorkingLine } from "../units/working";
import { say, written } from "../units/written";
import { basisFacts, type LifterAtLift } from "./lifter";
import type { Rigging } from "./rigging";

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
  /**
   * What hangs on the bar, how it is rigged, and what bar and resistance come to, kg; absent where
   * nothing does, and in sessions from before it was kept. `loadKg` is the bar with its plates.
   */
  resistance?: SetResistance;
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

export interface SetResistance {
  /** "1 × Short band a side, peg at 5 cm". */
  words: string;
  bottomKg: number;
  lockoutKg: number;
  meanKg: number;
  /** Of the load at lockout, %. */
  sharePercent: number;
  heightsMeasured: boolean;
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
  /** What hangs on the bar in this athlete's week. */
  rigging: Rigging;
  /** In which a reason without a load is written. */
  unit: MassUnit;
  /** Why no rack stands for this lift: then there is no load. */
  noRack?: string;
}

export type SetLoad =
  | { ok: true; loading: BarLoading; asked: BasisLoad | undefined }
  | { ok: false; reason: string };

export const DELOAD_UNSET =
  "The deload's factors are not set. Set them once under Coach-set values.";

/**
 * The load of one set on one bar: the basis, the week's factor, less what hangs on it where the
 * percentage counts that; the coach's own load, which is the bar's, before all. Without workings, so that a whole squad's block is cheap.
 */
export function loadOfSet(
  input: Pick<PrescribeInput, "set" | "gear" | "mode" | "overrideKg" | "rigging" | "unit"> & {
    facts: BasisFacts;
    variantName: string;
    /** Of today's form, of the load; 1 where nothing was decided. */
    todayShare?: number;
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
    const { rigging } = input;
    if (rigging.kind === "not-rigged" && rigging.convention !== "bar") {
      return { ok: false, reason: rigging.reason };
    }
    askedKg = found.kg * set.factor * (input.todayShare ?? 1);
    if (rigging.kind === "rigged") askedKg = barUnder(rigging.convention, askedKg, rigging.rig);
    asked = found;
  }
  const loading = loadBar(input.gear, askedKg, input.mode);
  return loading.ok
    ? { ok: true, loading, asked }
    : { ok: false, reason: describeRefusal(loading, input.unit) };
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
    asked: describeBasis(set.basis, input.unit),
    percent: percentOf(set),
    percentOf: `working max, ${variant.name}`,
    informationOnly,
    overridden: overrideKg !== undefined,
  };
  const facts = basisFacts(athlete, variant.id, input.metric);
  const found: SetLoad =
    input.noRack === undefined
      ? loadOfSet({
          ...input,
          facts,
          variantName: variant.name,
          todayShare: athlete.today?.share ?? 1,
        })
      : { ok: false, reason: input.noRack };
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
  const resistance = resistanceOn(input.rigging, loading.totalKg);
  // A percentage counts what its convention counts; a speed is slowed by all that hangs on.
  const counted = countedKg(input.rigging, loading.totalKg);
  const slowedKg = resistance?.meanKg ?? loading.totalKg;
  const truePercent = max ? (100 * counted) / max.kg : undefined;
  const target = targetSpeed({
    variantId: variant.id,
    loadKg: slowedKg,
    metric: input.metric,
    coach: targetOf(recipe),
    profile: athlete.profile,
    percentOfMax: max && (100 * slowedKg) / max.kg,
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
                  label: say`${basisText(set.basis)} of it`,
                  value: written(
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
                  value: written(loading.askedKg),
                  detail: "the week's factor",
                },
              ]),
          ...(athlete.today
            ? [
                {
                  label: `× ${plainNumber(athlete.today.share, 3)}, today's form`,
                  value: written(loading.askedKg),
                  detail: `decided by ${athlete.today.by}`,
                },
              ]
            : []),
        ]
      : [
          ...(max ? maxWorking(max, variant.name).lines : []),
          {
            label: basisText(set.basis),
            value: "set aside",
            detail: `${recipe.name}, set ${set.number}`,
          },
          { label: "Coach's own load", value: written(overrideKg) },
        ];
  const working: Working = {
    title: say`${written(loading.totalKg)}, set ${set.number}`,
    lines: [
      ...askedLines,
      ...rigLines(input.rigging, resistance),
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
    ...(resistance ? { resistance } : {}),
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

/** The load that a percentage under its convention is of, kg. */
function countedKg(rigging: Rigging, barKg: number): number {
  if (rigging.kind !== "rigged") return barKg;
  const { convention, rig } = rigging;
  return barKg + (convention === "bar" ? 0 : convention === "mean" ? rig.meanKg : rig.lockoutKg);
}

/** What hangs on a built bar, and what they come to together. */
function resistanceOn(rigging: Rigging, barKg: number): SetResistance | undefined {
  if (rigging.kind !== "rigged") return undefined;
  const { rig } = rigging;
  return {
    words: rigWords(rig),
    bottomKg: barKg + rig.bottomKg,
    lockoutKg: barKg + rig.lockoutKg,
    meanKg: barKg + rig.meanKg,
    sharePercent: (100 * rig.lockoutKg) / (barKg + rig.lockoutKg),
    heightsMeasured: rig.heightsMeasured,
  };
}

function rigLines(rigging: Rigging, on: SetResistance | undefined): WorkingLine[] {
  if (rigging.kind === "not-rigged") {
    return [{ label: "Bands or chains", value: "none hung", detail: rigging.reason }];
  }
  if (rigging.kind === "free" || !on) return [];
  return [
    { label: on.words, value: CONVENTION_NAMES[rigging.convention] },
    {
      label: "Bar and resistance",
      value: say`${written(on.bottomKg, 1)} at the bottom, ${written(on.lockoutKg, 1)} at lockout`,
      detail: say`mean ${written(on.meanKg, 1)}; ${plainNumber(on.sharePercent, 0)} % of the lockout${on.heightsMeasured ? "" : "; bar heights by stature, not measured"}`,
    },
  ];
}
