import { Z90 } from "../../../core/numeric/normal";
import { READING_SD_MPS } from "../../../core/profile/day-form";
import { todaysForm } from "../../../core/profile/todays-form";
import { equalSpeed } from "../../../core/review/equal-speed";
import { equalSpeedWorking } from "../../../core/review/equal-speed-words";
import { type FaultMarks, faultMarks } from "../../../core/review/fault-marks";
import { measuredSets, type PointDay, slopeKnown } from "../../../core/review/squad-wave";
import { addDays, type LocalDate } from "../../../core/units/time";
import { isMeasured } from "../../../core/units/velocity";
import type { AnalysedTest } from "../lifters/analyse-test.server";

/** Weeks of speeds that a line of an athlete's page draws; the estimate stands on the whole year. */
const SHOWN_WEEKS = 12;

/** One main lift at a glance: speed at one load, today's readings, where faults are seen. */
export function liftGlance(input: {
  /** The lift's days of the last year, the oldest first. */
  history: readonly PointDay[];
  maxKg: number | undefined;
  profile: AnalysedTest | undefined;
  today: LocalDate;
  /** Shares of the max that the next published day asks, %. */
  asked: readonly number[];
}) {
  const { history, maxKg, profile, today, asked } = input;
  const speed = equalSpeed(measuredSets(history), { slope: slopeKnown(history, maxKg) });
  const from = addDays(today, -7 * SHOWN_WEEKS);
  const days = speed.ok ? speed.days.filter((day) => day.date >= from) : [];
  const level = days.reduce((sum, day) => sum + day.speedMps, 0) / Math.max(1, days.length);
  const setsOfDay = days.reduce((sum, day) => sum + day.sets, 0) / Math.max(1, days.length);
  return {
    days: history.length,
    speed:
      speed.ok && days.length > 1
        ? {
            loadKg: speed.loadKg,
            filmed: speed.filmed,
            metric: history.at(-1)?.points.metric ?? ("MCV" as const),
            days: days.map(({ date, speedMps }) => ({ date, speedMps })),
            levelMps: level,
            /** Nine of ten days lie so far from a level that does not change. */
            bandMps: Z90 * Math.sqrt(speed.daySdMps ** 2 + READING_SD_MPS ** 2 / setsOfDay),
            perWave: speed.perWave,
            chanceRises: speed.chanceRises,
            verdict: speed.verdict,
            working: equalSpeedWorking(speed),
          }
        : undefined,
    today: readingsToday(history, profile, today),
    faults: faultMarks(
      history.map(({ date, points: { topPercent, faults } }) => ({ date, topPercent, faults })),
    ) satisfies FaultMarks[],
    asked: asked.length === 0 ? undefined : { low: Math.min(...asked), high: Math.max(...asked) },
  };
}

export type LiftGlance = ReturnType<typeof liftGlance>;

/** What was measured of the lift today, and how far it lies from the newest test's line. */
function readingsToday(
  history: readonly PointDay[],
  profile: AnalysedTest | undefined,
  today: LocalDate,
) {
  const sets = history
    .filter((day) => day.date === today && (!profile || day.points.metric === profile.metric))
    .flatMap((day) => day.points.sets.map(([loadKg, , velocityMps]) => ({ loadKg, velocityMps })));
  if (sets.length === 0) return undefined;
  // Readings of a day are measured; beside a film's test they say nothing of today.
  const form =
    profile?.result.ok && isMeasured(profile.source)
      ? todaysForm({
          profile: profile.result.used,
          today: sets,
          thresholdMps: undefined,
          // The shift does not depend on it.
          targetMps: sets[0]?.velocityMps ?? 1,
        })
      : undefined;
  return { sets, shift: form?.ok ? form.shift : undefined };
}
