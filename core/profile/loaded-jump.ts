import { fitLine } from "../numeric/regression";
import { plainNumber } from "../units/mass";
import type { Working } from "../units/working";
import { say, written } from "../units/written";
import { type IntervalResult, inverseAt, responseAt } from "./prediction";

const MOST_POINTS = 60;
const LEVEL = 0.9;

export type LoadedJump =
  | {
      ok: true;
      /** Height of one jump at the load asked, cm, with the interval of one new jump. */
      height: IntervalResult;
      /** Load at the height wanted, kg; undefined where none was wanted. */
      load: IntervalResult | undefined;
      /** Height lost for each kilogram, cm. */
      lossCmPerKg: number;
      /** The load asked lies outside those that were jumped with. */
      outside: boolean;
      working: Working;
    }
  | { ok: false; reason: "too-few" | "one-load" | "not-a-jump" };

/**
 * Jump height over load: a straight line through the jumps of one athlete, the interval of one new
 * jump at a load, and the load at which a height is reached. Straight only as far as it was jumped.
 * @param points load kg (0 for none), height cm; three or more for an interval
 */
export function loadedJump(input: {
  points: ReadonlyArray<{ loadKg: number; heightCm: number }>;
  atKg: number;
  wantedCm?: number | undefined;
}): LoadedJump {
  const { points, atKg, wantedCm } = input;
  if (points.length < 2 || points.length > MOST_POINTS) return { ok: false, reason: "too-few" };
  const sound = points.every(
    ({ loadKg, heightCm }) => loadKg >= 0 && loadKg < 1000 && heightCm > 0 && heightCm < 300,
  );
  if (!sound || !(atKg >= 0 && atKg < 1000)) return { ok: false, reason: "not-a-jump" };
  if (wantedCm !== undefined && !(wantedCm > 0 && wantedCm < 300))
    return { ok: false, reason: "not-a-jump" };
  const fit = fitLine(points.map((one) => ({ x: one.loadKg, y: one.heightCm })));
  if (!fit.ok) return { ok: false, reason: "one-load" };
  const height = responseAt(fit, atKg, LEVEL, true);
  const falls = fit.slope < -1e-9;
  const load =
    wantedCm === undefined || !falls
      ? undefined
      : inverseAt(fit, wantedCm, LEVEL, (fit.see ?? 0) ** 2);
  const cm = (value: number) => `${plainNumber(value, 1)} cm`;
  return {
    ok: true,
    height,
    load,
    lossCmPerKg: -fit.slope,
    outside: atKg < fit.minX - 1e-9 || atKg > fit.maxX + 1e-9,
    working: {
      title: "Jump height over load",
      lines: [
        {
          label: "Line",
          value: `${cm(fit.intercept)} at no load`,
          detail: `${plainNumber(-fit.slope, 3)} cm lost for each kilogram, R² ${plainNumber(fit.rSquared, 3)}`,
        },
        {
          label: say`At ${written(atKg)}`,
          value: cm(fit.intercept + fit.slope * atKg),
          detail: height.ok
            ? `one jump 90 %: ${cm(height.low)} to ${cm(height.high)}`
            : "two jumps leave no interval",
          emphasis: "answer",
        },
        ...(wantedCm === undefined
          ? []
          : [
              {
                label: `For ${cm(wantedCm)}`,
                value: load?.ok ? say`${written(load.estimate)}` : "not told by these jumps",
                ...(load?.ok
                  ? {
                      detail: say`90 %: ${written(Math.max(0, load.low))} to ${written(load.high)}`,
                    }
                  : {}),
              },
            ]),
      ],
      sources: ["Least squares; interval of one new reading, and its inverse"],
      changes: ["More jumps, loads further apart."],
    },
  };
}
