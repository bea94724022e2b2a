import { mean, standardDeviation } from "../numeric/statistics";
import { studentQuantile } from "../numeric/student-t";
import type { LocalDate } from "../units/time";
import { areComparable, type VelocityMetric } from "../units/velocity";
import type { Working } from "../units/working";
import { say, written } from "../units/written";
import type { ProfileAnalysis } from "./analysis";
import { type Interval, responseAt } from "./prediction";

/**
 * Error of one test's velocity at a load, from day to day, m/s: what two tests of an unchanged
 * athlete differ by, ÷ √2. A team replaces it by its own typical error.
 */
export const TEST_ERROR_MPS = 0.03;
const LEVEL = 0.9;

export interface DatedProfile {
  testedOn: LocalDate;
  variantId: string;
  metric: VelocityMetric;
  /** Where its speeds are from. */
  source: string;
  analysis: ProfileAnalysis;
}

export interface Shift extends Interval {
  /** The interval leaves out nought. */
  beyondNoise: boolean;
}

export type Movement = "up" | "down" | "kept";

export type Comparison =
  | {
      ok: true;
      /** Loads that both tests reached, kg, with the shift of velocity there, later − earlier. */
      atLoads: Array<{ loadKg: number; shift: Shift }>;
      v0: Shift;
      /** Shift of L0, kg. */
      l0: Shift;
      /** The heavy end of the common loads, and the light one. */
      force: Movement;
      speed: Movement;
      words: string;
      working: Working;
    }
  | {
      ok: false;
      reason: "other-variant" | "other-metric" | "other-source" | "no-common-load" | "no-interval";
    };

export const NOT_COMPARABLE: Record<Extract<Comparison, { ok: false }>["reason"], string> = {
  "other-variant": "Not comparable: the two tests are of different lift variants.",
  "other-metric": "Not comparable: the two tests measured different velocities.",
  "other-source":
    "Not comparable: one of the tests is from a film, the other is not, and what lies between the two would read as a change.",
  "no-common-load":
    "Not comparable: the tested loads do not overlap. Speeds compare at equal load only.",
  "no-interval":
    "Not comparable beyond noise: one of the tests has two loads only, so its error is unknown.",
};

const WORDS: Record<`${Movement}/${Movement}`, string> = {
  "up/up": "The whole window moved up: faster at heavy and at light loads.",
  "up/kept": "Force up with speed kept: faster at the heavy end, the light end as before.",
  "up/down": "Force up with speed lost: the line turned towards the heavy end.",
  "kept/up": "Speed up with force kept: faster at the light end, the heavy end as before.",
  "kept/kept": "No shift beyond the test's error.",
  "kept/down": "Speed lost with force kept: slower at the light end, the heavy end as before.",
  "down/up": "Speed up with force lost: the line turned towards the light end.",
  "down/kept": "Force lost with speed kept: slower at the heavy end, the light end as before.",
  "down/down": "The whole window moved down: slower at heavy and at light loads.",
};

/**
 * Two tests of one athlete set against each other; never joined in one line. Each shift has the
 * two lines' errors and the test's own day-to-day error, at 90 %.
 */
export function compareProfiles(
  earlier: DatedProfile,
  later: DatedProfile,
  testErrorMps = TEST_ERROR_MPS,
): Comparison {
  if (earlier.variantId !== later.variantId) return { ok: false, reason: "other-variant" };
  if (earlier.metric !== later.metric) return { ok: false, reason: "other-metric" };
  if (!areComparable(earlier.source, later.source)) return { ok: false, reason: "other-source" };
  const a = earlier.analysis.fit;
  const b = later.analysis.fit;
  if (a.see === undefined || b.see === undefined || !(testErrorMps >= 0 && testErrorMps < 10))
    return { ok: false, reason: "no-interval" };
  const low = Math.max(a.minX, b.minX);
  const high = Math.min(a.maxX, b.maxX);
  if (!(low < high)) return { ok: false, reason: "no-common-load" };

  const shiftAt = (loadKg: number): Shift => {
    const parts = [a, b].map((fit) => {
      const leverage = 1 / fit.n + (loadKg - fit.meanX) ** 2 / fit.sxx;
      return { variance: (fit.see ?? 0) ** 2 * leverage, freedom: fit.n - 2 };
    });
    const at = [a, b]
      .map((fit) => responseAt(fit, loadKg, LEVEL))
      .map((one) => (one.ok ? one.estimate : 0));
    return shift((at[1] ?? 0) - (at[0] ?? 0), parts, 2 * testErrorMps ** 2);
  };
  const loads = [low, (low + high) / 2, high];
  const atLoads = loads.map((loadKg) => ({ loadKg, shift: shiftAt(loadKg) }));
  const light = atLoads[0]?.shift as Shift;
  const heavy = atLoads[2]?.shift as Shift;
  const force = movementOf(heavy);
  const speed = movementOf(light);

  // L0 moves by the velocity error at L0 over the slope (delta method).
  const l0Of = [earlier, later].map(({ analysis }) => {
    const { fit, line } = analysis;
    const leverage = 1 / fit.n + (line.l0Kg - fit.meanX) ** 2 / fit.sxx;
    return { variance: ((fit.see ?? 0) ** 2 * leverage) / fit.slope ** 2, freedom: fit.n - 2 };
  });
  const slope = (a.slope + b.slope) / 2;
  const l0 = shift(
    later.analysis.line.l0Kg - earlier.analysis.line.l0Kg,
    l0Of,
    (2 * testErrorMps ** 2) / slope ** 2,
  );
  const v0 = shiftAt(0);
  const words = WORDS[`${force}/${speed}`];
  const signed = (value: number, decimals: number) =>
    `${value >= 0 ? "+" : "−"}${Math.abs(value).toFixed(decimals)}`;
  return {
    ok: true,
    atLoads,
    v0,
    l0,
    force,
    speed,
    words,
    working: {
      title: `${earlier.testedOn} against ${later.testedOn}`,
      lines: [
        ...atLoads.map((one) => ({
          label: say`At ${written(one.loadKg, 1)}`,
          value: `${signed(one.shift.estimate, 3)} m/s`,
          detail: `90 % between ${signed(one.shift.low, 3)} and ${signed(one.shift.high, 3)}${one.shift.beyondNoise ? "" : ": within noise"}`,
        })),
        { label: "V0", value: `${signed(v0.estimate, 3)} m/s` },
        {
          label: "L0",
          value: say`${l0.estimate < 0 ? "−" : "+"}${written(Math.abs(l0.estimate), 1)}`,
        },
        {
          label: "Test's error",
          value: `${testErrorMps} m/s`,
          detail: "each test, from day to day",
        },
        { label: "In words", value: words, emphasis: "answer" },
      ],
      sources: ["Difference of two fitted lines at equal load; docs/sources.md"],
      changes: ["Another test to compare with, or the team's own test error."],
    },
  };
}

function movementOf(one: Shift): Movement {
  if (!one.beyondNoise) return "kept";
  return one.estimate > 0 ? "up" : "down";
}

/** A difference with estimated parts (Welch–Satterthwaite freedom) and a part known beforehand. */
function shift(
  estimate: number,
  parts: ReadonlyArray<{ variance: number; freedom: number }>,
  knownVariance: number,
): Shift {
  const estimated = parts.reduce((sum, part) => sum + part.variance, 0);
  const variance = estimated + knownVariance;
  const spread = parts.reduce((sum, part) => sum + part.variance ** 2 / part.freedom, 0);
  const freedom = spread === 0 ? 1e6 : Math.min(1e6, variance ** 2 / spread);
  const half = studentQuantile((1 + LEVEL) / 2, freedom) * Math.sqrt(variance);
  return {
    estimate,
    low: estimate - half,
    high: estimate + half,
    beyondNoise: Math.abs(estimate) > half,
  };
}

/** Fewest squad profiles that a side is judged against. */
export const LEAST_SQUAD_PROFILES = 5;
/** Standard deviations that the two sides must differ by. */
export const WEAKER_SIDE_SD = 1;

export type WeakerSide =
  | { side: "force" | "speed" | "neither"; forceSd: number; speedSd: number; n: number }
  | undefined;

/**
 * Which side of the window is weaker against the squad, by how many standard deviations V0 and
 * 1RM (both of the same variant and metric) stand from the squad's mean. Undefined with fewer
 * than five profiles, or where the squad does not differ.
 */
export function weakerSide(
  own: { v0Mps: number; heavyKg: number },
  squad: ReadonlyArray<{ v0Mps: number; heavyKg: number }>,
): WeakerSide {
  if (squad.length < LEAST_SQUAD_PROFILES) return undefined;
  if (!(Math.abs(own.v0Mps) < 100) || !(Math.abs(own.heavyKg) < 10_000)) return undefined;
  const score = (value: number, all: number[]) => {
    const sd = standardDeviation(all);
    const centre = mean(all);
    return sd === undefined || sd === 0 || centre === undefined ? undefined : (value - centre) / sd;
  };
  const speedSd = score(
    own.v0Mps,
    squad.map((one) => one.v0Mps),
  );
  const forceSd = score(
    own.heavyKg,
    squad.map((one) => one.heavyKg),
  );
  if (speedSd === undefined || forceSd === undefined) return undefined;
  const difference = forceSd - speedSd;
  const side =
    Math.abs(difference) < WEAKER_SIDE_SD ? "neither" : difference < 0 ? "force" : "speed";
  return { side, forceSd, speedSd, n: squad.length };
}
