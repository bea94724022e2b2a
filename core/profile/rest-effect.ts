import { fitLine } from "../numeric/regression";
import { studentQuantile } from "../numeric/student-t";
import { plainNumber } from "../units/mass";
import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";
import { READING_SD_MPS } from "./day-form";
import { type IntervalResult, responseAt } from "./prediction";

/** A set after another at the same load on the same day. */
export interface RestStep {
  /** Between the two, s. */
  restS: number;
  /** Best speed of the later less the earlier, m/s. */
  changeMps: number;
}

/** Pairs of sets that are read. */
const MOST_STEPS = 2000;
const LONGEST_REST_S = 1200;
const LEVEL = 0.9;
const MINUTE_S = 60;

export type RestEffect =
  | {
      ok: true;
      /** Change of the next set's speed for a minute more, m/s, 90 %. */
      perMinute: { estimate: number; low: number; high: number };
      verdict: "helps" | "costs" | "unclear";
      /** Change from set to set at the rest asked, m/s. */
      at: IntervalResult;
      /** Rest at which a set is as fast as the one before, s; undefined where the pairs do not say. */
      evenS: number | undefined;
      pairs: number;
      working: Working;
    }
  | { ok: false; reason: "too-few" | "one-rest" | "not-finite" };

/**
 * What rest does to an athlete's speed, from their own sets: the change from one set to the next at one
 * load, over the rest between, a straight line. It is no experiment: long rests are often taken where
 * something was hard, and the later sets of a day are slower whatever the rest.
 */
export function restEffect(input: { steps: readonly RestStep[]; atS: number }): RestEffect {
  const { steps, atS } = input;
  if (steps.length < 4 || steps.length > MOST_STEPS) return { ok: false, reason: "too-few" };
  const sound = steps.every(
    ({ restS, changeMps }) => restS > 0 && restS <= LONGEST_REST_S && Math.abs(changeMps) < 5,
  );
  if (!sound || !(atS > 0 && atS <= LONGEST_REST_S)) return { ok: false, reason: "not-finite" };
  const fit = fitLine(steps.map((one) => ({ x: one.restS / MINUTE_S, y: one.changeMps })));
  if (!fit.ok || fit.see === undefined) return { ok: false, reason: "one-rest" };
  // Not less than two readings differ by: few pairs may lie on a line by luck.
  const see = Math.max(fit.see, READING_SD_MPS * Math.SQRT2);
  const half = (studentQuantile((1 + LEVEL) / 2, fit.n - 2) * see) / Math.sqrt(fit.sxx);
  const perMinute = { estimate: fit.slope, low: fit.slope - half, high: fit.slope + half };
  if (!Number.isFinite(half)) return { ok: false, reason: "one-rest" };
  const at = responseAt({ ...fit, see }, atS / MINUTE_S, LEVEL);
  const evenMin = fit.slope > 1e-9 ? -fit.intercept / fit.slope : Number.NaN;
  const evenS =
    perMinute.low > 0 && evenMin > 0 && evenMin * MINUTE_S <= LONGEST_REST_S
      ? evenMin * MINUTE_S
      : undefined;
  const verdict = perMinute.low > 0 ? "helps" : perMinute.high < 0 ? "costs" : "unclear";
  const mps = (value: number) => `${value < 0 ? "−" : "+"}${formatVelocity(Math.abs(value))} m/s`;
  return {
    ok: true,
    perMinute,
    verdict,
    at,
    evenS,
    pairs: steps.length,
    working: {
      title: "Rest and the next set's speed",
      lines: [
        { label: "Pairs of sets at one load", value: String(steps.length) },
        {
          label: "Rests",
          value: `${plainNumber(MINUTE_S * fit.minX, 0)} to ${plainNumber(MINUTE_S * fit.maxX, 0)} s`,
        },
        {
          label: "For a minute more",
          value: mps(fit.slope),
          detail: `90 % ${mps(perMinute.low)} to ${mps(perMinute.high)}`,
          emphasis: "answer",
        },
        ...(at.ok
          ? [
              {
                label: `From set to set at ${plainNumber(atS, 0)} s`,
                value: mps(at.estimate),
                detail: `90 % ${mps(at.low)} to ${mps(at.high)}`,
              },
            ]
          : []),
      ],
      sources: ["Least squares over the athlete's own pairs of sets; no experiment"],
      changes: ["More pairs, rests further apart, the same load and place in the session."],
    },
  };
}
