import { describe, expect, it } from "vitest";
import { turnsAdvice, turnsWays, turnsWords } from "./turns";

describe("where turn-taking misses the wanted rest", () => {
  it("says the wait to add", () => {
    const turns = { lifters: 3, setS: 8, changeS: 12 };
    expect(turnsWays(turns, { leastS: 60, mostS: 75 })).toEqual({
      restS: 52,
      addS: { leastS: 8, mostS: 23 },
    });
    expect(turnsWords(turns, { leastS: 60, mostS: 75 })).toContain("add 8 s to 23 s");
  });

  it("says the change to beat, and the split with its waits", () => {
    const turns = { lifters: 5, setS: 8, changeS: 12 };
    const ways = turnsWays(turns, { leastS: 60, mostS: 75 });
    expect(ways.restS).toBe(92);
    expect(ways.changeToBeatS).toBeCloseTo(8.6, 9);
    expect(ways.split).toEqual([
      { lifters: 3, restS: 52, addS: 8 },
      { lifters: 2, restS: 32, addS: 28 },
    ]);
    expect(turnsWords(turns, { leastS: 60, mostS: 75 })).toBe(
      "Rest 92 s, too long: a change of 8.6 s at the most, or two groups of 3 (add 8 s) and 2 (add 28 s).",
    );
  });

  it("says nothing where the rest is as wanted, and which sizes fit", () => {
    const turns = { lifters: 4, setS: 8, changeS: 10 };
    expect(turnsWords(turns, { leastS: 45, mostS: 75 })).toBe("");
    expect(turnsAdvice(turns, { leastS: 45, mostS: 75 })).toBe(
      "Groups of 3, 4 rest from 45 to 75 s.",
    );
  });
});
