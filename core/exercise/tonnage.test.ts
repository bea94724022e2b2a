import { describe, expect, it } from "vitest";
import { progressions, tonnageKg, waysToTonnage } from "./tonnage";

describe("tonnage", () => {
  const line = { sets: 3, reps: 12, loadKg: 30, hands: 1 as const };

  it("is 1,080 kg for 3 × 12 × 30, and twice that when both hands count", () => {
    expect(tonnageKg(line)).toBe(1080);
    expect(tonnageKg({ ...line, hands: 2 })).toBe(2160);
  });

  it("grows by 270, 90 and 360 kg with three reps, 2.5 kg or a set more", () => {
    const steps = progressions(line, { reps: 3, loadKg: 2.5, sets: 1 });
    expect(steps.map((one) => one.deltaKg)).toEqual([270, 90, 360]);
  });

  it("leads back from 1,200 kg to 13.33 reps (14), 33.33 kg, or 3.33 sets (4)", () => {
    const [reps, load, sets] = waysToTonnage(line, 1200);
    expect(reps).toMatchObject({ change: "reps", line: { reps: 14 }, tonnageKg: 1260, overKg: 60 });
    expect(reps?.exact).toBeCloseTo(40 / 3, 10);
    expect(load?.line.loadKg).toBeCloseTo(100 / 3, 10);
    expect(load?.tonnageKg).toBeCloseTo(1200, 9);
    expect(sets).toMatchObject({ line: { sets: 4 }, tonnageKg: 1440 });
  });

  it("asks for no rep more where the tonnage is had to the figure, whatever the load", () => {
    for (let tenths = 1; tenths <= 2000; tenths++) {
      const own = { sets: 3, reps: 7, loadKg: tenths / 10, hands: 2 as const };
      const [reps, , sets] = waysToTonnage(own, tonnageKg(own) ?? 0);
      expect([reps?.line.reps, sets?.line.sets], `${tenths}`).toEqual([7, 3]);
    }
  });

  it("reaches what is wanted and no rep is too many", () => {
    for (const wanted of [1, 50, 99.9, 1080, 1080.1, 5000, 40_000])
      for (const way of waysToTonnage(line, wanted)) {
        expect(way.tonnageKg).toBeGreaterThanOrEqual(wanted - 1e-6);
        if (way.change !== "reps" || way.line.reps === 1) continue;
        const less = tonnageKg({ ...way.line, reps: way.line.reps - 1 }) ?? 0;
        expect(less).toBeLessThan(wanted);
      }
  });

  it.each([0, -1, Number.NaN, Number.POSITIVE_INFINITY])("wants nothing by %s", (wanted) => {
    expect(waysToTonnage(line, wanted)).toEqual([]);
  });
  it("has no way from nothing, and leaves out what nobody could do", () => {
    expect(waysToTonnage({ ...line, loadKg: 0 }, 100)).toEqual([]);
    expect(waysToTonnage(line, 1e9).map((one) => one.change)).toEqual([]);
    expect(waysToTonnage(line, 400_000).map((one) => one.change)).toEqual(["reps"]);
  });
});
