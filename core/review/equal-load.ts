import { mean } from "../numeric/statistics";
import { DAY_SHIFT_SD_MPS, READING_SD_MPS } from "../profile/day-form";
import { formatVelocity } from "../units/velocity";
import type { Working } from "../units/working";
import { say, written } from "../units/written";
import { type CycleWeek, several } from "./cycle-week";

/** Loads within this share of each other are the same load. */
export const SAME_LOAD_SHARE = 0.0125;
/** A change of speed with its sign, m/s. */
export const signedMps = (mps: number): string => {
  const size = formatVelocity(Math.abs(mps));
  return Number(size) === 0 ? size : `${mps < 0 ? "−" : "+"}${size}`;
};

/** 90 % interval of a normal error. */
const Z90 = 1.6448536269514722;

/** A working week's mean speed at its main load. */
export interface SpeedPoint {
  week: number;
  loadKg: number;
  speedMps: number;
  /** Sets behind it. */
  sets: number;
}

export type SpeedChange =
  | {
      ok: true;
      /** Weeks set against each other, the later pair last. */
      pairs: Array<{ from: SpeedPoint; to: SpeedPoint }>;
      /** Mean of later less earlier over the pairs, m/s, with its 90 % interval. */
      changeMps: number;
      lowMps: number;
      highMps: number;
      /** Beyond noise, or not. */
      verdict: "rose" | "fell" | "within-noise";
      /** The loads differ: the earlier speed was carried along the athlete's own line. */
      byLine: boolean;
      working: Working;
    }
  | { ok: false; reason: "one-week" | "no-equal-load"; words: string };

const sameLoad = (a: number, b: number) =>
  Math.abs(a - b) <= SAME_LOAD_SHARE * Math.max(a, b) + 1e-9;

/** From the last week back: each with the earliest week at its load that is in no pair yet. */
function equalLoadPairs(
  points: readonly SpeedPoint[],
): Array<{ from: SpeedPoint; to: SpeedPoint }> {
  const used = new Set<number>();
  const pairs: Array<{ from: SpeedPoint; to: SpeedPoint }> = [];
  for (let i = points.length - 1; i > 0; i--) {
    const to = points[i] as SpeedPoint;
    if (used.has(i)) continue;
    const at = points.findIndex(
      (one, k) => k < i && !used.has(k) && sameLoad(one.loadKg, to.loadKg),
    );
    if (at < 0) continue;
    used.add(i).add(at);
    pairs.unshift({ from: points[at] as SpeedPoint, to });
  }
  return pairs;
}

/**
 * Change of speed at equal load over a cycle: working weeks at one load are set against each
 * other, each week in one pair at most, and the mean is taken. Where no two weeks have a load in
 * common, the first week is carried to the last one's load along the athlete's own line. A week's
 * error is the day's form and the readings of its sets, √(0.05² + 0.03²/n) m/s (DOMAIN 6);
 * deloads and tests are left out.
 * @param slope of the athlete's line, m/s per kg, below zero; undefined without one
 */
export function speedAtEqualLoad(
  weeks: readonly CycleWeek[],
  slope: number | undefined,
): SpeedChange {
  const points = weeks.flatMap((one): SpeedPoint[] =>
    one.kind === "work" && one.speedMps !== undefined && one.loadKg !== undefined
      ? [{ week: one.week, loadKg: one.loadKg, speedMps: one.speedMps, sets: one.speedSets }]
      : [],
  );
  const [first] = points;
  const last = points[points.length - 1];
  if (!first || !last || points.length < 2)
    return {
      ok: false,
      reason: "one-week",
      words: "Fewer than two working weeks with measured speed: nothing to set side by side.",
    };
  const equal = equalLoadPairs(points);
  const byLine = equal.length === 0;
  if (byLine && !(slope !== undefined && slope < 0))
    return {
      ok: false,
      reason: "no-equal-load",
      words:
        "No two working weeks at the same load, and no own profile to carry a speed from one load to another. One set at the first week's load would show it.",
    };
  const pairs = byLine ? [{ from: first, to: last }] : equal;
  const carried = (one: { from: SpeedPoint; to: SpeedPoint }) =>
    one.from.speedMps + (byLine ? (slope as number) * (one.to.loadKg - one.from.loadKg) : 0);
  const changeMps = mean(pairs.map((one) => one.to.speedMps - carried(one))) as number;
  const variance = (one: SpeedPoint) => DAY_SHIFT_SD_MPS ** 2 + READING_SD_MPS ** 2 / one.sets;
  const half =
    (Z90 * Math.sqrt(pairs.reduce((sum, one) => sum + variance(one.from) + variance(one.to), 0))) /
    pairs.length;
  const at = (one: SpeedPoint) => `${formatVelocity(one.speedMps)} m/s`;
  return {
    ok: true,
    pairs,
    changeMps,
    lowMps: changeMps - half,
    highMps: changeMps + half,
    verdict: changeMps > half ? "rose" : changeMps < -half ? "fell" : "within-noise",
    byLine,
    working: {
      title: "Speed at equal load, over the cycle",
      lines: [
        ...pairs.flatMap((one) => [
          {
            label: say`Week ${one.from.week}, ${written(one.from.loadKg)}`,
            value: at(one.from),
            detail: `mean of the best rep of ${several(one.from.sets, "set", "sets")}`,
          },
          ...(byLine
            ? [
                {
                  label: say`Carried to ${written(one.to.loadKg)}`,
                  value: `${formatVelocity(carried(one))} m/s`,
                  detail: "along the slope of the athlete's own profile",
                },
              ]
            : []),
          {
            label: say`Week ${one.to.week}, ${written(one.to.loadKg)}`,
            value: at(one.to),
            detail: `mean of the best rep of ${several(one.to.sets, "set", "sets")}`,
          },
        ]),
        {
          label: "Noise of the difference, 90 %",
          value: `± ${formatVelocity(half)} m/s`,
          detail: `day's form ${DAY_SHIFT_SD_MPS} m/s and reading ${READING_SD_MPS} m/s over the sets of each week${pairs.length > 1 ? `, mean of ${pairs.length} pairs` : ""}`,
        },
        {
          label: pairs.length > 1 ? "Change, mean of the pairs" : "Change",
          value: `${signedMps(changeMps)} m/s`,
          emphasis: "answer",
        },
      ],
      sources: ["Error of a day and of a reading: docs/sources.md, day readiness"],
      changes: ["More weeks at one load, or more sets measured at it."],
    },
  };
}
