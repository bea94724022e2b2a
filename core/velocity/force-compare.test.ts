import { describe, expect, it } from "vitest";
import { compareForces } from "./force-compare";

const light = { loadKg: 60, forceN: 730, powerW: 690, velocityMps: 0.9 };
const heavy = { loadKg: 120, forceN: 1205, powerW: 430, velocityMps: 0.3 };

describe("a fast light rep beside a slow heavy one", () => {
  it("sets force, power and time side by side", () => {
    const found = compareForces({ light, heavy, rangeM: 0.45 });
    expect(found?.forceShare).toBeCloseTo((100 * 730) / 1205, 9);
    expect(found?.powerShare).toBeCloseTo((100 * 690) / 430, 9);
    expect(found?.lightS).toBeCloseTo(0.5, 9);
    expect(found?.timeShare).toBeCloseTo(100 / 3, 9);
  });

  it("is none for a rep without force or a range that is none", () => {
    expect(compareForces({ light: { ...light, forceN: 0 }, heavy, rangeM: 0.45 })).toBeUndefined();
    expect(compareForces({ light, heavy, rangeM: 0 })).toBeUndefined();
  });
});
