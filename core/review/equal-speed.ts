import { normalCdf, Z90 } from "../numeric/normal";
import { inverseSpd } from "../numeric/spd";
import { DAY_SHIFT_SD_MPS, READING_SD_MPS } from "../profile/day-form";
import type { Interval } from "../profile/prediction";
import { daysBetween, type LocalDate } from "../units/time";
import { sessionsToSettle, trendVerdict, WAVE_CHANGE_SD_MPS, WAVE_RISE_MPS } from "./speed-trend";

/** A work set's best measured rep. */
export interface MeasuredSet {
  date: LocalDate;
  loadKg: number;
  /** Work sets of the lift done before it that day. */
  before: number;
  bestMps: number;
  /** From a film; all sets of a line are, or none is. */
  filmed?: boolean;
}

/** What is known of speed over load before the sets are looked at, m/s per kg. */
export interface SlopeKnown {
  slopeMpsPerKg: number;
  sdMpsPerKg: number;
}

/** Usual loss of speed over the whole way from no load to the max, m/s, and athletes' spread. */
export const SPEED_OVER_MAX_MPS = 1.4;
export const SPEED_OVER_MAX_SD_MPS = 0.4;
/** What a set loses on the one before it: mean and spread beforehand, m/s. */
export const SET_FADE_MPS = 0.005;
export const SET_FADE_SD_MPS = 0.01;
/** Days that the usual day-to-day spread counts for until an athlete's own is learnt. */
const DAY_SD_COUNTS = 12;
/** Smallest rise in a wave that counts, m/s. */
export const SMALLEST_RISE_MPS = 0.01;

export interface EqualSpeedAsked {
  /** Towards what the change a wave is shrunk, m/s: no change, or the squad's mean. */
  towardsMps?: number;
  /** How far athletes' changes lie round that, m/s a wave. */
  changeSdMps?: number;
  slope: SlopeKnown;
  /** A day-to-day spread that is known, m/s; learnt from the days where left out. */
  daySdMps?: number;
}

/** One day's speed as it would be at the load that all days are set at, fresh. */
export interface EqualDay {
  date: LocalDate;
  speedMps: number;
  /** Of the day's readings alone, m/s. */
  readingSdMps: number;
  sets: number;
}

export type EqualSpeed =
  | {
      ok: true;
      /** The speeds are from films. */
      filmed: boolean;
      /** The load that all days are carried to: the sets' mean load, kg. */
      loadKg: number;
      days: EqualDay[];
      /** Change a wave of three weeks, m/s, 90 %. */
      perWave: Interval;
      sdMps: number;
      /** What the days alone say, shrunk towards nothing; undefined where they say nothing. */
      alone: { changeMps: number; sdMps: number } | undefined;
      chanceRises: number;
      /** Chance that the change is under the smallest that counts. */
      chanceUnder: (smallestMps: number) => number;
      verdict: "rises" | "falls" | "unclear";
      sessionsMore: number | undefined;
      /** Level at the last day, m/s, 90 %, as the line over the days has it. */
      now: Interval;
      /** Speed over load, m/s per kg, as it came out. */
      slopeMpsPerKg: number;
      /** What a set loses on the one before it, m/s, 90 %. */
      fade: Interval;
      /** Day-to-day spread that was used, m/s. */
      daySdMps: number;
    }
  | { ok: false; reason: "one-day" | "not-finite" };

const WAVE_DAYS = 21;
/** Sets beyond this are not read: some years of a lift. */
const MOST_SETS = 5000;

/** A day's sums over its sets: of 1, waves since the first day, load over the mean load, sets before. */
interface Day {
  date: LocalDate;
  n: number;
  waves: number;
  x: Four;
  y: number;
  xx: [Four, Four, Four, Four];
  xy: Four;
}

/**
 * Change of an athlete's speed at equal load over all days at comparable loads: one linear model
 * y = a + β·waves + b·(load − mean load) − f·(sets before) + day + reading, day ~ N(0, 0.05²) until the
 * own spread is learnt, reading ~ N(0, 0.03²); β ~ N(towards, 0.03²), b by the profile or the usual
 * line, f ~ N(0.005, 0.01²); solved by generalised least squares, so that what is not known of the
 * load's and the fade's part widens the answer. Verdicts are chances that carry over waves.
 */
export function equalSpeed(sets: readonly MeasuredSet[], asked: EqualSpeedAsked): EqualSpeed {
  const { slope } = asked;
  const towardsMps = asked.towardsMps ?? 0;
  const changeSdMps = asked.changeSdMps ?? WAVE_CHANGE_SD_MPS;
  const numbers = [
    towardsMps,
    changeSdMps,
    slope.slopeMpsPerKg,
    slope.sdMpsPerKg,
    asked.daySdMps ?? 1,
  ];
  const carried = carriedSets(sets);
  if (
    carried === "not-finite" ||
    !numbers.every(Number.isFinite) ||
    !(slope.sdMpsPerKg > 0) ||
    !(changeSdMps > 0) ||
    !((asked.daySdMps ?? 1) > 0)
  )
    return { ok: false, reason: "not-finite" };
  if (carried === "one-day") return { ok: false, reason: "one-day" };
  const { loadKg, days } = carried;
  let daySdMps = asked.daySdMps ?? DAY_SHIFT_SD_MPS;
  let fit = solve(days, { daySdMps, towardsMps, changeSdMps, slope });
  if (fit && asked.daySdMps === undefined) {
    daySdMps = learntDaySd(fit, days);
    fit = solve(days, { daySdMps, towardsMps, changeSdMps, slope });
  }
  if (!fit) return { ok: false, reason: "not-finite" };
  const { m, P } = fit;
  const at = (i: number) => P[i]?.[i] ?? 0;
  const sdMps = Math.sqrt(at(1));
  const chanceRises = normalCdf(m[1] / sdMps);
  const last = days.at(-1)?.waves ?? 0;
  const nowSd = Math.sqrt(at(0) + 2 * last * (P[0]?.[1] ?? 0) + last * last * at(1));
  const equalDays = days.map((day) => equalDay(day, m));
  const interval = (estimate: number, sd: number): Interval => ({
    estimate,
    low: estimate - Z90 * sd,
    high: estimate + Z90 * sd,
  });
  return {
    ok: true,
    loadKg,
    days: equalDays,
    perWave: interval(m[1], sdMps),
    sdMps,
    alone: withoutPrior(m[1], sdMps, towardsMps, changeSdMps),
    filmed: sets.some((set) => set.filmed),
    chanceRises,
    chanceUnder: (smallestMps) => normalCdf((smallestMps - m[1]) / sdMps),
    verdict: trendVerdict(chanceRises),
    // Asked of who is shown alone: it looks ahead day by day.
    get sessionsMore() {
      return sessionsToSettle(
        days.map((day, i) => ({
          waves: day.waves,
          y: equalDays[i]?.speedMps ?? 0,
          variance: daySdMps ** 2 + (equalDays[i]?.readingSdMps ?? 0) ** 2,
        })),
        { prior: 1 / changeSdMps ** 2, towardsMps, riseMps: WAVE_RISE_MPS },
      );
    },
    now: interval(m[0] + m[1] * last, nowSd),
    slopeMpsPerKg: m[2],
    fade: interval(m[3], Math.sqrt(at(3))),
    daySdMps,
  };
}

type Carried = { loadKg: number; days: readonly Day[] } | "one-day" | "not-finite";

/**
 * A squad's wave asks twice of the same sets, without and with the squad's mean. An array of sets is
 * never added to.
 */
const carriedOf = new WeakMap<readonly MeasuredSet[], Carried>();

/** The sets by day, carried to their mean load. */
function carriedSets(sets: readonly MeasuredSet[]): Carried {
  const there = carriedOf.get(sets);
  if (there !== undefined) return there;
  const made = carriedAnew(sets);
  carriedOf.set(sets, made);
  return made;
}

function carriedAnew(sets: readonly MeasuredSet[]): Carried {
  if (
    sets.length > MOST_SETS ||
    !sets.every(
      (one) =>
        Number.isFinite(one.loadKg) && Number.isFinite(one.before) && Number.isFinite(one.bestMps),
    )
  )
    return "not-finite";
  const ordered = [...sets].sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
  const [first] = ordered;
  if (!first || ordered.at(-1)?.date === first.date) return "one-day";
  const loadKg = ordered.reduce((sum, one) => sum + one.loadKg, 0) / ordered.length;
  return { loadKg, days: daysOf(ordered, first.date, loadKg) };
}

/** A normal update taken back: what was put in. */
function withoutPrior(m: number, sd: number, towards: number, priorSd: number) {
  const precision = 1 / sd ** 2 - 1 / priorSd ** 2;
  return precision > 1e-9
    ? {
        changeMps: (m / sd ** 2 - towards / priorSd ** 2) / precision,
        sdMps: 1 / Math.sqrt(precision),
      }
    : undefined;
}

/** What is known of a line where no profile was tested: the usual loss over the athlete's max. */
export function usualSlope(maxKg: number): SlopeKnown | undefined {
  return maxKg > 0 && maxKg < 2000
    ? { slopeMpsPerKg: -SPEED_OVER_MAX_MPS / maxKg, sdMpsPerKg: SPEED_OVER_MAX_SD_MPS / maxKg }
    : undefined;
}

function daysOf(ordered: readonly MeasuredSet[], first: LocalDate, loadKg: number): Day[] {
  const days: Day[] = [];
  for (const set of ordered) {
    let day = days.at(-1);
    if (day?.date !== set.date) {
      const zero = (): Four => [0, 0, 0, 0];
      day = {
        date: set.date,
        n: 0,
        waves: daysBetween(first, set.date) / WAVE_DAYS,
        x: zero(),
        y: 0,
        xx: [zero(), zero(), zero(), zero()],
        xy: zero(),
      };
      days.push(day);
    }
    const x: Four = [1, day.waves, set.loadKg - loadKg, -set.before];
    day.n++;
    day.y += set.bestMps;
    for (const i of FOUR) {
      day.x[i] += x[i];
      day.xy[i] += x[i] * set.bestMps;
      for (const j of FOUR) day.xx[i][j] += x[i] * x[j];
    }
  }
  return days;
}

const FOUR = [0, 1, 2, 3] as const;

type Four = [number, number, number, number];

interface Solved {
  m: Four;
  P: number[][];
}

/** The posterior of level, change a wave, load and fade; each day's sets share the day's form. */
function solve(
  days: readonly Day[],
  of: { daySdMps: number; towardsMps: number; changeSdMps: number; slope: SlopeKnown },
): Solved | undefined {
  const prior: Array<[mean: number, sd: number]> = [
    [0, 1e3],
    [of.towardsMps, of.changeSdMps],
    [of.slope.slopeMpsPerKg, of.slope.sdMpsPerKg],
    [SET_FADE_MPS, SET_FADE_SD_MPS],
  ];
  const A = prior.map(([, sd], i) => prior.map((_, j) => (i === j ? 1 / sd ** 2 : 0)));
  const b = prior.map(([mean, sd]) => mean / sd ** 2);
  const s2 = READING_SD_MPS ** 2;
  for (const { n, x, y, xx, xy } of days) {
    // (s²I + d²J)⁻¹ = (I − c·J) / s²
    const c = of.daySdMps ** 2 / (s2 + n * of.daySdMps ** 2);
    for (const i of FOUR) {
      const row = A[i] as number[];
      for (const j of FOUR) row[j] = (row[j] ?? 0) + (xx[i][j] - c * x[i] * x[j]) / s2;
      b[i] = (b[i] ?? 0) + (xy[i] - c * x[i] * y) / s2;
    }
  }
  const P = inverseSpd(A);
  if (!P) return undefined;
  const m = P.map((row) => row.reduce((sum, p, j) => sum + p * (b[j] ?? 0), 0));
  return m.every(Number.isFinite) ? { m: m as Four, P } : undefined;
}

/** The spread of the days round their line, with the usual one counted as so many days. */
function learntDaySd({ m }: Solved, days: readonly Day[]): number {
  let squares = 0;
  for (const { n, x, y } of days) {
    const off = (y - FOUR.reduce<number>((sum, i) => sum + x[i] * m[i], 0)) / n;
    squares += off * off - READING_SD_MPS ** 2 / n;
  }
  // Two of the days' freedoms go into level and change.
  const spread =
    (DAY_SD_COUNTS * DAY_SHIFT_SD_MPS ** 2 + Math.max(0, squares)) /
    (DAY_SD_COUNTS + Math.max(0, days.length - 2));
  return Math.sqrt(spread);
}

function equalDay({ date, n, x, y }: Day, m: Four): EqualDay {
  return {
    date,
    speedMps: (y - m[2] * x[2] - m[3] * x[3]) / n,
    readingSdMps: READING_SD_MPS / Math.sqrt(n),
    sets: n,
  };
}
