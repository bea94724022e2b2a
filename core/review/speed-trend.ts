import { normalCdf, Z90 } from "../numeric/normal";
import { DAY_SHIFT_SD_MPS } from "../profile/day-form";
import type { Interval } from "../profile/prediction";
import { daysBetween, type LocalDate } from "../units/time";
import type { Working } from "../units/working";

/** One day's speed against one reference: a test's line, or a load that all days had. */
export interface TrendDay {
  date: LocalDate;
  /** m/s over the reference. */
  shiftMps: number;
  /** Error of the day's reading alone, m/s: what its reps leave open. */
  readingSdMps: number;
}

/** Usual rise of speed at equal load that a wave is looked at for, m/s. */
export const WAVE_RISE_MPS = 0.03;
/** Weeks of a wave that it is counted over. */
export const WAVE_WEEKS = 3;
/** Spread of athletes' true changes in a wave before anything is known, m/s. */
export const WAVE_CHANGE_SD_MPS = 0.03;
/** Chance from which a trend is called. */
export const CALL_CHANCE = 0.95;
/** Share of true rises that an announced number of sessions finds. */
export const FOUND_SHARE = 0.8;
/** Sessions more that are looked ahead. */
const MOST_AHEAD = 60;

export interface TrendAsked {
  /** The athlete's own spread from day to day, m/s; the usual one until learnt. */
  daySdMps?: number;
  /** Towards what it is shrunk, m/s a wave: no change, or the squad's mean. */
  towardsMps?: number;
  changeSdMps?: number;
  riseMps?: number;
}

export type SpeedTrend =
  | {
      ok: true;
      /** Change of speed at equal load in a wave, m/s, with its 90 % interval. */
      perWave: Interval;
      /** Chance that it truly rises, and falls. */
      chanceRises: number;
      chanceFalls: number;
      verdict: "rises" | "falls" | "unclear";
      days: number;
      /** Weekly sessions more after which a true rise of the usual size would be called in four of five cases; 0 where enough are there, undefined where no number helps. */
      sessionsMore: number | undefined;
      working: Working;
    }
  | { ok: false; reason: "one-day" | "not-finite" };

/** Weighted sums of days: what they know of a slope a wave. */
function slopeOf(days: ReadonlyArray<{ waves: number; y: number; variance: number }>) {
  let [w, wx, wy] = [0, 0, 0];
  for (const { waves, y, variance } of days) {
    w += 1 / variance;
    wx += waves / variance;
    wy += y / variance;
  }
  const [meanX, meanY] = [wx / w, wy / w];
  let [sxx, sxy] = [0, 0];
  for (const { waves, y, variance } of days) {
    sxx += (waves - meanX) ** 2 / variance;
    sxy += ((waves - meanX) * (y - meanY)) / variance;
  }
  return { sxx, sxy };
}

/**
 * Whether speed at equal load rises over all sessions at comparable loads, as a chance that carries over
 * waves: y = a + b·t + day + reading, a flat, b ~ N(towards, 0.03²) m/s a wave, day ~ N(0, 0.05²), the
 * reading as its reps leave it. One wave of weekly sessions seldom settles one athlete: "unclear" is
 * said, with the number of sessions that would. It is no experiment: what else changed with the weeks
 * is in it too.
 */
export function speedTrend(days: readonly TrendDay[], asked: TrendAsked = {}): SpeedTrend {
  const {
    daySdMps = DAY_SHIFT_SD_MPS,
    towardsMps = 0,
    changeSdMps = WAVE_CHANGE_SD_MPS,
    riseMps = WAVE_RISE_MPS,
  } = asked;
  if (
    ![daySdMps, towardsMps, changeSdMps, riseMps].every(Number.isFinite) ||
    !(daySdMps > 0) ||
    !(changeSdMps > 0) ||
    !days.every((day) => Number.isFinite(day.shiftMps) && day.readingSdMps >= 0)
  )
    return { ok: false, reason: "not-finite" };
  const [first] = days;
  const points = days.map((day) => ({
    waves: first ? daysBetween(first.date, day.date) / (7 * WAVE_WEEKS) : 0,
    y: day.shiftMps,
    variance: daySdMps ** 2 + day.readingSdMps ** 2,
  }));
  if (new Set(points.map((one) => one.waves)).size < 2) return { ok: false, reason: "one-day" };
  const { sxx, sxy } = slopeOf(points);
  const prior = 1 / changeSdMps ** 2;
  const precision = sxx + prior;
  const estimate = (sxy + prior * towardsMps) / precision;
  const sd = 1 / Math.sqrt(precision);
  const chanceRises = normalCdf(estimate / sd);
  const verdict = trendVerdict(chanceRises);
  const perWave = { estimate, low: estimate - Z90 * sd, high: estimate + Z90 * sd };
  const sessionsMore = sessionsToSettle(points, { prior, towardsMps, riseMps });
  return {
    ok: true,
    perWave,
    chanceRises,
    chanceFalls: 1 - chanceRises,
    verdict,
    days: days.length,
    sessionsMore,
    working: {
      title: "Change of speed at equal load",
      lines: [
        {
          label: "Days",
          value: String(days.length),
          detail: `over ${points.at(-1)?.waves.toFixed(1)} waves of ${WAVE_WEEKS} weeks`,
        },
        { label: "Slope of the days alone", value: `${signed(sxy / sxx)} m/s a wave` },
        {
          label: "Shrunk towards",
          value: `${signed(towardsMps)} m/s`,
          detail: `athletes differ by ${changeSdMps} m/s a wave`,
        },
        {
          label: "Change a wave",
          value: `${signed(estimate)} m/s`,
          detail: `90 % ${signed(perWave.low)} to ${signed(perWave.high)}`,
          emphasis: "answer",
        },
        {
          label: "Chance that it rises",
          value: `${Math.round(100 * chanceRises)} %`,
          detail: `called from ${100 * CALL_CHANCE} %`,
        },
      ],
      sources: [
        `Day to day ${daySdMps} m/s and the reading of each day; normal update, flat level`,
        "No experiment: whatever changed with the weeks is in it",
      ],
      changes: [
        "More days; a smaller spread from day to day; the squad's mean instead of no change.",
      ],
    },
  };
}

/** What a chance that speed rises comes to. */
export const trendVerdict = (chanceRises: number): "rises" | "falls" | "unclear" =>
  chanceRises >= CALL_CHANCE ? "rises" : 1 - chanceRises >= CALL_CHANCE ? "falls" : "unclear";

const signed = (mps: number) => `${mps < 0 ? "−" : "+"}${Math.abs(mps).toFixed(3)}`;

/** How many weekly sessions more would call a true rise in four of five cases. */
export function sessionsToSettle(
  points: ReadonlyArray<{ waves: number; y: number; variance: number }>,
  of: { prior: number; towardsMps: number; riseMps: number },
): number | undefined {
  const last = points.at(-1)?.waves ?? 0;
  const variance = points.reduce((sum, one) => sum + one.variance, 0) / points.length;
  const ahead = [...points];
  for (let more = 0; more <= MOST_AHEAD; more++) {
    const { sxx } = slopeOf(ahead);
    const precision = sxx + of.prior;
    // The slope of the days alone from which the chance is called.
    const called = (Z90 * Math.sqrt(precision) - of.prior * of.towardsMps) / sxx;
    if (normalCdf((of.riseMps - called) * Math.sqrt(sxx)) >= FOUND_SHARE) return more;
    ahead.push({ waves: last + (more + 1) / WAVE_WEEKS, y: 0, variance });
  }
  return undefined;
}
