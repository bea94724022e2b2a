import { describe, expect, it } from "vitest";
import { seededRandom } from "../numeric/random";
import { addDays, type LocalDate } from "../units/time";
import { speedTrend, type TrendDay } from "./speed-trend";

const START = "2026-01-05" as LocalDate;

/** Weekly days of an athlete whose speed truly changes by so much in a wave of three weeks. */
function athlete(seed: number, weeks: number, perWaveMps: number, readingSd = 0.012): TrendDay[] {
  const random = seededRandom(seed);
  return Array.from({ length: weeks }, (_, week) => ({
    date: addDays(START, 7 * week),
    shiftMps: (perWaveMps * week) / 3 + 0.05 * random.normal() + readingSd * random.normal(),
    readingSdMps: readingSd,
  }));
}

describe("speed at equal load over the weeks", () => {
  it("equals the regression on the same days where nothing is shrunk", () => {
    const days = [0.0, 0.02, -0.01, 0.05, 0.03].map((shiftMps, week) => ({
      date: addDays(START, 7 * week),
      shiftMps,
      readingSdMps: 0,
    }));
    const found = speedTrend(days, { changeSdMps: 1e6 });
    // Least squares by hand: slope 0.009 a week.
    if (!found.ok) throw new Error("Five days have a slope.");
    expect(found.perWave.estimate).toBeCloseTo(3 * 0.009, 9);
    const se = (3 * 0.05) / Math.sqrt(10);
    expect(found.perWave.high - found.perWave.estimate).toBeCloseTo(1.6448536 * se, 6);
  });

  it("calls nobody on one day, nor on numbers that are none", () => {
    const [one] = athlete(1, 1, 0);
    expect(speedTrend(one ? [one] : [])).toEqual({ ok: false, reason: "one-day" });
    expect(speedTrend([])).toEqual({ ok: false, reason: "one-day" });
    const days = athlete(1, 3, 0);
    expect(speedTrend([...days, { ...days[0], shiftMps: Number.NaN } as TrendDay])).toEqual({
      ok: false,
      reason: "not-finite",
    });
    expect(speedTrend(days, { daySdMps: 0 })).toEqual({ ok: false, reason: "not-finite" });
  });

  it("calls at most one in ten of a squad that does not change, whenever it is looked at", () => {
    for (const weeks of [3, 6, 9, 12]) {
      let called = 0;
      for (let seed = 1; seed <= 2000; seed++) {
        const found = speedTrend(athlete(seed, weeks, 0));
        if (found.ok && found.verdict !== "unclear") called++;
      }
      expect(called / 2000, `${weeks} weeks`).toBeLessThan(0.1);
    }
  });

  it("finds a true rise of 0.03 m/s a wave in four of five within the sessions it announced", () => {
    const after = speedTrend(athlete(1, 3, 0.03));
    if (!after.ok) throw new Error("Three days have a slope.");
    const weeks = 3 + (after.sessionsMore ?? Number.NaN);
    expect(weeks).toBeGreaterThanOrEqual(9);
    expect(weeks).toBeLessThanOrEqual(15);
    let found = 0;
    let covered = 0;
    for (let seed = 1; seed <= 2000; seed++) {
      const one = speedTrend(athlete(seed, weeks, 0.03));
      if (!one.ok) continue;
      if (one.verdict === "rises") found++;
      if (one.perWave.low <= 0.03 && 0.03 <= one.perWave.high) covered++;
    }
    expect(found / 2000).toBeGreaterThanOrEqual(0.8);
    expect(covered / 2000).toBeGreaterThan(0.85);
    expect(covered / 2000).toBeLessThan(0.95);
  });

  it("seldom says that who truly rises falls, and says how many days would settle it", () => {
    let falls = 0;
    for (let seed = 1; seed <= 2000; seed++) {
      const one = speedTrend(athlete(seed, 6, 0.03));
      if (one.ok && one.verdict === "falls") falls++;
    }
    expect(falls / 2000).toBeLessThan(0.01);
    const long = speedTrend(athlete(3, 15, 0.03));
    expect(long.ok && long.sessionsMore).toBe(0);
  });
});
