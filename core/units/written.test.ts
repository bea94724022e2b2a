import { describe, expect, it } from "vitest";
import { readIn, say, written } from "./written";

describe("words with masses in them", () => {
  it("are read in the reader's unit, whoever made them", () => {
    const words = say`Lighten to ${written(100)}, ${2} reps`;
    expect(readIn(words, "kg")).toBe("Lighten to 100 kg, 2 reps");
    expect(readIn(words, "lb")).toBe("Lighten to 220.46 lb, 2 reps");
  });
  it("go into one another, and keep their decimals", () => {
    const inner = say`${written(102.05828325, 1)} wanted`;
    expect(readIn(say`First: ${inner}.`, "lb")).toBe("First: 225 lb wanted.");
    expect(readIn(inner, "kg")).toBe("102.1 kg wanted");
  });
  it("survive being stored: a frozen working is read in any unit", () => {
    const stored = JSON.parse(JSON.stringify(say`${written(60)} × ${3}`));
    expect(readIn(stored, "lb")).toBe("132.28 lb × 3");
  });
  it("are texts as they are where nothing in them is a mass", () => {
    expect(readIn("225 lb, entered", "kg")).toBe("225 lb, entered");
  });
  it("say that there is no number where there is none", () => {
    expect(readIn(written(Number.NaN), "kg")).toBe("–");
  });
});
