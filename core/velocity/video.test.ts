import { describe, expect, it } from "vitest";
import { speedOfFrames } from "./video";

describe("a speed from the frames of a film", () => {
  it.each([
    [48, 60, 0.64, 0.8, 0.8 / 48],
    [24, 30, 0.64, 0.8, 0.8 / 24],
    [3, 60, 0.1, 2, 2 / 3],
  ])("%d frames at %d a second over %s m", (frames, framesPerS, travelM, mps, errorMps) => {
    const found = speedOfFrames({ frames, framesPerS, travelM });
    expect(found).toMatchObject({ ok: true });
    if (!found.ok) return;
    expect(found.mps).toBeCloseTo(mps, 12);
    expect(found.errorMps).toBeCloseTo(errorMps, 12);
  });

  it.each([
    [2, 60, 0.6, "too-few-frames"],
    [20.5, 60, 0.6, "too-few-frames"],
    [Number.NaN, 60, 0.6, "too-few-frames"],
    [20, 0, 0.6, "no-rate"],
    [20, 60, 60, "no-travel"],
    [20, 60, Number.NaN, "no-travel"],
  ])("%d frames, %d a second, %s m: %s", (frames, framesPerS, travelM, reason) => {
    expect(speedOfFrames({ frames, framesPerS, travelM })).toEqual({ ok: false, reason });
  });
});
