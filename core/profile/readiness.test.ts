import { describe, expect, it, test } from "vitest";
import { type SimulatedLifter, trueVelocities } from "../../device/lifter";
import { seededRandom } from "../numeric/random";
import { fitLine, type LineFit } from "../numeric/regression";
import { readiness, readinessChange } from "./readiness";

const LIFTER: SimulatedLifter = {
  v0Mps: 1.45,
  l0Kg: 130,
  repFade: 0.035,
  setFade: 0.01,
  fullRestS: 150,
  spreadMps: 0.03,
  rangeM: 0.4,
  topM: 1.1,
  loweringMps: 0.7,
  pauseS: 0,
  sticking: 0,
};

/** The fastest of three reps at each load, tiring from rep to rep. */
function fastest(loads: number[], dayShiftMps: number, seed: number) {
  return loads.map((loadKg, i) => ({
    loadKg,
    velocityMps: Math.max(
      ...trueVelocities(LIFTER, {
        loadKg,
        reps: 3,
        setsBefore: 0,
        restS: 150,
        dayShiftMps,
        seed: seed * 31 + i,
      }),
    ),
  }));
}

function profile(seed: number): LineFit {
  const points = fastest([35, 50, 65, 80, 95, 105], 0, seed);
  const fit = fitLine(points.map((point) => ({ x: point.loadKg, y: point.velocityMps })));
  if (!fit.ok) throw new Error(fit.reason);
  return fit;
}

const ask = (fit: LineFit, today: Array<{ loadKg: number; velocityMps: number }>) => {
  const result = readiness({ fit, today, thresholdMps: 0.17, targetMps: 0.8 });
  if (!result.ok) throw new Error(result.reason);
  return result;
};

describe("day readiness", () => {
  it("holds the hidden day shift within its 90 % interval in 85 to 95 % of 500 seeds", () => {
    let held = 0;
    let error = 0;
    for (let seed = 1; seed <= 500; seed++) {
      const shift = 0.05 * seededRandom(seed * 7).normal();
      const today = fastest([40, 55, 70], shift, seed + 10_000);
      const result = ask(profile(seed), today);
      if (shift >= result.shift.low && shift <= result.shift.high) held++;
      error += Math.abs(result.shift.estimate - shift) / 500;
    }
    expect(held).toBeGreaterThanOrEqual(425);
    expect(held).toBeLessThanOrEqual(475);
    expect(error).toBeLessThan(0.025);
  });

  it("equals the update written out for one reading at the mean load", () => {
    const fit = profile(3);
    const mean = fit.intercept + fit.slope * fit.meanX;
    const result = ask(fit, [{ loadKg: fit.meanX, velocityMps: mean + 0.06 }]);
    const prior = (fit.see ?? 0) ** 2 / fit.n + 0.05 ** 2;
    const gain = prior / (prior + 0.03 ** 2);
    expect(result.shift.estimate).toBeCloseTo((0.05 ** 2 / prior) * gain * 0.06, 10);
  });

  it("lifts the load on a good day and lowers it on a bad one, more with more readings", () => {
    const fit = profile(5);
    const line = (kg: number) => fit.intercept + fit.slope * kg;
    const at = (shift: number, loads: number[]) =>
      ask(
        fit,
        loads.map((loadKg) => ({ loadKg, velocityMps: line(loadKg) + shift })),
      ).targetLoad;
    expect(at(0.08, [40, 55]).estimate).toBeGreaterThan(at(0, [40, 55]).estimate);
    expect(at(-0.08, [40, 55]).estimate).toBeLessThan(at(0, [40, 55]).estimate);
    expect(at(0, [40, 55]).estimate).toBeCloseTo((0.8 - fit.intercept) / fit.slope, 6);
    const width = (loads: number[]) => at(0, loads).high - at(0, loads).low;
    expect(width([40, 55, 70])).toBeLessThan(width([40]));
  });

  it("refuses what it cannot judge", () => {
    const fit = profile(1);
    const base = { thresholdMps: 0.17, targetMps: 0.8 };
    expect(readiness({ ...base, fit, today: [] })).toEqual({ ok: false, reason: "nothing-today" });
    const two = fitLine([
      { x: 40, y: 1 },
      { x: 80, y: 0.6 },
    ]);
    if (!two.ok) throw new Error(two.reason);
    const today = [{ loadKg: 40, velocityMps: 1 }];
    expect(readiness({ ...base, fit: two, today })).toEqual({
      ok: false,
      reason: "too-few-points",
    });
  });
});

describe("what a readiness changes", () => {
  test.each([
    [60, 61, 3, 2.5, false, 60, "under-a-step"],
    [60, 64, 5, 2.5, false, 60, "within-noise"],
    [60, 64, 3, 2.5, true, 64, "over-noise"],
    [60, 75, 3, 2.5, true, 66, "held-to-ten-percent"],
    [60, 45, 3, 2.5, true, 54, "held-to-ten-percent"],
  ] as const)(
    "%s planned, %s today, sd %s, step %s",
    (plannedKg, targetLoadKg, targetSdKg, stepKg, changes, loadKg, reason) => {
      expect(readinessChange({ plannedKg, targetLoadKg, targetSdKg, stepKg })).toEqual({
        changes,
        loadKg,
        reason,
      });
    },
  );
});
