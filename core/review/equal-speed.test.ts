import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { addDays, type LocalDate } from "../units/time";
import { equalSpeed, type MeasuredSet, usualSlope } from "./equal-speed";
import { speedSets } from "./fixtures/speed-world";

const { mixed } = JSON.parse(
  readFileSync(new URL("../numeric/fixtures/statistics.json", import.meta.url), "utf8"),
) as {
  mixed: Array<{
    day: number[];
    before: number[];
    load: number[];
    y: number[];
    m: number[];
    sd: number[];
  }>;
};
const START = "2026-01-05" as LocalDate;
const SLOPE = { slopeMpsPerKg: -0.013, sdMpsPerKg: 0.004 };

describe("speed at equal load over all sessions", () => {
  it("equals R's generalised least squares on twenty data sets", () => {
    expect(mixed.length).toBe(20);
    for (const { day, before, load, y, m, sd } of mixed) {
      const sets = y.map(
        (bestMps, i): MeasuredSet => ({
          date: addDays(START, day[i] ?? 0),
          loadKg: load[i] ?? 0,
          before: before[i] ?? 0,
          bestMps,
        }),
      );
      const found = equalSpeed(sets, { slope: SLOPE, daySdMps: 0.05, towardsMps: 0.004 });
      if (!found.ok) throw new Error(found.reason);
      expect(found.perWave.estimate).toBeCloseTo(m[1] ?? 0, 9);
      expect(found.sdMps).toBeCloseTo(sd[1] ?? 0, 9);
      expect(found.slopeMpsPerKg).toBeCloseTo(m[2] ?? 0, 9);
      expect(found.fade.estimate).toBeCloseTo(m[3] ?? 0, 9);
    }
  });

  it("says nothing on one day, and on numbers that are none", () => {
    const one = { date: START, loadKg: 60, before: 0, bestMps: 0.8 };
    expect(equalSpeed([one], { slope: SLOPE })).toEqual({ ok: false, reason: "one-day" });
    expect(equalSpeed([], { slope: SLOPE })).toEqual({ ok: false, reason: "one-day" });
    const bad = [one, { ...one, date: addDays(START, 7), bestMps: Number.NaN }];
    expect(equalSpeed(bad, { slope: SLOPE })).toEqual({ ok: false, reason: "not-finite" });
    expect(usualSlope(0)).toBeUndefined();
    expect(usualSlope(100)?.slopeMpsPerKg).toBeCloseTo(-0.014, 12);
  });

  // Athletes of a world of its own: lines, fades, days and readings differ from what is assumed.
  const called = (weeks: number, perWaveMps: number, athletes = 1000) => {
    let [rises, falls, covered] = [0, 0, 0];
    for (let seed = 1; seed <= athletes; seed++) {
      const { sets, maxKg } = speedSets({ seed, weeks, perWaveMps });
      const slope = usualSlope(maxKg);
      const found = slope && equalSpeed(sets, { slope });
      if (!found?.ok) throw new Error("A squad's waves have a trend.");
      if (found.verdict === "rises") rises++;
      if (found.verdict === "falls") falls++;
      if (found.perWave.low <= perWaveMps && perWaveMps <= found.perWave.high) covered++;
    }
    return { rises: rises / athletes, falls: falls / athletes, covered: covered / athletes };
  };

  it("calls at most one in ten of a squad that does not change, though the loads rise in each wave", () => {
    for (const weeks of [3, 6, 9, 15]) {
      const { rises, falls } = called(weeks, 0);
      expect(rises + falls, `${weeks} weeks`).toBeLessThan(0.1);
    }
  });

  it("finds a true rise of 0.03 m/s a wave in four of five within what it announced", () => {
    let weeks = 0;
    for (let seed = 1; seed <= 200; seed++) {
      const { sets, maxKg } = speedSets({ seed, weeks: 3, perWaveMps: 0.03 });
      const slope = usualSlope(maxKg);
      const found = slope && equalSpeed(sets, { slope });
      if (found?.ok) weeks += (3 + (found.sessionsMore ?? Number.NaN)) / 200;
    }
    expect(weeks).toBeGreaterThanOrEqual(9);
    expect(weeks).toBeLessThanOrEqual(15);
    const { rises, falls, covered } = called(Math.round(weeks), 0.03);
    expect(rises).toBeGreaterThanOrEqual(0.8);
    expect(falls).toBeLessThan(0.01);
    expect(covered).toBeGreaterThan(0.85);
  });
});
