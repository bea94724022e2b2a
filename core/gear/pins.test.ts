import { describe, expect, it } from "vitest";
import { pinsFor } from "./pins";

const rack = { hooksCm: [130, 140, 150], safetiesCm: [70, 60, 50], start: "top" as const };
const heights = (bottomM: number, lockoutM: number) => ({ bottomM, lockoutM, measured: true });

describe("hooks and safeties", () => {
  it.each([
    ["the highest that keep clear", heights(0.62, 1.44), { hooksCm: 140, safetiesCm: 60 }],
    ["just clear of both", heights(0.72, 1.54), { hooksCm: 150, safetiesCm: 70 }],
    ["a hair too near: the next hole", heights(0.7199, 1.5399), { hooksCm: 140, safetiesCm: 60 }],
    [
      "no hole low enough for safeties",
      heights(0.4, 1.44),
      { hooksCm: 140, safetiesCm: undefined },
    ],
  ])("%s", (_, own, pins) => {
    expect(pinsFor({ ...rack, heights: own })).toMatchObject(pins);
  });

  it("says nothing where heights or holes are not known, or the bar comes from the floor", () => {
    expect(pinsFor({ ...rack, heights: undefined })).toBeUndefined();
    expect(pinsFor({ ...rack, heights: heights(Number.NaN, 1.5) })).toBeUndefined();
    expect(
      pinsFor({ heights: heights(0.6, 1.5), start: "top", hooksCm: [], safetiesCm: [] }),
    ).toBeUndefined();
    expect(pinsFor({ ...rack, start: "bottom", heights: heights(0.6, 1.5) })).toBeUndefined();
  });
});
