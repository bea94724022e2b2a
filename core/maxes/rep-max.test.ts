import fc from "fast-check";
import { describe, expect, it, test } from "vitest";
import { estimateRepMax } from "./rep-max";

describe("rep-max estimates", () => {
  it("has the five formulas' values at 100 kg × 5", () => {
    const estimate = estimateRepMax({ loadKg: 100, reps: 5, reserve: 0 });
    if (!estimate.ok) throw new Error(estimate.reason);
    const rounded = estimate.byFormula.map((one) => Number(one.kg.toFixed(2)));
    expect(rounded).toEqual([116.67, 112.5, 117.46, 119.01, 116.58]);
    expect(estimate.medianKg).toBeCloseTo(116.67, 2);
    expect([estimate.leastKg, estimate.greatestKg].map((kg) => kg.toFixed(2))).toEqual([
      "112.50",
      "119.01",
    ]);
  });

  it("counts reps in reserve as reps", () => {
    const reserve = estimateRepMax({ loadKg: 100, reps: 3, reserve: 2 });
    const plain = estimateRepMax({ loadKg: 100, reps: 5, reserve: 0 });
    expect(reserve.ok && reserve.medianKg).toBe(plain.ok && plain.medianKg);
  });

  it("takes a single with nothing left for the max itself", () => {
    const single = estimateRepMax({ loadKg: 142.5, reps: 1, reserve: 0 });
    expect(single).toMatchObject({ ok: true, medianKg: 142.5, leastKg: 142.5, greatestKg: 142.5 });
  });

  test.each([
    [0, 5, 0, "not-a-load"],
    [Number.NaN, 5, 0, "not-a-load"],
    [100, 0, 0, "not-reps"],
    [100, 2.5, 0, "not-reps"],
    [100, 5, -1, "not-reps"],
    [100, 16, 0, "too-many-reps"],
    [100, 12, 4, "too-many-reps"],
  ])("%s kg × %s with %s in reserve is refused as %s", (loadKg, reps, reserve, reason) => {
    expect(estimateRepMax({ loadKg, reps, reserve })).toEqual({ ok: false, reason });
  });

  it("is trusted up to ten reps and never under the load", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 15 }),
        fc.integer({ min: 20, max: 300 }),
        (reps, loadKg) => {
          const estimate = estimateRepMax({ loadKg, reps, reserve: 0 });
          if (!estimate.ok) throw new Error(estimate.reason);
          expect(estimate.beyondTrusted).toBe(reps > 10);
          expect(estimate.leastKg).toBeGreaterThanOrEqual(loadKg);
          expect(estimate.medianKg).toBeGreaterThanOrEqual(estimate.leastKg);
          expect(estimate.greatestKg).toBeGreaterThanOrEqual(estimate.medianKg);
        },
      ),
    );
  });
});
