import { describe, expect, it } from "vitest";
import { barFits, noBarWords } from "./bars";

const straight = { shape: "straight", name: "Straight bar, thin" };
const safety = { shape: "safety", name: "Yoke bar" };
const grips = { shape: "other", name: "Multi-grip bar" };

describe("the bar that a lift asks for", () => {
  it.each([
    ["straight", straight, true],
    ["Straight bar", straight, true],
    ["straight", safety, false],
    ["safety", safety, true],
    ["safety", straight, false],
    ["multi-grip", grips, true],
    ["multi-grip", straight, false],
    ["", straight, true],
  ] as const)("%s on %o: %s", (asked, bar, fits) => {
    expect(barFits(asked, bar)).toBe(fits);
  });

  it("is named where a room has none", () => {
    expect(noBarWords("Safety bar", "Boathouse")).toContain(
      "No rack in Boathouse has a safety bar.",
    );
  });
});
