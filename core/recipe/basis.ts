import { REP_MAX_MOST_REPS } from "../maxes/rep-max";
import { type LoadVelocityLine, loadAt, velocityAt } from "../profile/line";
import { type MassUnit, plainNumber } from "../units/mass";
import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";
import { readIn, say, type Text, written } from "../units/written";

/**
 * What sets a load. Every way of DOMAIN 12 is one of these; a slot of a plan and the bench's
 * side-by-side both ask here.
 */
export type LoadBasis =
  /** Percent of the working max of the slot's variant. */
  | { by: "percent"; percent: number }
  /** The load at which the athlete's own line reaches this speed. */
  | { by: "speed"; mps: number }
  /** The load at the speed of the athlete's peak force, that much slower (never faster). */
  | { by: "peak-force"; slowerMps: number }
  /** Percent of the load of the athlete's own peak power. */
  | { by: "peak-power"; percent: number }
  /** What leaves this many reps in reserve. */
  | { by: "reserve"; reserve: number }
  /** A load in kg, the same for everybody. */
  | { by: "fixed"; kg: number }
  /** The athlete's found speed weight, and the coach's step on it, kg. */
  | { by: "found"; plusKg: number }
  /** Percent of body mass. */
  | { by: "body"; percent: number }
  /** The coach's eye on the day: no number. */
  | { by: "eye" };

export type BasisKind = LoadBasis["by"];

export const BASIS_NAMES: Record<BasisKind, string> = {
  percent: "percent of the working max",
  speed: "a speed on the own line",
  "peak-force": "the speed of peak force",
  "peak-power": "the load of peak power",
  reserve: "reps in reserve",
  found: "the found speed weight",
  fixed: "a fixed load",
  body: "percent of body mass",
  eye: "the coach's eye",
};

export const BASIS_KINDS = Object.keys(BASIS_NAMES) as BasisKind[];

/** Unit of a basis's number, as it stands behind a field. */
export const BASIS_UNITS: Record<BasisKind, string> = {
  percent: "%",
  speed: "m/s",
  "peak-force": "m/s slower",
  "peak-power": "%",
  reserve: "reps",
  found: "kg more",
  fixed: "kg",
  body: "%",
  eye: "",
};

/** A basis from its kind and its number, as a recipe's steps give it. */
export function basisOf(by: BasisKind, value: number): LoadBasis {
  switch (by) {
    case "percent":
    case "peak-power":
    case "body":
      return { by, percent: value };
    case "speed":
      return { by, mps: value };
    case "peak-force":
      return { by, slowerMps: value };
    case "reserve":
      return { by, reserve: value };
    case "found":
      return { by, plusKg: value };
    case "fixed":
      return { by, kg: value };
    case "eye":
      return { by };
  }
}

/** What each way takes for granted, said where it is chosen. */
export const BASIS_ASSUMES: Record<BasisKind, string> = {
  percent: "The max is right today.",
  speed: "The line of the last test holds, and full intent.",
  "peak-force": "Force was measured in the test, and its peak was reached.",
  "peak-power": "The line or the measured power holds.",
  reserve: "The athlete judges the reserve well. Epley's formula.",
  found: "It was found in this variant, and is held one to three weeks.",
  fixed: "One load suits everybody in the slot.",
  body: "Body mass was taken lately.",
  eye: "A coach watches every set.",
};

/** What is known of an athlete when a load is asked for. */
export interface BasisFacts {
  maxKg: number | undefined;
  line: LoadVelocityLine | undefined;
  /** Speed at the tested point of the greatest mean propulsive force, m/s. */
  peakForceMps: number | undefined;
  peakPowerKg: number | undefined;
  /** The speed weight found in the variant, kg. */
  foundKg: number | undefined;
  bodyKg: number | undefined;
}

export type BasisRefusal =
  | "no-max"
  | "no-profile"
  | "no-peak-force"
  | "no-peak-power"
  | "no-found-weight"
  | "no-body-mass"
  | "too-fast"
  | "too-many-reps"
  | "not-a-load"
  | "by-eye";

export const BASIS_REFUSALS: Record<BasisRefusal, string> = {
  "no-max": "No working max. Choose a record on the athlete's page.",
  "no-profile": "No profile of this variant and metric. Test one, or go by percent.",
  "no-peak-force": "No measured peak force. A test with a sensor gives it.",
  "no-peak-power": "No load of peak power. A profile test gives it.",
  "no-found-weight": "No speed weight found in this variant. Find it on the athlete's box card.",
  "no-body-mass": "No body mass. Write one on the athlete's page.",
  "too-fast": "The line reaches this speed at no load. Ask for a slower one.",
  "too-many-reps": `Over ${REP_MAX_MOST_REPS} reps with the reserve no formula holds.`,
  "not-a-load": "These figures give no load over 0 kg.",
  "by-eye": "By the coach's eye: no load is proposed.",
};

/** Lighter is nothing, and heavier is lifted by nobody, kg. */
const LEAST_LOAD_KG = 0.001;
const MOST_LOAD_KG = 2000;
const isLoad = (kg: number): boolean => kg >= LEAST_LOAD_KG && kg <= MOST_LOAD_KG;

export type BasisLoad =
  | {
      ok: true;
      /** Before rounding to a bar, kg. */
      kg: number;
      /** Of the working max, where there is one. */
      percent: number | undefined;
      /** What the own line expects at that load, m/s. */
      speedMps: number | undefined;
      /** Estimates (reserve, estimated power) are marked. */
      estimate: boolean;
      working: Working;
    }
  | { ok: false; reason: BasisRefusal };

/**
 * The exact load that a basis asks of an athlete.
 * @param reps of the set; counts only with reps in reserve
 * @returns kg before rounding, or a named reason, never NaN
 */
export function basisLoad(basis: LoadBasis, facts: BasisFacts, reps: number): BasisLoad {
  const { maxKg, line } = facts;
  // The working is written when it is read: a squad's block asks for thousands of loads.
  const answer = (kg: number, write: () => Working, estimate = false): BasisLoad => {
    if (!isLoad(kg)) return refuse("not-a-load");
    return {
      ok: true,
      kg,
      percent: maxKg === undefined || !isLoad(maxKg) ? undefined : (100 * kg) / maxKg,
      speedMps: line === undefined ? undefined : velocityAt(line, kg),
      estimate,
      get working() {
        return write();
      },
    };
  };
  const refuse = (reason: BasisRefusal): BasisLoad => ({ ok: false, reason });
  const mass = (kg: number) => written(kg, 1);
  const atSpeed = (mps: number, lines: Working["lines"], title: string): BasisLoad => {
    if (!line) return refuse("no-profile");
    const kg = loadAt(line, mps);
    if (kg <= 0) return refuse("too-fast");
    return answer(kg, () => ({
      title,
      lines: [
        ...lines,
        {
          label: "Own line",
          value: `v = ${line.interceptMps.toFixed(3)} − ${Math.abs(line.slopeMpsPerKg).toFixed(5)} × load`,
          detail: `n ${line.n}, ${line.metric}`,
        },
        { label: `At ${formatVelocity(mps)} m/s`, value: mass(kg), emphasis: "answer" },
      ],
      sources: ["Least squares on the fastest rep of each load of one test"],
      changes: ["A newer test, another speed."],
    }));
  };
  switch (basis.by) {
    case "percent": {
      if (maxKg === undefined) return refuse("no-max");
      const kg = (maxKg * basis.percent) / 100;
      return answer(kg, () => ({
        title: "By percent",
        lines: [
          { label: "Working max", value: mass(maxKg) },
          {
            label: `${plainNumber(basis.percent)} % of it`,
            value: mass(kg),
            emphasis: "answer",
          },
        ],
        changes: ["Another record or factor, another percentage."],
      }));
    }
    case "speed":
      return atSpeed(
        basis.mps,
        [{ label: "Wanted speed", value: `${formatVelocity(basis.mps)} m/s` }],
        "By speed",
      );
    case "peak-force": {
      if (!line) return refuse("no-profile");
      const { peakForceMps } = facts;
      if (peakForceMps === undefined) return refuse("no-peak-force");
      const mps = peakForceMps - Math.max(0, basis.slowerMps);
      return atSpeed(
        mps,
        [
          { label: "Speed of peak force", value: `${formatVelocity(peakForceMps)} m/s` },
          { label: "Slower by", value: `${formatVelocity(Math.max(0, basis.slowerMps))} m/s` },
        ],
        "By the speed of peak force",
      );
    }
    case "peak-power": {
      const { peakPowerKg } = facts;
      if (peakPowerKg === undefined) return refuse("no-peak-power");
      const kg = (peakPowerKg * basis.percent) / 100;
      return answer(
        kg,
        () => ({
          title: "By peak power",
          lines: [
            { label: "Load of peak power", value: mass(peakPowerKg) },
            { label: `${plainNumber(basis.percent)} % of it`, value: mass(kg), emphasis: "answer" },
          ],
          changes: ["A newer test, another system mass."],
        }),
        true,
      );
    }
    case "reserve": {
      if (maxKg === undefined) return refuse("no-max");
      const all = reps + basis.reserve;
      if (all > REP_MAX_MOST_REPS) return refuse("too-many-reps");
      const kg = loadForReserve(maxKg, reps, basis.reserve);
      if (kg === undefined) return refuse("not-a-load");
      return answer(
        kg,
        () => ({
          title: "By reps in reserve",
          lines: [
            { label: "Working max", value: mass(maxKg) },
            { label: "Reps and reserve", value: `${reps} + ${plainNumber(basis.reserve)}` },
            {
              label: "Max ÷ (1 + (reps + reserve) ÷ 30)",
              value: mass(kg),
              detail: "an estimate",
              emphasis: "answer",
            },
          ],
          sources: ["Epley's formula turned round"],
          changes: ["Another reserve; the athlete's own judgement on the day."],
        }),
        true,
      );
    }
    case "found": {
      const { foundKg } = facts;
      if (foundKg === undefined) return refuse("no-found-weight");
      const kg = foundKg + basis.plusKg;
      return answer(kg, () => ({
        title: "By the found speed weight",
        lines: [
          { label: "Found speed weight", value: mass(foundKg) },
          { label: "The coach's step", value: mass(basis.plusKg) },
          { label: "Together", value: mass(kg), emphasis: "answer" },
        ],
        changes: ["A newer speed weight, another step."],
      }));
    }
    case "fixed":
      return answer(basis.kg, () => ({
        title: "Fixed load",
        lines: [{ label: "Set by the coach", value: mass(basis.kg), emphasis: "answer" }],
        changes: ["Another load in the recipe."],
      }));
    case "body": {
      const { bodyKg } = facts;
      if (bodyKg === undefined) return refuse("no-body-mass");
      const kg = (bodyKg * basis.percent) / 100;
      return answer(kg, () => ({
        title: "By body mass",
        lines: [
          { label: "Body mass", value: mass(bodyKg) },
          { label: `${plainNumber(basis.percent)} % of it`, value: mass(kg), emphasis: "answer" },
        ],
        changes: ["A newer body mass, another percentage."],
      }));
    }
    case "eye":
      return refuse("by-eye");
  }
}

/**
 * Load for reps with a reserve, kg: max ÷ (1 + (reps + reserve)/30); the max itself for a single
 * without reserve, as the formula's own r = 1. Undefined where max, reps or reserve are none.
 */
export function loadForReserve(maxKg: number, reps: number, reserve: number): number | undefined {
  const all = reps + reserve;
  if (!isLoad(maxKg) || !(all >= 0 && all <= REP_MAX_MOST_REPS)) return undefined;
  return all <= 1 ? maxKg : maxKg / (1 + all / 30);
}

/** A basis in words: "62.5 %", "0.70 m/s", "2 in reserve". */
export const describeBasis = (basis: LoadBasis, unit: MassUnit): string =>
  readIn(basisText(basis), unit);

/** The same, to be read in any unit. */
export function basisText(basis: LoadBasis): Text {
  switch (basis.by) {
    case "percent":
      return `${plainNumber(basis.percent)} %`;
    case "speed":
      return `${formatVelocity(basis.mps)} m/s`;
    case "peak-force":
      return basis.slowerMps > 0
        ? `peak force − ${formatVelocity(basis.slowerMps)} m/s`
        : "speed of peak force";
    case "peak-power":
      return `${plainNumber(basis.percent)} % of peak power's load`;
    case "reserve":
      return `${plainNumber(basis.reserve)} in reserve`;
    case "found":
      return basis.plusKg === 0
        ? "found weight"
        : say`found weight ${basis.plusKg < 0 ? "−" : "+"} ${written(Math.abs(basis.plusKg))}`;
    case "fixed":
      return written(basis.kg);
    case "body":
      return `${plainNumber(basis.percent)} % of body mass`;
    case "eye":
      return "by eye";
  }
}
