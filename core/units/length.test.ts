import { describe, expect, it } from "vitest";
import { drawnTogether, readLength } from "./length";

describe("a length as a coach writes it", () => {
  it.each([
    ["44 cm", "cm", 44],
    ["17.5 in", "cm", 44.45],
    ["17.5in", "cm", 44.45],
    ['17.5"', "cm", 44.45],
    ["1,5", "m", 1.5],
    ["12 ft", "m", 3.6576],
    ["15 yd", "m", 13.716],
    ["15yd", "cm", 1371.6],
    ["5 ft 10", "cm", 177.8],
    ["5'10\"", "cm", 177.8],
    ["5ft 10.5in", "cm", 179.07],
    ["6'", "cm", 182.88],
    ["-2 cm", "cm", -2],
    ["-1 in", "cm", -2.54],
  ] as const)("%s in a field of %s is %d", (text, unit, value) => {
    expect(readLength(text, unit)).toEqual({ ok: true, value });
  });
  it.each(["", "tall", "5 stone", "1.2.3", "cm"])("%j is none", (text) => {
    expect(readLength(text, "cm").ok).toBe(false);
  });
  it("several stand in one text with their units drawn up", () => {
    expect(drawnTogether("17.5 in 44 cm, 40 9 lb")).toBe("17.5in 44cm, 40 9lb");
  });
});
