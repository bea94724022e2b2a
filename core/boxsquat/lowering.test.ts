import { describe, expect, it } from "vitest";
import { boxLowering } from "./lowering";

const room = {
  bases: [{ id: "box", name: "Box", heightsCm: [30, 36] }],
  mats: [
    { id: "thick", name: "Thick", thicknessCm: 2.5, count: 2 },
    { id: "thin", name: "Thin", thicknessCm: 1.2, count: 3 },
  ],
};

describe("a box lowered by mats", () => {
  it("goes in equal steps, each built of what there is", () => {
    const weeks = boxLowering({ fromCm: 41, toCm: 36, weeks: 3, withinCm: 0.5, ...room });
    expect(weeks?.map((one) => one.targetCm)).toEqual([41, 38.5, 36]);
    expect(weeks?.map((one) => (one.answer.ok ? one.answer.build.heightCm : "none"))).toEqual([
      41, 38.5, 36,
    ]);
  });

  it("names the nearest where nothing fits, and may go up", () => {
    const weeks = boxLowering({ fromCm: 30, toCm: 60, weeks: 2, withinCm: 0.5, ...room });
    expect(weeks?.[1]?.answer).toMatchObject({ ok: false, reason: "none-fits" });
    expect(boxLowering({ fromCm: 30, toCm: 36, weeks: 1, withinCm: 0.5, ...room })).toBeUndefined();
  });
});
