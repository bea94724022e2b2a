import { Z90 } from "../numeric/normal";
import { inverseSpd } from "../numeric/spd";
import type { Interval } from "../profile/prediction";
import { daysBetween, type LocalDate } from "../units/time";
import type { Working } from "../units/working";
import { written } from "../units/written";

/** One day's sign of what somebody could lift. */
export interface MaxSign {
  date: LocalDate;
  kg: number;
  /** Spread of the sign itself, kg. */
  sdKg: number;
  /** By the day's speeds and a line, which may be off by one amount on all days; or lifted. */
  by: "speed" | "lifted";
}

/** How far a max drifts in a week, of itself, %: training, sleep, food. */
export const MAX_DRIFT_PERCENT = 0.5;
/** How far athletes' maxes go a week by training, of themselves, %: one standard deviation. */
export const MAX_WAY_PERCENT = 0.4;
/** How far that way changes from a week to the next, of the max, %. */
export const WAY_DRIFT_PERCENT = 0.03;
/** How far a week without the lift may move it besides, of itself, %. */
export const LAYOFF_DRIFT_PERCENT = 1.6;
/** A pause is one from so many days on. */
export const LAYOFF_DAYS = 14;
/** What a lifted single's day leaves open of the max, of itself, %. */
export const LIFTED_SD_PERCENT = 2;

export interface MaxDay extends Interval {
  date: LocalDate;
}

export type MaxTrend =
  | {
      ok: true;
      /** The max of each day with a sign, by all days together, kg, 90 %. */
      days: MaxDay[];
      /** Today's, kg, 90 %. */
      now: Interval;
      working: Working;
    }
  | { ok: false; reason: "no-sign" | "not-finite" };

const MOST_SIGNS = 2000;

/** Max, its way a week, and how far the line is off, kg; with their covariances. */
interface State {
  m: Vector;
  P: Matrix;
}
type Vector = [number, number, number];
type Matrix = [Vector, Vector, Vector];

/**
 * The max over time from daily speeds and lifted singles: a level that drifts and goes its way
 * (local linear trend; Kalman's filter, smoothed by Rauch, Tung and Striebel), seen with each day's own
 * error; speeds see it through one line that may be off by the same amount on all days, which lifted
 * singles set right. In a pause it may have moved more.
 * @param lineSdKg how far the line may be off, kg: the profile's own error and the threshold's
 */
export function maxTrend(signs: readonly MaxSign[], lineSdKg: number, today: LocalDate): MaxTrend {
  if (
    signs.length > MOST_SIGNS ||
    !Number.isFinite(lineSdKg) ||
    lineSdKg < 0 ||
    !signs.every((one) => one.kg > 0 && one.kg < 2000 && one.sdKg > 0 && one.sdKg < 2000)
  )
    return { ok: false, reason: "not-finite" };
  const ordered = signs
    .filter((one) => one.date <= today)
    .sort((a, b) => a.date.localeCompare(b.date));
  const [first] = ordered;
  if (!first) return { ok: false, reason: "no-sign" };
  const usual = ordered.reduce((sum, one) => sum + one.kg, 0) / ordered.length;
  const spreads = [0.3 * usual, (MAX_WAY_PERCENT / 100) * usual, Math.max(lineSdKg, 1e-6)];
  let state: State = {
    m: [first.kg, 0, 0],
    P: matrix((i, j) => (i === j ? (spreads[i] ?? 0) ** 2 : 0)),
  };
  const before: State[] = [];
  const after: State[] = [];
  ordered.forEach((sign, i) => {
    const last = ordered[i - 1];
    if (last) state = drifted(state, daysBetween(last.date, sign.date), usual);
    before.push(state);
    state = seen(state, sign);
    after.push(state);
  });
  const weeks = ordered.map(
    (sign, i) => daysBetween(ordered[i - 1]?.date ?? sign.date, sign.date) / 7,
  );
  const smooth = smoothed(before, after, weeks);
  const days = ordered.flatMap((sign, i): MaxDay[] => {
    // Several signs of one day: the last has them all.
    if (ordered[i + 1]?.date === sign.date) return [];
    return [{ date: sign.date, ...interval(smooth[i] as State) }];
  });
  const last = ordered.at(-1) as MaxSign;
  const now = interval(drifted(state, daysBetween(last.date, today), usual));
  return { ok: true, days, now, working: workingOf(ordered, now, lineSdKg) };
}

const PLACES = [0, 1, 2] as const;
type Place = (typeof PLACES)[number];
const matrix = (of: (i: Place, j: Place) => number): Matrix => {
  const row = (i: Place): Vector => [of(i, 0), of(i, 1), of(i, 2)];
  return [row(0), row(1), row(2)];
};
const sumOver = (of: (k: Place) => number): number => of(0) + of(1) + of(2);

/** A state so many days on. */
function drifted({ m, P }: State, days: number, usualKg: number): State {
  if (days <= 0) return { m, P };
  const w = days / 7;
  const part = (percent: number) => ((percent / 100) * usualKg) ** 2;
  const still = days >= LAYOFF_DAYS ? w * w * part(LAYOFF_DRIFT_PERCENT) : 0;
  const way = part(WAY_DRIFT_PERCENT);
  // F = [1 w 0; 0 1 0; 0 0 1], with the way's own walk inside the interval.
  const grown = matrix((i, j) => {
    let sum = P[i][j];
    if (i === 0) sum += w * P[1][j];
    if (j === 0) sum += w * P[i][1];
    if (i === 0 && j === 0) sum += w * w * P[1][1];
    return sum;
  });
  grown[0][0] += w * part(MAX_DRIFT_PERCENT) + still + (way * w ** 3) / 3;
  grown[0][1] += (way * w ** 2) / 2;
  grown[1][0] += (way * w ** 2) / 2;
  grown[1][1] += way * w;
  return { m: [m[0] + w * m[1], m[1], m[2]], P: grown };
}

/** Kalman's update by one sign. */
function seen({ m, P }: State, sign: MaxSign): State {
  const h = sign.by === "speed" ? 1 : 0;
  const at = (i: Place) => P[i][0] + h * P[i][2];
  const p: Vector = [at(0), at(1), at(2)];
  const s = p[0] + h * p[2] + sign.sdKg ** 2;
  const off = (sign.kg - m[0] - h * m[2]) / s;
  return {
    m: [m[0] + p[0] * off, m[1] + p[1] * off, m[2] + p[2] * off],
    P: matrix((i, j) => P[i][j] - (p[i] * p[j]) / s),
  };
}

/** Each day by what came after it too (Rauch, Tung & Striebel). */
function smoothed(
  before: readonly State[],
  after: readonly State[],
  weeks: readonly number[],
): State[] {
  const smooth = [...after];
  for (let i = after.length - 2; i >= 0; i--) {
    const now = after[i] as State;
    const next = before[i + 1] as State;
    const later = smooth[i + 1] as State;
    const inverse = inverseSpd(next.P);
    if (!inverse) continue;
    const w = weeks[i + 1] ?? 0;
    // G = P·Fᵀ·next⁻¹
    const PFt = matrix((r, c) => now.P[r][c] + (c === 0 ? w * now.P[r][1] : 0));
    const G = matrix((r, c) => sumOver((k) => PFt[r][k] * (inverse[k]?.[c] ?? 0)));
    const off = (k: Place) => later.m[k] - next.m[k];
    const narrowed = matrix((r, c) => later.P[r][c] - next.P[r][c]);
    const GD = matrix((r, c) => sumOver((k) => G[r][k] * narrowed[k][c]));
    const at = (r: Place) => now.m[r] + sumOver((k) => G[r][k] * off(k));
    smooth[i] = {
      m: [at(0), at(1), at(2)],
      P: matrix((r, c) => now.P[r][c] + sumOver((k) => GD[r][k] * G[c][k])),
    };
  }
  return smooth;
}

function interval({ m, P }: State): Interval {
  const sd = Math.sqrt(Math.max(0, P[0][0]));
  return { estimate: m[0], low: m[0] - Z90 * sd, high: m[0] + Z90 * sd };
}

function workingOf(signs: readonly MaxSign[], now: Interval, lineSdKg: number): Working {
  const last = signs.at(-1) as MaxSign;
  const lifted = signs.filter((one) => one.by === "lifted").length;
  return {
    title: "Estimated max over time",
    lines: [
      { label: "Days by speed", value: String(signs.length - lifted) },
      { label: "Lifted or tested", value: String(lifted) },
      { label: `Last sign, ${last.date}`, value: written(last.kg, 1) },
      {
        label: "The line may be off by",
        value: written(lineSdKg, 1),
        detail: "one standard deviation, the same on all days",
      },
      {
        label: "Drift",
        value: `${MAX_DRIFT_PERCENT} % a week`,
        detail: `a way of up to ${MAX_WAY_PERCENT} % a week learnt from the days; and ${LAYOFF_DRIFT_PERCENT} % for each week of a pause of ${LAYOFF_DAYS} days or more`,
      },
      { label: "90 % from", value: written(now.low, 1) },
      { label: "90 % to", value: written(now.high, 1) },
      { label: "Estimated max", value: written(now.estimate, 1), emphasis: "answer" },
    ],
    sources: [
      "Local linear trend, Kalman 1960; Rauch, Tung & Striebel 1965; drifts by docs/sources.md",
    ],
    changes: ["A tested single: it sets the line right for all days."],
  };
}
