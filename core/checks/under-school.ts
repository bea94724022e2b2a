import { type BarLoading, loadBar } from "../barload/load";
import type { LoadingGear, RoundingMode } from "../barload/loading-gear";
import { describeRefusal } from "../barload/loading-words";
import { loadAt, velocityAt } from "../profile/line";
import { BASIS_REFUSALS, type BasisFacts, basisLoad, type LoadBasis } from "../recipe/basis";
import type { Recipe, WaveSet } from "../recipe/recipe";
import { type MassUnit, plainNumber } from "../units/mass";
import type { Working, WorkingLine } from "../units/working";
import { written } from "../units/written";
import { ENDING_NAMES, type School } from "./school";

/** One ask of a slot as a school would set it for one athlete. */
export interface UnderSchool {
  basis: LoadBasis | undefined;
  loading: BarLoading | undefined;
  /** Why there is no load, or what the load leaves out. */
  reason: string | undefined;
  working: Working | undefined;
  /** Reps by the school's ceiling for the aim. */
  reps: number;
  rest: { leastS: number; mostS: number };
  ends: string;
}

export interface UnderSchoolInput {
  school: School;
  recipe: Recipe;
  set: WaveSet;
  facts: BasisFacts;
  /** Speed of a maximal single of the lift, m/s: where the own line's max is read. */
  thresholdMps: number | undefined;
  gear: LoadingGear;
  mode: RoundingMode;
  unit: MassUnit;
}

/**
 * The same set under a school: what the recipe asks becomes a share of the working max, and the
 * school's own way of setting loads turns that share into its load. A school that goes by speed
 * takes the share of the max that the athlete's line gives at the lift's threshold; one that goes
 * by reserve takes the whole reps that the share leaves (Epley's formula turned round).
 */
export function underSchool(input: UnderSchoolInput): UnderSchool {
  const { school, recipe, set } = input;
  const ceiling =
    recipe.aim === "speed"
      ? school.speedReps
      : recipe.aim === "power"
        ? school.powerReps
        : set.reps;
  const loss = school.loss[recipe.aim];
  const rules = {
    reps: Math.min(set.reps, ceiling),
    rest: restUnder(school, recipe),
    ends:
      school.ending === "loss" && loss !== undefined
        ? `at ${plainNumber(loss)} % loss`
        : ENDING_NAMES[school.ending],
  };
  const none = (reason: string, basis?: LoadBasis): UnderSchool => ({
    ...rules,
    basis,
    reason,
    loading: undefined,
    working: undefined,
  });
  const found = basisUnder(input);
  if (!found.ok) return none(found.reason);
  const load = basisLoad(found.basis, input.facts, rules.reps);
  if (!load.ok) return none(BASIS_REFUSALS[load.reason], found.basis);
  const bar = barUnder(school, recipe, found.basis, load.kg);
  if (!bar.ok) return none(bar.reason, found.basis);
  const loading = loadBar(input.gear, bar.kg * (set.factor ?? 1), input.mode);
  if (!loading.ok) return none(describeRefusal(loading, input.unit), found.basis);
  return {
    ...rules,
    basis: found.basis,
    loading,
    reason: undefined,
    working: {
      ...load.working,
      lines: [
        ...found.lines,
        ...load.working.lines.map((line) => ({ ...line, emphasis: undefined })),
        ...bar.lines,
        {
          label: "Nearest on this bar",
          value: written(loading.totalKg),
          emphasis: "answer" as const,
        },
      ],
    },
  };
}

/** Rest of speed and power work by the school; other work keeps the recipe's. */
function restUnder(school: School, recipe: Recipe): Recipe["rest"] {
  if (recipe.aim === "speed") return school.rest;
  if (recipe.aim !== "power") return recipe.rest;
  return {
    leastS: Math.max(recipe.rest.leastS, school.powerRestS),
    mostS: Math.max(recipe.rest.mostS, school.powerRestS),
  };
}

type Found = { ok: true; basis: LoadBasis; lines: WorkingLine[] } | { ok: false; reason: string };

function basisUnder({ school, recipe, set, facts, thresholdMps }: UnderSchoolInput): Found {
  if (school.loadBy === recipe.basis) return { ok: true, basis: set.basis, lines: [] };
  switch (school.loadBy) {
    case "eye":
      return { ok: true, basis: { by: "eye" }, lines: [] };
    case "peak-force":
      return { ok: true, basis: { by: "peak-force", slowerMps: 0 }, lines: [] };
    case "peak-power":
      return { ok: true, basis: { by: "peak-power", percent: 100 }, lines: [] };
    case "found":
    case "fixed":
    case "body":
      return { ok: false, reason: "This school sets such loads by hand." };
  }
  const asked = basisLoad(set.basis, facts, set.reps);
  if (!asked.ok) return { ok: false, reason: BASIS_REFUSALS[asked.reason] };
  const percent = set.basis.by === "percent" ? set.basis.percent : asked.percent;
  if (percent === undefined) return { ok: false, reason: BASIS_REFUSALS["no-max"] };
  const share: WorkingLine = {
    label: "The recipe's share of the working max",
    value: `${plainNumber(percent, 1)} %`,
  };
  switch (school.loadBy) {
    case "percent":
      return { ok: true, basis: { by: "percent", percent }, lines: [share] };
    case "reserve": {
      if (percent <= 0 || percent > 100)
        return { ok: false, reason: "Over the working max there is no reserve." };
      const reserve = Math.max(0, Math.round(30 * (100 / percent - 1)) - set.reps);
      return {
        ok: true,
        basis: { by: "reserve", reserve },
        lines: [share, { label: "Leaves, in whole reps", value: `${reserve} in reserve` }],
      };
    }
    case "speed": {
      if (!facts.line) return { ok: false, reason: BASIS_REFUSALS["no-profile"] };
      if (thresholdMps === undefined)
        return { ok: false, reason: "This lift has no speed of a maximal single." };
      const lineMaxKg = loadAt(facts.line, thresholdMps);
      const mps = velocityAt(facts.line, (lineMaxKg * percent) / 100);
      return {
        ok: true,
        basis: { by: "speed", mps },
        lines: [
          share,
          {
            label: `Max by the own line, at ${thresholdMps.toFixed(2)} m/s`,
            value: written(lineMaxKg, 1),
            detail: "tends to be high (Banyard et al. 2017)",
          },
        ],
      };
    }
  }
}

type OnBar = { ok: true; kg: number; lines: WorkingLine[] } | { ok: false; reason: string };

/** What goes on the bar where the school's percentage counts bands or chains in. */
function barUnder(school: School, recipe: Recipe, basis: LoadBasis, kg: number): OnBar {
  const share = recipe.resistancePercent ?? 0;
  if (basis.by !== "percent" || share === 0 || school.convention === "bar")
    return { ok: true, kg, lines: [] };
  if (school.convention === "mean")
    return {
      ok: false,
      reason:
        "Counts the mean over the range: the bar's heights of this athlete are asked for in the Lab.",
    };
  return {
    ok: true,
    kg: kg * (1 - share / 100),
    lines: [
      {
        label: `Less ${plainNumber(share)} % of the lockout total in bands or chains`,
        value: written(kg * (1 - share / 100), 1),
      },
    ],
  };
}
