import { describe, expect, it } from "vitest";
import { loadedSets, measuredReps, streamColumns } from "./stream-sets";

const rep = (outcome: "counted" | "failed", mcvMps: number) =>
  ({
    outcome,
    startS: 1,
    mcvMps,
    mpvMps: mcvMps + 0.1,
    pvMps: mcvMps + 0.4,
  }) as unknown as Parameters<typeof loadedSets>[0][number][number];

describe("a stream's columns", () => {
  it("are found by their titles, in any order", () => {
    expect(streamColumns(["Height, m", "time_s"])).toEqual({ time: 1, position: 0 });
    expect(streamColumns(["t", "displacement"])).toEqual({ time: 0, position: 1 });
  });
  it("are the first two where no title says so", () => {
    expect(streamColumns(["a", "b", "c"])).toEqual({ time: 0, position: 1 });
  });
});

describe("sets with their loads", () => {
  const sets = [[rep("counted", 0.8), rep("failed", 0.2)], [rep("counted", 0.5)], []];

  it("take a load in the team's unit or in the one that is written", () => {
    const loaded = loadedSets(sets, { 0: "60", 1: "135 lb" }, "kg");
    expect(loaded.map((one) => one.kg && Math.round(one.kg))).toEqual([60, 61, undefined]);
    expect(loaded[0]).toMatchObject({ failed: 1, text: "60" });
    expect(loadedSets(sets, { 0: "100" }, "lb")[0]?.kg).toBeCloseTo(45.359, 3);
  });

  it.each(["", "x", "0", "-20"])('have no load while "%s" stands there', (text) => {
    expect(loadedSets(sets, { 0: text }, "kg")[0]?.kg).toBeUndefined();
  });

  it("become reps of the metric; sets without a load are left out", () => {
    const loaded = loadedSets(sets, { 1: "100" }, "kg");
    expect(measuredReps(loaded, "MCV", 0).map((one) => [one.loadKg, one.velocityMps])).toEqual([
      [100, 0.5],
    ]);
    expect(measuredReps(loaded, "PV", 0)[0]?.velocityMps).toBeCloseTo(0.9, 9);
  });
});
