import { describe, expect, it } from "vitest";
import { aimWay, endingWay, restWay, sumWays, type WaveUnder, waysApart } from "./what-pays";

const wave = (athleteId: string, way: string, changeMps: number): WaveUnder => ({
  athleteId,
  way,
  change: { changeMps, sdMps: 0.05 },
  fadePercent: 4,
  cutPercent: 10,
});

describe("what happened under each way", () => {
  it("has words for what a recipe is for, its rest and its ending", () => {
    expect(aimWay({ aim: "power" })).toBe("speed waves");
    expect(aimWay({ aim: "growth" })).toBe("volume waves");
    expect(aimWay({ aim: "learning" })).toBe("strength or learning");
    expect(restWay({ rest: { leastS: 45, mostS: 75 } })).toBe("short rest");
    expect(restWay({ rest: { leastS: 90, mostS: 180 } })).toBe("full rest");
    expect(endingWay({ stop: { lossPercent: 10, lossFrom: "best" }, basis: "percent" })).toBe(
      "loss of 10 % from the best",
    );
    expect(endingWay({ stop: { lossFrom: "best", floorMps: 0.6 }, basis: "percent" })).toBe(
      "a floor",
    );
    expect(endingWay({ stop: { lossFrom: "best" }, basis: "eye" })).toBe("the eye");
    expect(endingWay({ stop: { lossFrom: "best" }, basis: "percent" })).toBe("fixed reps");
  });

  it("sums each way, and sets two apart with an interval that few athletes widen", () => {
    const speed = ["a", "b", "c", "d"].map((id, i) => wave(id, "speed waves", 0.03 + 0.01 * i));
    const volume = ["a", "b", "c"].map((id) => wave(id, "volume waves", 0.01));
    const [first, second] = sumWays([...volume, ...speed]);
    expect(first).toMatchObject({ way: "speed waves", waves: 4, athletes: 4, fadePercent: 4 });
    expect(second).toMatchObject({ way: "volume waves", waves: 3, cutPercent: 10 });
    const apart = first && second && waysApart(first, second);
    expect(apart?.estimate).toBeCloseTo(0.035, 9);
    expect(apart?.low).toBeLessThan(0);
    expect(apart?.high).toBeGreaterThan(0.07);
    expect(sumWays([])).toEqual([]);
    expect(
      waysApart({ change: undefined, athletes: 3 }, { change: undefined, athletes: 3 }),
    ).toBeUndefined();
  });
});
