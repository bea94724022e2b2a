import { describe, expect, it } from "vitest";
import { testGear } from "../barload/fixtures/gear";
import { loadableTable } from "../barload/loadable";
import { grainsToKg } from "../units/mass";
import { readIn } from "../units/written";
import { nextLoad, type RampSet } from "./next-load";

const gear = testGear([20, 10, 5, 2.5, 1.25]);
const HEAVIEST = grainsToKg(loadableTable(gear).totals.at(-1) ?? 0);
const set = (loadKg: number, over: Partial<RampSet> = {}): RampSet => ({
  loadKg,
  velocities: [],
  eye: undefined,
  failed: false,
  ...over,
});
const next = (lifted: RampSet[], over: { lineMps?: number; bestKg?: number } = {}) => {
  const found = nextLoad({ lifted, gear, lineMps: over.lineMps, bestKg: over.bestKg });
  return found.kind === "load"
    ? { kg: found.loading.totalKg, asks: found.asks, text: readIn(found.text, "kg") }
    : { stop: readIn(found.text, "kg") };
};

describe("the next load of a set without a plan's", () => {
  it("begins with the empty bar", () => {
    expect(next([])).toMatchObject({ kg: 20, text: "Begin with the empty bar." });
  });

  it.each([
    ["far over the line: a tenth", set(60, { velocities: [0.9] }), 0.6, 65],
    [
      "near the line: a twentieth, one loadable step at the least",
      set(60, { velocities: [0.7] }),
      0.6,
      62.5,
    ],
    ["looked fast: a tenth", set(60, { eye: "fast" }), undefined, 65],
    ["looked on speed: a twentieth", set(60, { eye: "on" }), undefined, 62.5],
    ["nothing is known of it: a twentieth", set(60), undefined, 62.5],
  ] as const)("%s", (_, lifted, lineMps, kg) => {
    expect(next([lifted], lineMps === undefined ? {} : { lineMps })).toMatchObject({ kg });
  });

  it("stops at slow, under the line, and at a lost rep", () => {
    expect(next([set(60, { eye: "slow" })])).toEqual({ stop: "60 kg looked slow: stop here." });
    expect(next([set(60, { velocities: [0.55] })], { lineMps: 0.6 })).toEqual({
      stop: "60 kg went at 0.55, under the line of 0.60: stop here.",
    });
    expect(next([set(60, { failed: true, velocities: [0.7] })], { lineMps: 0.6 })).toEqual({
      stop: "A rep was lost at 60 kg: stop here.",
    });
  });

  it("exactly on the line goes on", () => {
    expect(next([set(60, { velocities: [0.6] })], { lineMps: 0.6 })).toMatchObject({ kg: 62.5 });
  });

  it("goes by the heaviest, not by the last", () => {
    expect(next([set(80, { eye: "on" }), set(60, { eye: "fast" })])).toMatchObject({ kg: 82.5 });
  });

  it("asks before a lifetime best, and not at it", () => {
    expect(next([set(60, { eye: "on" })], { bestKg: 62.5 })).toMatchObject({
      kg: 62.5,
      asks: false,
    });
    const over = next([set(60, { eye: "on" })], { bestKg: 61 });
    expect(over).toMatchObject({ kg: 62.5, asks: true });
    expect(over.text).toContain("ask first, stopping is no failure");
  });

  it("says when the rack builds no more", () => {
    expect(next([set(HEAVIEST, { eye: "on" })])).toEqual({
      stop: `${HEAVIEST} kg is the heaviest this rack builds.`,
    });
  });
});
