import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addressText, pointsOf, pointsProblem, readAs, startText } from "./tool";

describe("what a field of the bench reads", () => {
  it.each([
    ["mass", "225 lb", 102.0582832],
    ["mass", "82,5", 82.5],
    ["m", "140 cm", 1.4],
    ["m", "55 in", 1.397],
    ["cm", "16 in", 40.64],
    ["number", "0,7", 0.7],
    ["mass", "heavy", undefined],
    ["m", "", undefined],
  ] as const)("%s %s", (kind, text, value) => {
    if (value === undefined) expect(readAs(kind, text)).toBeUndefined();
    else expect(readAs(kind, text)).toBeCloseTo(value, 6);
  });

  it("a bare number of somebody who reads pounds says so in the address, and comes back exactly", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9999 }), (tenths) => {
        const typed = String(tenths / 10);
        const kept = addressText("mass", typed, "lb");
        expect(kept).toBe(`${typed} lb`);
        expect(readAs("mass", kept)).toBeCloseTo((tenths / 10) * 0.45359237, 9);
        expect(addressText("mass", kept, "lb")).toBe(kept);
        expect(addressText("mass", typed, "kg")).toBe(typed);
        expect(addressText("cm", typed, "lb")).toBe(typed);
      }),
    );
  });

  it("starts in the reader's unit", () => {
    expect(startText("mass", 100, "kg")).toBe("100");
    expect(startText("mass", 100, "lb")).toBe("220.5 lb");
    expect(startText("cm", 40, "lb")).toBe("40");
    expect(startText("mass", undefined, "lb")).toBe("");
  });

  it("reads points in pairs and names what is missing", () => {
    expect(pointsOf("40 1.2 60 0.9").map((one) => one.loadKg)).toEqual([40, 60]);
    expect(pointsProblem("40 1.2 60")).toBe("The last load has no speed.");
    expect(pointsProblem("40 fast")).toBe('"fast" is not a number.');
  });
});
