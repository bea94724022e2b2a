import { describe, expect, it } from "vitest";
import { seededRandom } from "../numeric/random";
import { analyseProfile } from "../profile/analysis";
import { velocityThreshold } from "../profile/threshold";
import { addDays, type LocalDate } from "../units/time";
import type { MeasuredSet } from "./equal-speed";
import { type KnownLine, liftedSign, lineSdKg, speedSigns } from "./max-signs";
import { maxTrend } from "./max-trend";

const START = "2026-01-05" as LocalDate;
const WEEKS = 24;

type World = "stable" | "rising" | "lay-off";

/** The true share of the first max in each week; undefined where nobody trained. */
function course(world: World, random: ReturnType<typeof seededRandom>): Array<number | undefined> {
  let share = 1;
  const gain = 0.002 + 0.004 * random.uniform();
  return Array.from({ length: WEEKS }, (_, week) => {
    share *= 1 + 0.005 * random.normal();
    if (world === "rising") share *= 1 + gain;
    if (world === "lay-off" && week >= 9 && week < 14) {
      share *= 0.985;
      return undefined;
    }
    if (world === "lay-off" && week >= 14 && week < 18) share *= 1.012;
    return share;
  });
}

/** An athlete of a world: a bent curve of speed over the share, days of form, a profile in week 0. */
function athlete(world: World, seed: number) {
  const random = seededRandom(seed * 101 + 7);
  const first = 70 + 110 * random.uniform();
  const v0 = 1.45 + 0.12 * random.normal();
  const bend = 0.12 * random.uniform();
  const mvt = 0.17 + 0.03 * random.normal();
  const speedAt = (share: number) => v0 - (v0 - mvt) * ((1 - bend) * share + bend * share * share);
  const daySd = 0.035 + 0.025 * random.uniform();
  const shares = course(world, random);
  const testDay = daySd * random.normal();
  const reps = [0.35, 0.5, 0.65, 0.8, 0.88].flatMap((share) =>
    [0, 1].map((rep) => ({
      id: `${share}/${rep}`,
      loadKg: first * share,
      velocityMps: speedAt(share) + testDay + 0.02 * random.normal(),
      excluded: undefined,
    })),
  );
  const sets: MeasuredSet[] = [];
  shares.forEach((share, week) => {
    if (share === undefined) return;
    const max = first * share;
    const form = daySd * random.normal();
    for (let before = 0; before < 8; before++) {
      const loadKg = first * (0.45 + 0.05 * (week % 3) + 0.03 * Math.floor(before / 3));
      const noise = Math.max(...[0, 1, 2].map(() => 0.02 * random.normal()));
      const bestMps = speedAt(loadKg / max) + form - 0.005 * before + noise;
      sets.push({ date: addDays(START, 7 * week), loadKg, before, bestMps });
    }
  });
  return { reps, sets, first, shares };
}

function trendOf(world: World, seed: number, tested: boolean) {
  const { reps, sets, first, shares } = athlete(world, seed);
  const threshold = velocityThreshold({
    lift: "bench",
    metric: "MCV",
    teamMps: undefined,
    singles: [],
  });
  const result = analyseProfile({ reps, metric: "MCV", threshold });
  if (!result.ok || !result.oneRepMax) return undefined;
  const known: KnownLine = {
    line: result.line,
    oneRepMaxKg: result.oneRepMax.kg,
    planning: result.oneRepMax.planning,
  };
  const signs = speedSigns(sets, known, 0.05, 0.005);
  // A day's single is not the max itself.
  const single = first * (1 + 0.018 * seededRandom(seed).normal());
  const lifted = tested ? [liftedSign(START, single)] : [];
  const trend = maxTrend([...signs, ...lifted], lineSdKg(known), addDays(START, 7 * WEEKS));
  if (!trend.ok) throw new Error(trend.reason);
  return { trend, first, shares };
}

describe("the max over time", () => {
  it("covers the true max with nine tenths of its intervals, in three worlds", () => {
    for (const world of ["stable", "rising", "lay-off"] as const)
      for (const tested of [false, true]) {
        let [all, inside, wide] = [0, 0, 0];
        for (let seed = 1; seed <= 300; seed++) {
          const one = trendOf(world, seed, tested);
          if (!one) continue;
          for (const day of one.trend.days) {
            const week = Math.round((Date.parse(day.date) - Date.parse(START)) / 604_800_000);
            const truth = one.first * (one.shares[week] ?? Number.NaN);
            all++;
            wide += (day.high - day.low) / 2 / truth;
            if (day.low <= truth && truth <= day.high) inside++;
          }
        }
        // So narrow that it says something: within a seventh of the max by speed alone.
        expect(wide / all).toBeLessThan(tested ? 0.07 : 0.14);
        expect(all).toBeGreaterThan(4000);
        const share = inside / all;
        expect(share, `${world}, ${tested ? "tested" : "by speed"}`).toBeGreaterThan(0.85);
        expect(share, `${world}, ${tested ? "tested" : "by speed"}`).toBeLessThan(0.95);
      }
  });

  it("is what it was told where one lift is all there is, and wider after a pause", () => {
    const trend = maxTrend([liftedSign(START, 100)], 5, START);
    if (!trend.ok) throw new Error(trend.reason);
    expect(trend.now.estimate).toBeCloseTo(100, 9);
    expect(trend.now.high - 100).toBeCloseTo(1.645 * 2, 1);
    const later = maxTrend([liftedSign(START, 100)], 5, addDays(START, 42));
    const week = maxTrend([liftedSign(START, 100)], 5, addDays(START, 7));
    if (!later.ok || !week.ok) throw new Error("one sign is enough");
    expect(later.now.high - later.now.low).toBeGreaterThan(2 * (week.now.high - week.now.low));
  });

  it("refuses what is no sign", () => {
    expect(maxTrend([], 5, START)).toEqual({ ok: false, reason: "no-sign" });
    expect(maxTrend([liftedSign(addDays(START, 1), 100)], 5, START)).toEqual({
      ok: false,
      reason: "no-sign",
    });
    expect(maxTrend([liftedSign(START, Number.NaN)], 5, START)).toEqual({
      ok: false,
      reason: "not-finite",
    });
    expect(maxTrend([liftedSign(START, 100)], -1, START)).toEqual({
      ok: false,
      reason: "not-finite",
    });
  });
});
