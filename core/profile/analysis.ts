import type { LineFit } from "../numeric/regression";
import { plainNumber } from "../units/mass";
import { formatVelocity, type VelocityMetric } from "../units/velocity";
import type { Working } from "../units/working";
import { say, type Text, written } from "../units/written";
import { fastestByLoad, fitPoints, type LoadVelocityLine, lineOfFit } from "./line";
import { fiellerAt, type IntervalResult, inverseAt } from "./prediction";
import type { Threshold } from "./threshold";

/** One rep of a profile test. */
export interface ProfileRep {
  id: string;
  loadKg: number;
  velocityMps: number;
  /** Mean propulsive force and power where a stream or device gives them. */
  forceN?: number;
  powerW?: number;
  /** Left out of the line, with the coach's reason; it stays visible. */
  excluded?: string;
}

/** What a profile is warned about; DOMAIN: spans, speeds and fit under which a line misleads. */
export const LEAST_SPAN_SHARE = 0.3;
export const LEAST_FASTEST_MPS = 0.8;
export const MOST_ABOVE_MVT_MPS = 0.25;
export const LEAST_R_SQUARED = 0.95;

export type ProfileWarning =
  | "two-loads"
  | "short-span"
  | "slow-start"
  | "extrapolating"
  | "poor-fit"
  | "lighter-slower";

export type ProfileRefusal =
  | "no-reps"
  | "one-load"
  | "not-falling"
  | "not-finite"
  | "older-processing";

export const REFUSAL_WORDS: Record<ProfileRefusal, string> = {
  "no-reps": "No rep yet. The first load gives a point, the second a line.",
  "older-processing":
    "Older processing: these speeds were measured from v = 0 and lie up to 0.1 m/s lower. They are in no line; test again.",
  "one-load": "One load is a point, not a line. Test at least one load more, better three.",
  "not-falling":
    "The line does not fall: heavier loads were not slower. Check that loads and speeds stand in their own columns, then test again with full effort at every load.",
  "not-finite": "A load or a speed is not a number.",
};

export interface ProfileAnalysis {
  ok: true;
  line: LoadVelocityLine;
  fit: LineFit;
  /** The fastest counted rep of each load, ascending by load. */
  used: ProfileRep[];
  spanKg: number;
  /** Load at the velocity threshold; undefined where no threshold is known for this metric. */
  oneRepMax:
    | {
        kg: number;
        /** Of the line alone; a planning interval adds one reading and the threshold's spread. */
        lineOnly: IntervalResult;
        planning: IntervalResult;
        working: Working;
      }
    | undefined;
  warnings: Array<{ code: ProfileWarning; text: Text }>;
  working: Working;
}

export type ProfileResult = ProfileAnalysis | { ok: false; reason: ProfileRefusal };

/** The level of a profile's intervals. */
export const PROFILE_LEVEL = 0.95;

/**
 * The load–velocity profile of one test: one athlete, one variant, one metric, one session. The
 * fastest rep of each load that is not excluded; at least two loads, a falling line.
 * @param threshold of the same metric; without one there is a line and no 1RM
 */
export function analyseProfile(input: {
  reps: readonly ProfileRep[];
  metric: VelocityMetric;
  threshold: Threshold | undefined;
}): ProfileResult {
  const counted = input.reps.filter((rep) => rep.excluded === undefined);
  if (counted.length === 0) return { ok: false, reason: "no-reps" };
  const used = fastestByLoad(counted);
  const fit = fitPoints(used);
  const line = lineOfFit(fit, input.metric, used.length);
  if (!line.ok || !fit.ok) {
    const reason = line.ok ? "not-finite" : line.reason === "too-few" ? "one-load" : line.reason;
    return { ok: false, reason };
  }
  const spanKg = fit.maxX - fit.minX;
  const { threshold } = input;
  const oneRepMax = threshold && maxAt(fit, line, threshold);
  return {
    ok: true,
    line,
    fit,
    used,
    spanKg,
    oneRepMax,
    warnings: warningsOf({ used, fit, spanKg, oneRmKg: oneRepMax?.kg, threshold }),
    // Written when it is read.
    get working() {
      return lineWorking(fit, line, used);
    },
  };
}

function lineWorking(fit: LineFit, line: LoadVelocityLine, used: readonly ProfileRep[]): Working {
  return {
    title: "Load–velocity line",
    lines: [
      ...used.map((rep) => ({
        label: written(rep.loadKg),
        value: `${formatVelocity(rep.velocityMps)} m/s`,
        detail: `line ${formatVelocity(fit.intercept + fit.slope * rep.loadKg)}`,
      })),
      { label: "Slope", value: `${fit.slope.toFixed(5)} m/s per kg` },
      { label: "n, R²", value: `${fit.n}, ${fit.rSquared.toFixed(4)}` },
      {
        label: "Residual spread (SEE)",
        value: fit.see === undefined ? "none from two points" : `${fit.see.toFixed(3)} m/s`,
      },
      { label: "V0", value: `${line.v0Mps.toFixed(3)} m/s`, detail: "speed at no load" },
      {
        label: "L0 = V0 ÷ slope",
        value: written(line.l0Kg, 1),
        detail: "load at no speed",
        emphasis: "answer",
      },
    ],
    sources: ["Least squares on the fastest rep of each load; one session, one metric"],
    changes: ["Another test, or a rep excluded with a reason."],
  };
}

function maxAt(fit: LineFit, line: LoadVelocityLine, threshold: Threshold) {
  const kg = (threshold.mps - fit.intercept) / fit.slope;
  const lineOnly = fiellerAt(fit, threshold.mps, PROFILE_LEVEL);
  const planning = inverseAt(
    fit,
    threshold.mps,
    PROFILE_LEVEL,
    (fit.see ?? 0) ** 2 + threshold.sdMps ** 2,
  );
  return {
    kg,
    lineOnly,
    planning,
    get working() {
      return maxWorking({ kg, lineOnly, planning, fit, line, threshold });
    },
  };
}

function maxWorking(input: {
  kg: number;
  lineOnly: IntervalResult;
  planning: IntervalResult;
  fit: LineFit;
  line: LoadVelocityLine;
  threshold: Threshold;
}): Working {
  const { kg, lineOnly, planning, fit, line, threshold } = input;
  const range = (result: IntervalResult) =>
    result.ok
      ? say`${written(result.low, 1)} to ${written(result.high, 1)}`
      : result.reason === "no-freedom"
        ? "none from two points"
        : "none: the slope is too unclear";
  return {
    title: "1RM by velocity",
    lines: [
      ...threshold.working.lines.slice(0, -1),
      { label: "Threshold used", value: `${formatVelocity(threshold.mps)} m/s` },
      {
        label: "Load where the line reaches it",
        value: written(kg, 1),
        detail: `(${threshold.mps.toFixed(3)} − ${line.v0Mps.toFixed(4)}) ÷ ${fit.slope.toFixed(5)}`,
        emphasis: "answer" as const,
      },
      { label: "95 %, line only", value: range(lineOnly), detail: "Fieller" },
      {
        label: "95 %, for planning",
        value: range(planning),
        detail: `adds one reading's error and the threshold's spread, ${plainNumber(threshold.sdMps, 3)} m/s`,
      },
    ],
    sources: [
      "Fieller 1954",
      "Velocity estimates of a 1RM tend to be high, by 10 kg and more in squats (Banyard et al. 2017)",
    ],
    changes: ["A slower, heavier point; a confirmed maximal single; a newer test."],
  };
}

function warningsOf(input: {
  used: readonly ProfileRep[];
  fit: LineFit;
  spanKg: number;
  oneRmKg: number | undefined;
  threshold: Threshold | undefined;
}): ProfileAnalysis["warnings"] {
  const { used, fit, spanKg, oneRmKg, threshold } = input;
  const warnings: ProfileAnalysis["warnings"] = [];
  const warn = (code: ProfileWarning, text: Text) => warnings.push({ code, text });
  if (fit.n === 2) warn("two-loads", "Two loads give a line but no interval. Test a third.");
  if (oneRmKg !== undefined && spanKg < LEAST_SPAN_SHARE * oneRmKg) {
    warn(
      "short-span",
      `The loads span ${plainNumber((100 * spanKg) / oneRmKg, 0)} % of the 1RM; under 30 % the line swings. Add a lighter or a heavier load.`,
    );
  }
  const fastest = Math.max(...used.map((rep) => rep.velocityMps));
  if (fastest < LEAST_FASTEST_MPS) {
    warn(
      "slow-start",
      `The fastest point is ${formatVelocity(fastest)} m/s. Start under it: at 0.80 or faster.`,
    );
  }
  const slowest = Math.min(...used.map((rep) => rep.velocityMps));
  if (threshold && slowest > threshold.mps + MOST_ABOVE_MVT_MPS) {
    warn(
      "extrapolating",
      `The slowest point, ${formatVelocity(slowest)} m/s, is far above the threshold of ${formatVelocity(threshold.mps)}: the 1RM is extrapolated.`,
    );
  }
  if (fit.n > 2 && fit.rSquared < LEAST_R_SQUARED) {
    warn(
      "poor-fit",
      `R² is ${fit.rSquared.toFixed(3)}, under 0.95. Look for a rep without full effort.`,
    );
  }
  used.forEach((rep, i) => {
    const heavier = used[i + 1];
    if (heavier && heavier.velocityMps > rep.velocityMps) {
      warn(
        "lighter-slower",
        say`${written(rep.loadKg)} moved slower than ${written(heavier.loadKg)}: effort at the lighter one?`,
      );
    }
  });
  return warnings;
}
