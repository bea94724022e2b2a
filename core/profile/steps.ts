import { loadBar } from "../barload/load";
import { loadableTable } from "../barload/loadable";
import type { LoadingGear, RoundingMode } from "../barload/loading-gear";
import { isFirstTime } from "../maxes/records";
import { grainsToKg } from "../units/mass";

/**
 * Load steps of a profile test, percent of the working max, with reps at each: more while the bar
 * is fast, one when it is heavy. Five steps cover 30 to 90 % (docs/sources.md).
 */
export const PROFILE_STEPS = [
  { percent: 30, reps: 3 },
  { percent: 45, reps: 3 },
  { percent: 60, reps: 2 },
  { percent: 75, reps: 2 },
  { percent: 87.5, reps: 1 },
] as const;

/** Without a trusted max: the empty bar and equal steps of this share of body mass. */
export const RAMP_BODY_SHARE = 0.15;

export interface TestStep {
  loadKg: number;
  reps: number;
  percent: number | undefined;
  /** Above the athlete's lifetime best: asked about first. */
  firstTime: boolean;
}

/**
 * Suggested loads for a profile test, as this rack can build them, ascending and without doubles.
 * With no trusted max it is a ramp: the bar, then small steps while it is still fast.
 * @param maxKg working max; undefined where there is none or it is not trusted
 * @param bodyMassKg sizes the steps of a ramp; 70 kg where unknown
 */
export function testSteps(input: {
  maxKg: number | undefined;
  bestKg: number | undefined;
  bodyMassKg: number | undefined;
  gear: LoadingGear;
  rounding: RoundingMode;
}): TestStep[] {
  const { maxKg, bestKg, gear } = input;
  const lightest = grainsToKg(loadableTable(gear).totals[0] ?? 0);
  const wanted =
    maxKg === undefined
      ? PROFILE_STEPS.map((step, i) => ({
          loadKg: lightest + i * RAMP_BODY_SHARE * (input.bodyMassKg ?? 70),
          reps: step.reps,
          percent: undefined,
        }))
      : PROFILE_STEPS.map((step) => ({
          loadKg: Math.max(lightest, (maxKg * step.percent) / 100),
          reps: step.reps,
          percent: step.percent,
        }));
  const steps: TestStep[] = [];
  for (const { loadKg, reps, percent } of wanted) {
    const loading = loadBar(gear, loadKg, input.rounding);
    if (!loading.ok || steps.some((step) => step.loadKg === loading.totalKg)) continue;
    steps.push({
      loadKg: loading.totalKg,
      reps,
      percent:
        percent === undefined || maxKg === undefined ? undefined : (100 * loading.totalKg) / maxKg,
      firstTime: isFirstTime(loading.totalKg, bestKg),
    });
  }
  return steps;
}
