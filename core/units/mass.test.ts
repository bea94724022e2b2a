import fc from "fast-check";
import { describe, expect, it, test } from "vitest";
import {
  formatKg,
  formatMass,
  GRAINS_PER_KG,
  GRAINS_PER_LB,
  grains,
  grainsToKg,
  kgToGrains,
  massIn,
  massKg,
  plainNumber,
  readMass,
} from "./mass";

describe("exact mass", () => {
  it("has the pound of 1959: 0.45359237 kg exactly", () => {
    expect(GRAINS_PER_LB / GRAINS_PER_KG).toBe(0.45359237);
    expect(massKg({ amount: 1, unit: "lb" })).toBe(0.45359237);
  });

  test.each([
    [225, "lb", 102.05828325],
    [45, "lb", 20.41165665],
    [2.5, "lb", 1.133980925],
    [1.25, "kg", 1.25],
    [0.001, "kg", 0.001],
  ] as const)("%s %s is %s kg", (amount, unit, kg) => {
    expect(massKg({ amount, unit })).toBeCloseTo(kg, 10);
  });

  it("adds a mixed bar without rounding", () => {
    const bar = grains({ amount: 20, unit: "kg" });
    const side = grains({ amount: 45, unit: "lb" }) + grains({ amount: 1.25, unit: "kg" });
    expect(Number.isInteger(bar + 2 * side)).toBe(true);
    expect(grainsToKg(bar + 2 * side)).toBeCloseTo(20 + 2 * (20.41165665 + 1.25), 10);
  });

  it("comes back as it was written, in either unit", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1_500_000 }),
        fc.constantFrom("kg", "lb"),
        (n, unit) => {
          const amount = n / 1000;
          const exact = grains({ amount, unit });
          expect(Number.isInteger(exact)).toBe(true);
          expect(Number(massIn(exact, unit).toFixed(3))).toBe(amount);
        },
      ),
    );
  });

  it("is exact to the grain over a kilogram round trip", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 900_000 }), (thousandths) => {
        const exact = grains({ amount: thousandths / 1000, unit: "kg" });
        expect(kgToGrains(grainsToKg(exact))).toBe(exact);
      }),
    );
  });
});

describe("reading what a coach types", () => {
  test.each([
    ["82.5", 82.5, "kg"],
    ["82,5", 82.5, "kg"],
    ["  100kg ", 100, "kg"],
    ["225 lb", 225, "lb"],
    ["225 LBS", 225, "lb"],
    ["0", 0, "kg"],
  ])("%j is %s %s", (text, amount, unit) => {
    expect(readMass(text, "kg")).toEqual({ ok: true, mass: { amount, unit } });
  });

  it("asks about what may be a thousand or a decimal comma", () => {
    for (const text of ["1,000", "1,250 kg", "2,500lb"])
      expect(readMass(text, "kg")).toEqual({ ok: false, reason: "thousands" });
    expect(readMass("72,125", "kg")).toEqual({ ok: true, mass: { amount: 72.125, unit: "kg" } });
    expect(readMass("1.250", "kg")).toEqual({ ok: true, mass: { amount: 1.25, unit: "kg" } });
    expect(readMass("1,25", "kg")).toEqual({ ok: true, mass: { amount: 1.25, unit: "kg" } });
  });

  it("takes the field's unit for a bare number", () => {
    expect(readMass("135", "lb")).toEqual({ ok: true, mass: { amount: 135, unit: "lb" } });
  });

  test.each([
    ["", "empty"],
    ["   ", "empty"],
    ["heavy", "not-a-number"],
    ["1.2.3", "not-a-number"],
    ["12 stone", "not-a-number"],
    ["-20", "negative"],
    ["1.2345", "too-many-decimals"],
    ["1e3", "not-a-number"],
  ])("%j is refused as %s", (text, reason) => {
    expect(readMass(text, "kg")).toEqual({ ok: false, reason });
  });
});

describe("writing", () => {
  test.each([
    [72.5, "72.5"],
    [60, "60"],
    [26.25, "26.25"],
    [0.1 + 0.2, "0.3"],
    [-0.0001, "0"],
  ])("%s is written %s", (value, text) => {
    expect(plainNumber(value)).toBe(text);
  });

  it("shows a load in the reader's unit", () => {
    expect(formatKg(102.05828325, "lb")).toBe("225 lb");
    expect(formatKg(61.23496995, "kg", 1)).toBe("61.2 kg");
    expect(formatMass({ amount: 225, unit: "lb" })).toBe("225 lb");
  });
});
