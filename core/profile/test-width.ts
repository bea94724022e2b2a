import { studentQuantile } from "../numeric/student-t";
import { plainNumber } from "../units/mass";
import type { Working } from "../units/working";
import { say, written } from "../units/written";
import { READING_SD_MPS } from "./day-form";
import { inverseAt } from "./prediction";

/** Loads of a test that anybody would do in one session. */
const MOST_LOADS = 30;
const LEVEL = 0.9;

export type TestWidth =
  | {
      ok: true;
      /** The 1RM by speed lies so far on either side of the truth in nine of ten tests, kg. */
      halfKg: number;
      lowKg: number;
      highKg: number;
      /** The interval of a test whose spread the lifter's own points have to tell: wider. */
      fromOwnKg: number;
      working: Working;
    }
  | { ok: false; reason: "too-few" | "no-line" | "slope-unclear" };

/**
 * How wide the 1RM by speed will be for the loads one means to test, before anybody lifts: one best
 * rep at each load, on the line expected, each reading off by N(0, 0.03²) m/s. Known spread gives
 * z·s·√(1/n + (x − x̄)²/Sxx)/|slope|; where the points themselves tell the spread, t on n − 2 and
 * Fieller's bound (docs/sources.md). The threshold's own spread and the day are not in it.
 * @param loadsKg a load a rep, 2 to 30
 */
export function testWidth(input: {
  loadsKg: readonly number[];
  oneRmKg: number;
  v0Mps: number;
  thresholdMps: number;
}): TestWidth {
  const { loadsKg, oneRmKg, v0Mps, thresholdMps } = input;
  const n = loadsKg.length;
  if (n < 2 || n > MOST_LOADS) return { ok: false, reason: "too-few" };
  if (
    !loadsKg.every((kg) => kg > 0 && kg < 2000) ||
    !(oneRmKg > 0 && oneRmKg < 2000) ||
    !(thresholdMps > 0) ||
    !(v0Mps > thresholdMps && v0Mps < 20)
  )
    return { ok: false, reason: "no-line" };
  const slope = (thresholdMps - v0Mps) / oneRmKg;
  const meanX = loadsKg.reduce((sum, kg) => sum + kg, 0) / n;
  const sxx = loadsKg.reduce((sum, kg) => sum + (kg - meanX) ** 2, 0);
  if (!(sxx > 1e-6) || !(slope < -1e-9)) return { ok: false, reason: "no-line" };
  const z = 1.6448536269514722;
  const spread = READING_SD_MPS * Math.sqrt(1 / n + (oneRmKg - meanX) ** 2 / sxx);
  const halfKg = (z * spread) / -slope;
  const own = inverseAt(
    {
      ok: true,
      n,
      intercept: v0Mps,
      slope,
      rSquared: 1,
      see: n > 2 ? READING_SD_MPS : undefined,
      meanX,
      sxx,
      minX: Math.min(...loadsKg),
      maxX: Math.max(...loadsKg),
    },
    thresholdMps,
    LEVEL,
    0,
  );
  const fromOwnKg = own.ok ? (own.high - own.low) / 2 : Number.POSITIVE_INFINITY;
  if (!Number.isFinite(halfKg)) return { ok: false, reason: "slope-unclear" };
  const gap = oneRmKg - Math.max(...loadsKg);
  return {
    ok: true,
    halfKg,
    lowKg: oneRmKg - halfKg,
    highKg: oneRmKg + halfKg,
    fromOwnKg: Number.isFinite(fromOwnKg) ? fromOwnKg : 2000,
    working: {
      title: "Width of the 1RM by speed",
      lines: [
        { label: "Reps, one best at each load", value: String(n) },
        {
          label: "Line expected",
          value: `${plainNumber(v0Mps, 2)} to ${plainNumber(thresholdMps, 2)} m/s`,
          detail: say`at ${written(oneRmKg)}`,
        },
        { label: "A reading is off by", value: `${READING_SD_MPS} m/s` },
        {
          label: "From the mean load to the 1RM",
          value: say`${written(oneRmKg - meanX)}`,
          detail: say`the heaviest lies ${written(Math.max(0, gap))} under it`,
        },
        { label: "Nine of ten tests within", value: say`± ${written(halfKg)}`, emphasis: "answer" },
        {
          label: "As the test itself will say it",
          value: own.ok ? say`± ${written(fromOwnKg)}` : "without bound",
          detail:
            n > 2
              ? `t ${plainNumber(studentQuantile((1 + LEVEL) / 2, n - 2), 2)} on ${n - 2} degrees of freedom`
              : "two loads leave no freedom",
        },
      ],
      sources: ["Error of a reading: docs/sources.md, day readiness; inverse prediction"],
      changes: ["More loads, a wider span, a heavier top: the last helps most."],
    },
  };
}
