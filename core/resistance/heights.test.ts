import { describe, expect, it } from "vitest";
import { heightsFromStature, heightsKnown, wayBetween } from "./heights";

describe("bar heights from stature", () => {
  it.each([
    ["squat", 180, { bottomM: 1.03, lockoutM: 1.47 }],
    ["deadlift", 180, { bottomM: 0.23, lockoutM: 0.78 }],
    ["press", 180, { bottomM: 1.47, lockoutM: 2.17 }],
  ] as const)("%s at %d cm", (lift, cm, heights) => {
    expect(heightsFromStature(lift, cm)).toEqual({ ...heights, measured: false });
  });

  it("are the measured ones where somebody measured both, and say so", () => {
    const tape = { bottomM: 0.5, lockoutM: 0.9 };
    expect(heightsKnown(tape, "squat", 180)).toEqual({ ...tape, measured: true });
    expect(heightsKnown({ ...tape, lockoutM: null }, "squat", 180)?.measured).toBe(false);
    expect(heightsKnown(undefined, "bench", 180)).toBeUndefined();
    expect(heightsKnown(undefined, "squat", null)).toBeUndefined();
    expect(wayBetween({ ...tape, measured: true })).toEqual({ m: 0.4, measured: true });
  });

  it("gives nothing for a bench, nor for a stature that is none", () => {
    expect(heightsFromStature("bench", 180)).toBeUndefined();
    expect(heightsFromStature("squat", 18)).toBeUndefined();
    expect(heightsFromStature("squat", Number.NaN)).toBeUndefined();
  });
});
