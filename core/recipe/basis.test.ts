import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { loadVelocityLine, velocityAt } from "../profile/line";
import { type BasisFacts, basisLoad, describeBasis, loadForReserve } from "./basis";

const found = loadVelocityLine(
  [
    { loadKg: 40, velocityMps: 1.21 },
    { loadKg: 60, velocityMps: 0.99 },
    { loadKg: 80, velocityMps: 0.78 },
    { loadKg: 100, velocityMps: 0.55 },
    { loadKg: 110, velocityMps: 0.46 },
  ],
  "MCV",
);
const line = found.ok ? found : undefined;
const facts: BasisFacts = {
  maxKg: 120,
  line,
  peakForceMps: 0.78,
  peakPowerKg: 75,
  foundKg: undefined,
  bodyKg: undefined,
};
const none: BasisFacts = {
  maxKg: undefined,
  line: undefined,
  peakForceMps: undefined,
  peakPowerKg: undefined,
  foundKg: undefined,
  bodyKg: undefined,
};

const kg = (result: ReturnType<typeof basisLoad>) => (result.ok ? result.kg : result.reason);

describe("what sets a load", () => {
  it.each([
    ["percent", { by: "percent", percent: 62.5 } as const, 2, 75],
    ["speed of 0.30 m/s", { by: "speed", mps: 0.3 } as const, 1, 124.116],
    ["speed of peak force", { by: "peak-force", slowerMps: 0 } as const, 2, 79.667],
    ["0.10 slower", { by: "peak-force", slowerMps: 0.1 } as const, 2, 88.927],
    ["peak power", { by: "peak-power", percent: 80 } as const, 3, 60],
    ["3 with 2 in reserve", { by: "reserve", reserve: 2 } as const, 3, 120 / (1 + 5 / 30)],
  ])("%s", (_name, basis, reps, expected) => {
    expect(kg(basisLoad(basis, facts, reps))).toBeCloseTo(expected as number, 2);
  });

  it.each([
    [{ by: "percent", percent: 60 } as const, "no-max"],
    [{ by: "speed", mps: 0.7 } as const, "no-profile"],
    [{ by: "peak-force", slowerMps: 0 } as const, "no-profile"],
    [{ by: "peak-power", percent: 100 } as const, "no-peak-power"],
    [{ by: "reserve", reserve: 2 } as const, "no-max"],
    [{ by: "eye" } as const, "by-eye"],
  ])("%o without facts says what is missing", (basis, reason) => {
    expect(kg(basisLoad(basis, none, 3))).toBe(reason);
  });

  it("refuses a speed that the line reaches at no load, and a peak that nobody measured", () => {
    expect(kg(basisLoad({ by: "speed", mps: 2 }, facts, 1))).toBe("too-fast");
    const unmeasured = { ...facts, peakForceMps: undefined };
    expect(kg(basisLoad({ by: "peak-force", slowerMps: 0 }, unmeasured, 1))).toBe("no-peak-force");
    expect(kg(basisLoad({ by: "reserve", reserve: 6 }, facts, 10))).toBe("too-many-reps");
  });

  it("walks down from peak force, never up: a negative step counts as none", () => {
    const at = kg(basisLoad({ by: "peak-force", slowerMps: -0.2 }, facts, 1));
    expect(at).toBe(kg(basisLoad({ by: "peak-force", slowerMps: 0 }, facts, 1)));
  });

  it("the expected speed at the load of a speed is that speed", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 1.5, noNaN: true }), (mps) => {
        const result = basisLoad({ by: "speed", mps }, facts, 1);
        if (result.ok) expect(velocityAt(line as never, result.kg)).toBeCloseTo(mps, 9);
      }),
    );
  });

  it("more reserve is never heavier, and a single without reserve is the max", () => {
    expect(loadForReserve(120, 1, 0)).toBe(120);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8 }), fc.integer({ min: 0, max: 6 }), (reps, more) => {
        expect(loadForReserve(120, reps, more + 1)).toBeLessThan(
          loadForReserve(120, reps, more) as number,
        );
      }),
    );
  });

  it.each([
    [{ by: "percent", percent: 62.5 } as const, "62.5 %"],
    [{ by: "speed", mps: 0.7 } as const, "0.70 m/s"],
    [{ by: "peak-force", slowerMps: 0.05 } as const, "peak force − 0.05 m/s"],
    [{ by: "reserve", reserve: 2 } as const, "2 in reserve"],
    [{ by: "eye" } as const, "by eye"],
  ])("%o reads %s", (basis, words) => {
    expect(describeBasis(basis, "kg")).toBe(words);
  });
});
