import { describe, expect, it } from "vitest";
import type { LoadRun, SlotCell } from "./block-loads";
import { keysOfRun, movedLoads } from "./moved-loads";

const run = (count: number, loadKg: number | undefined): LoadRun => ({
  key: "k",
  count,
  reps: 3,
  loadKg,
  reason: undefined,
  overridden: false,
  elsewhere: [],
});
const cell = (week: number, ...byAthlete: LoadRun[][]): SlotCell => ({
  week,
  wave: undefined,
  byAthlete,
  riggings: [],
});

describe("loads that move", () => {
  it("are counted set by set, with whose they are and in which weeks", () => {
    const before = [
      cell(1, [run(3, 50), run(3, 55)], [run(6, 40)]),
      cell(2, [run(6, 60)], [run(6, 45)]),
    ];
    const now = [
      cell(1, [run(3, 50), run(3, 57.5)], [run(6, 40)]),
      cell(2, [run(6, 60)], [run(6, 45)]),
    ];
    expect(movedLoads(before, now)).toEqual({ loads: 3, athletes: 1, weeks: [1] });
    expect(movedLoads(now, now)).toEqual({ loads: 0, athletes: 0, weeks: [] });
  });

  it("take sets that are new, gone, or without a load for moved", () => {
    expect(movedLoads([cell(1, [run(3, 50)])], [cell(1, [run(5, 50)])]).loads).toBe(2);
    expect(movedLoads([cell(1, [run(3, 50)])], [cell(1, [])]).loads).toBe(3);
    expect(movedLoads([cell(1, [run(1, 50)])], [cell(1, [run(1, undefined)])]).loads).toBe(1);
    expect(movedLoads([], [cell(4, [run(2, 50)])])).toEqual({ loads: 2, athletes: 1, weeks: [4] });
  });

  it("knows the sets that a run stands for", () => {
    const sets = ["a", "b", "c", "d"].map((key) => ({ key }));
    expect(keysOfRun(sets, [run(1, 50), run(3, 55)], 1)).toEqual(["b", "c", "d"]);
    expect(keysOfRun(sets, [run(4, 50)], 3)).toEqual([]);
  });
});
