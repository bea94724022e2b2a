import { mean, standardDeviation } from "../numeric/statistics";
import { studentQuantile } from "../numeric/student-t";
import { addDays, daysBetween, type LocalDate } from "../units/time";
import { formatVelocity } from "../units/velocity";
import { say, written } from "../units/written";
import type { ReviewCall } from "./calls";
import { signedMps } from "./equal-load";
import type { SquadMean } from "./squad-mean";
import type { PointDay, WaveRow } from "./squad-wave";

/** Calls that no wave asks: a max or profile that is old, heavy work too close, a sensor, a squad's deload. */

/** A lift's name within a sentence. */
const small = (name: string) => name.charAt(0).toLowerCase() + name.slice(1);

const plain = {
  squadId: undefined,
  planId: undefined,
  slotId: undefined,
};

/** A max that is stale and a profile that is old, of a lift that is trained. */
export function staleCalls(input: {
  athleteId: string;
  variantId: string;
  liftName: string;
  max: { kg: number; ageDays: number; stale: boolean; date: LocalDate } | undefined;
  profile: { testedOn: LocalDate; ageDays: number } | undefined;
  profileDays: number;
}): ReviewCall[] {
  const { athleteId, variantId, liftName, max, profile } = input;
  const calls: ReviewCall[] = [];
  if (max?.stale)
    calls.push({
      ...plain,
      kind: "test",
      about: `test/${athleteId}/${variantId}/${max.date}`,
      athleteId,
      variantId,
      proposal: say`Test the ${small(liftName)}: the max of ${written(max.kg, 1)} is ${max.ageDays} days old`,
      evidence: { lines: [`Set on ${max.date}; a max is stale after 56 days`] },
      action: { type: "to-do", what: "test", days: 14 },
      sure: Math.min(1, max.ageDays / 365),
    });
  if (profile && profile.ageDays > input.profileDays)
    calls.push({
      ...plain,
      kind: "profile",
      about: `profile/${athleteId}/${variantId}/${profile.testedOn}`,
      athleteId,
      variantId,
      proposal: `Test the profile of the ${small(liftName)}: ${profile.ageDays} days old`,
      evidence: {
        lines: [`Tested on ${profile.testedOn}; speeds and loads by it are of that day`],
      },
      action: { type: "to-do", what: "profile", days: 21 },
      sure: Math.min(1, profile.ageDays / 365),
    });
  return calls;
}

/** A found speed weight that was held as long as the team holds one. */
export function speedWeightCalls(input: {
  athleteId: string;
  variantId: string;
  liftName: string;
  found: { kg: number; date: LocalDate } | undefined;
  holdWeeks: number;
  today: LocalDate;
}): ReviewCall[] {
  const { athleteId, variantId, found, holdWeeks, today } = input;
  const held = found && daysBetween(found.date, today);
  if (!found || held === undefined || held < 7 * holdWeeks) return [];
  return [
    {
      ...plain,
      kind: "speed-weight",
      about: `speed-weight/${athleteId}/${variantId}/${found.date}`,
      athleteId,
      variantId,
      proposal: say`Find the next speed weight of the ${small(input.liftName)}: ${written(found.kg, 1)} was held ${Math.floor(held / 7)} weeks`,
      evidence: { lines: [`Found on ${found.date}; held ${holdWeeks} weeks at most`] },
      action: { type: "to-do", what: "speed-weight", days: 14 },
      sure: Math.min(1, held / (7 * holdWeeks) / 2),
    },
  ];
}

/** Lift over body mass from which heavy days stand further apart. */
export const STRONG_LIFT_PER_BODY = 2.5;
/** Days from one heavy day of a lift to the next: for the very strong, and for anybody. */
export const STRONG_HEAVY_DAYS = 14;
export const HEAVY_DAYS = 3;

/** Heavy days of one lift that lie too close. */
export function heavyCalls(input: {
  athleteId: string;
  variantId: string;
  liftName: string;
  days: readonly PointDay[];
  bodyKg: number | undefined;
  maxKg: number | undefined;
  today: LocalDate;
}): ReviewCall[] {
  const { athleteId, variantId, liftName, bodyKg, maxKg, today } = input;
  const dates = [
    ...new Set(input.days.flatMap((day) => (day.points.heavy ? [day.date] : []))),
  ].sort();
  const [before, last] = dates.slice(-2);
  if (!before || !last || daysBetween(last, today) > STRONG_HEAVY_DAYS) return [];
  const strong =
    bodyKg !== undefined && maxKg !== undefined && maxKg >= STRONG_LIFT_PER_BODY * bodyKg;
  const asked = strong ? STRONG_HEAVY_DAYS : HEAVY_DAYS;
  const apart = daysBetween(before, last);
  if (apart >= asked) return [];
  return [
    {
      ...plain,
      kind: "heavy",
      about: `heavy/${athleteId}/${variantId}/${last}`,
      athleteId,
      variantId,
      proposal: `Heavy ${small(liftName)} again after ${apart} ${apart === 1 ? "day" : "days"}: the next not before ${addDays(last, asked)}`,
      evidence: {
        lines: [
          `Heavy on ${before} and ${last}`,
          strong
            ? say`Lifts ${written(maxKg ?? 0, 1)} at ${written(bodyKg ?? 0, 1)}: every second week`
            : `At least ${HEAVY_DAYS} days apart`,
        ],
      },
      action: {
        type: "to-do",
        what: "look",
        days: Math.max(1, daysBetween(today, addDays(last, asked))),
      },
      sure: 1 - apart / asked,
    },
  ];
}

/** A difference that a sensor's check is asked for, m/s. */
export const SENSOR_DRIFT_MPS = 0.04;
/** Athletes' days at a rack before its sensor is judged. */
export const SENSOR_DAYS = 6;

/** An athlete's day against their own line, and where it was. */
export interface StationDay {
  stationId: string;
  stationName: string;
  date: LocalDate;
  /** m/s over what was expected of the athlete. */
  offMps: number;
}

/**
 * Racks whose speeds lie apart from the athletes' own lines, against all other racks: a sensor that drifts,
 * or one that hangs askew. By t at 99 %, for many racks are asked.
 */
export function stationCalls(
  days: readonly StationDay[],
  squadId: string | undefined,
): ReviewCall[] {
  const by = new Map<string, StationDay[]>();
  for (const day of days) by.set(day.stationId, [...(by.get(day.stationId) ?? []), day]);
  return [...by].flatMap(([stationId, own]): ReviewCall[] => {
    const others = days.filter((day) => day.stationId !== stationId).map((day) => day.offMps);
    const offs = own.map((day) => day.offMps);
    const [a, b] = [mean(offs), mean(others)];
    const [sa, sb] = [standardDeviation(offs), standardDeviation(others)];
    if (own.length < SENSOR_DAYS || others.length < SENSOR_DAYS) return [];
    if (a === undefined || b === undefined || sa === undefined || sb === undefined) return [];
    const apart = a - b;
    const se = Math.sqrt(sa ** 2 / offs.length + sb ** 2 / others.length);
    const t = studentQuantile(0.995, offs.length + others.length - 2);
    if (Math.abs(apart) < SENSOR_DRIFT_MPS || Math.abs(apart) < t * se) return [];
    const name = own[0]?.stationName ?? "rack";
    const last =
      own
        .map((day) => day.date)
        .sort()
        .at(-1) ?? "";
    return [
      {
        ...plain,
        squadId,
        kind: "sensor",
        about: `sensor/${stationId}/${last}`,
        athleteId: undefined,
        variantId: undefined,
        proposal: `Check the sensor of ${name}: its speeds lie ${signedMps(apart)} m/s from the athletes' own`,
        evidence: {
          lines: [
            `${offs.length} athletes' days there, ${others.length} at other racks; their lines are their own`,
            `± ${formatVelocity(t * se)} m/s at 99 %`,
          ],
        },
        action: { type: "to-do", what: "sensor", days: 7 },
        sure: Math.min(1, Math.abs(apart) / 0.2),
      },
    ];
  });
}

/** A squad whose speed fell in a wave, all together: a deload week before the next. */
export function deloadCalls(input: {
  squadId: string | undefined;
  planId: string;
  slotId: string;
  run: number;
  waveMean: SquadMean | undefined;
  /** The week of the plan that would be put in; undefined where the plan is over. */
  week: number | undefined;
}): ReviewCall[] {
  const { waveMean, week } = input;
  if (!waveMean || waveMean.high >= 0 || week === undefined) return [];
  return [
    {
      kind: "deload",
      about: `deload/${input.planId}/${input.slotId}/${input.run}`,
      athleteId: undefined,
      squadId: input.squadId,
      planId: input.planId,
      slotId: input.slotId,
      variantId: undefined,
      proposal: `Put in a deload as week ${week}: the squad slowed, all together`,
      evidence: {
        lines: [
          `Mean of ${waveMean.athletes}: ${signedMps(waveMean.estimate)} m/s a wave (90 % ${signedMps(waveMean.low)} to ${signedMps(waveMean.high)})`,
        ],
      },
      action: { type: "week", planId: input.planId, mark: "deload", week },
      sure: 0.95,
    },
  ];
}

/** Rows' days against their own lines, for the sensors. */
export function stationDays(
  rows: ReadonlyArray<Pick<WaveRow, "athleteId" | "speed">>,
  historyOf: (athleteId: string) => readonly PointDay[],
  nameOf: (stationId: string) => string | undefined,
  since: LocalDate,
): StationDay[] {
  return rows.flatMap(({ athleteId, speed }) => {
    if (!speed.ok) return [];
    const first = speed.days[0]?.date;
    const history = historyOf(athleteId);
    const last = speed.days.at(-1)?.date;
    if (!first || !last) return [];
    const span = Math.max(1, daysBetween(first, last));
    return speed.days.flatMap((day): StationDay[] => {
      const stationId = history.find((one) => one.date === day.date)?.points.stationId;
      const stationName = stationId && nameOf(stationId);
      if (!stationId || !stationName || day.date < since) return [];
      const waves = (daysBetween(first, day.date) - span) / 21;
      const expected = speed.now.estimate + waves * speed.perWave.estimate;
      return [{ stationId, stationName, date: day.date, offMps: day.speedMps - expected }];
    });
  });
}
