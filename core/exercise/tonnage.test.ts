import { describe, expect, it } from "vitest";
import { progressions, tonnageKg } from "./tonnage";

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
});
