import { mean, standardDeviation } from "../numeric/statistics";
import { studentQuantile } from "../numeric/student-t";
import { DAY_SHIFT_SD_MPS, READING_SD_MPS } from "../profile/day-form";
import type { LocalDate } from "../units/time";
import { formatVelocity } from "../units/velocity";
import type { ReviewCall } from "./calls";

/** A day of one athlete in one slot: the best rep of each set, m/s. */
export interface FloorDay {
  date: LocalDate;
  bestsMps: readonly number[];
}

export type OwnFloor =
  | {
      ok: true;
      /** Where the floor would stand, m/s, with its 90 % interval. */
      floorMps: number;
      low: number;
      high: number;
      /** Mean of the days' best speeds, m/s. */
      bestMps: number;
      days: number;
      sets: number;
    }
  | { ok: false; reason: "few-days" | "not-finite" };

/** Days and sets under which no floor is learnt. */
export const FLOOR_DAYS = 4;
export const FLOOR_SETS = 12;
/** A floor nearer to the slot's than this is the slot's, m/s. */
export const LEAST_FLOOR_APART_MPS = 0.03;

/**
 * Where an athlete's own floor would stand in a slot: so far under the mean of the days' best speeds
 * as the team lets a set lose speed. The days spread by form and by the loads of the weeks; the
 * interval is by t over them, with no less than the usual spread from day to day.
 * @param underPercent how far a floor stands under the own best, 0–100 (DOMAIN 7: power 10–15 %)
 * @example ownFloor([{ date, bestsMps: [0.8, 0.78, 0.79] }, …], 15)
 */
export function ownFloor(days: readonly FloorDay[], underPercent: number): OwnFloor {
  const measured = days.filter((day) => day.bestsMps.length > 0);
  const bests = measured.flatMap((day) => day.bestsMps);
  if (!(underPercent > 0 && underPercent < 100) || !bests.every((mps) => mps > 0 && mps < 20))
    return { ok: false, reason: "not-finite" };
  if (measured.length < FLOOR_DAYS || bests.length < FLOOR_SETS)
    return { ok: false, reason: "few-days" };
  const means = measured.map((day) => mean(day.bestsMps) ?? 0);
  const bestMps = mean(means);
  const spread = standardDeviation(means);
  if (bestMps === undefined || spread === undefined) return { ok: false, reason: "not-finite" };
  const perDay = bests.length / measured.length;
  const usual = Math.sqrt(DAY_SHIFT_SD_MPS ** 2 + READING_SD_MPS ** 2 / perDay);
  const t = studentQuantile(0.95, measured.length - 1);
  const kept = 1 - underPercent / 100;
  const half = (kept * t * Math.max(spread, usual)) / Math.sqrt(measured.length);
  const floorMps = kept * bestMps;
  return {
    ok: true,
    floorMps,
    low: floorMps - half,
    high: floorMps + half,
    bestMps,
    days: measured.length,
    sets: bests.length,
  };
}

/**
 * Asks for a floor of an athlete's own where the one that holds lies outside the interval of theirs,
 * and by enough to count. Nothing is set: the coach takes it, changes it, or says no.
 * @param under sets of the wave of which a rep went under the floor, of so many
 */
export function floorCalls(input: {
  athleteId: string;
  planId: string;
  slotId: string;
  variantId: string;
  run: number;
  /** The floor that holds for the athlete, m/s; undefined: none, and none is asked for. */
  floorMps: number | undefined;
  underPercent: number;
  days: readonly FloorDay[];
  under: { sets: number; of: number };
}): ReviewCall[] {
  const { athleteId, planId, slotId, variantId, floorMps, under } = input;
  if (floorMps === undefined) return [];
  const own = ownFloor(input.days, input.underPercent);
  if (!own.ok) return [];
  const proposedMps = Math.round(100 * own.floorMps) / 100;
  const apart = proposedMps - floorMps;
  const within = floorMps >= own.low && floorMps <= own.high;
  if (within || Math.abs(apart) < LEAST_FLOOR_APART_MPS - 1e-9) return [];
  const low = apart < 0;
  return [
    {
      kind: "floor",
      about: `floor/${athleteId}/${planId}/${slotId}/${input.run}`,
      athleteId,
      squadId: undefined,
      planId,
      slotId,
      variantId,
      proposal: `A floor of their own, ${formatVelocity(proposedMps)} m/s: ${formatVelocity(floorMps)} ${low ? "is too near their best" : "lets them lose more than the team does"}`,
      evidence: {
        lines: [
          `Best of ${own.sets} sets on ${own.days} days: ${formatVelocity(own.bestMps)} m/s; ${input.underPercent} % under it is ${formatVelocity(own.floorMps)} (90 % ${formatVelocity(own.low)} to ${formatVelocity(own.high)})`,
          `In this wave ${under.sets} of ${under.of} sets went under the floor`,
        ],
      },
      action: { type: "floor", planId, slotId, floorMps: proposedMps },
      sure: Math.min(1, Math.abs(apart) / 0.2),
    },
  ];
}
