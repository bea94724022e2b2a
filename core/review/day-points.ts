import type { FloorState } from "../floor/state";
import { DAY_SHIFT_SD_MPS } from "../profile/day-form";
import type { Interval } from "../profile/prediction";
import { type RepAtLoad, todaysForm } from "../profile/todays-form";
import type { LocalDate } from "../units/time";
import { areComparable, type VelocityMetric } from "../units/velocity";

/** What was measured of a lift on one day of training. */
export interface DayPoint {
  date: LocalDate;
  sessionId: string;
  /** The fastest counted rep of each load, the lightest first. */
  loads: Array<{ loadKg: number; bestMps: number; reps: number }>;
  /** The day's shift of a test's line, m/s, with its 90 % interval; undefined where it tells nothing. */
  shift: Interval | undefined;
  /** What the day's reps alone say of the shift, without what is usual from day to day. */
  reading: { shiftMps: number; readingSdMps: number } | undefined;
  /** Where the speeds come from: "sensor", "typed" … */
  sources: string[];
}

/**
 * The day's points of one athlete's lift beside a profile test: every counted and measured rep of
 * training, on the way up too, in the test's own metric; a bounced rep stays out, and so does what an
 * older processing measured. A profile is dated: its line is not moved by them, the day is told by
 * the shift that they show (see `todaysForm`), from loads within the test's alone.
 *
 * @returns undefined where nothing was measured
 */
export function dayPoint(input: {
  floor: FloorState;
  sessionId: string;
  date: LocalDate;
  athleteId: string;
  variantId: string;
  /** Its source tells which speeds may stand beside it. */
  test: { metric: VelocityMetric; source: string; reps: readonly RepAtLoad[] };
}): DayPoint | undefined {
  const { floor, athleteId, variantId, test } = input;
  const reps = floor.racks
    .filter(({ slot }) => slot.variantId === variantId && slot.metric === test.metric)
    .flatMap((rack) => rack.lifters)
    .filter((one) => one.lifter.athleteId === athleteId)
    .flatMap((one) => [...one.ramp, ...one.sets])
    .flatMap(({ loadKg, reps }) =>
      reps.flatMap((rep) =>
        loadKg !== undefined &&
        rep.velocityMps !== undefined &&
        rep.outcome === "counted" &&
        !rep.bounced &&
        !rep.older &&
        areComparable(rep.source, test.source)
          ? [{ loadKg, velocityMps: rep.velocityMps, source: rep.source }]
          : [],
      ),
    );
  if (reps.length === 0) return undefined;
  const tested = test.reps.map((rep) => rep.loadKg);
  const within = reps.filter(
    ({ loadKg }) => loadKg >= Math.min(...tested) && loadKg <= Math.max(...tested),
  );
  const form = todaysForm({
    profile: test.reps,
    today: within,
    thresholdMps: undefined,
    // The shift does not depend on it.
    targetMps: test.reps[0]?.velocityMps ?? 1,
  });
  const loads = [...new Set(reps.map((rep) => rep.loadKg))].sort((a, b) => a - b);
  return {
    date: input.date,
    sessionId: input.sessionId,
    loads: loads.map((loadKg) => {
      const own = reps.filter((rep) => rep.loadKg === loadKg);
      return {
        loadKg,
        bestMps: Math.max(...own.map((rep) => rep.velocityMps)),
        reps: own.length,
      };
    }),
    shift: form.ok ? form.shift : undefined,
    reading: form.ok ? withoutPrior(form.shift.estimate, form.shiftSdMps) : undefined,
    sources: [...new Set(reps.map((rep) => rep.source))],
  };
}

/** A normal update by N(0, `DAY_SHIFT_SD_MPS`²) taken back: what was put in. */
function withoutPrior(shiftMps: number, sdMps: number): DayPoint["reading"] {
  const precision = 1 / sdMps ** 2 - 1 / DAY_SHIFT_SD_MPS ** 2;
  return precision > 0
    ? { shiftMps: shiftMps / sdMps ** 2 / precision, readingSdMps: 1 / Math.sqrt(precision) }
    : undefined;
}
