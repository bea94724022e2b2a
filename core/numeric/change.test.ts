import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { changeBetween, smallestWorthwhileChange, testValue, typicalError } from "./change";
import { seededRandom } from "./random";

const { changes } = JSON.parse(
  readFileSync(new URL("./fixtures/statistics.json", import.meta.url), "utf8"),
) as {
  changes: Array<{
    trials: number[][];
    te: number;
    freedom: number;
    worthwhile: number;
    before: number;
    after: number;
    averaged: number;
    better: number;
    worse: number;
    low: number;
    high: number;
  }>;
};

describe("statistics of a change", () => {
  it("equal R's on 24 data sets, means of several trials among them", () => {
    expect(changes.length).toBe(24);
    for (const one of changes) {
      const error = typicalError(one.trials);
      if (!error) throw new Error("no error");
      expect(error.value).toBeCloseTo(one.te, 10);
      expect(error.freedom).toBe(one.freedom);
      const worthwhile = smallestWorthwhileChange(one.trials.map((trial) => trial[0] as number));
      expect(worthwhile).toBeCloseTo(one.worthwhile, 10);
      const change = changeBetween({
        before: one.before,
        after: one.after,
        error,
        worthwhile: worthwhile ?? Number.NaN,
        higherIsBetter: true,
        unit: "cm",
        decimals: 1,
        trialsBefore: one.averaged,
        trialsAfter: one.averaged,
      });
      expect(change?.better).toBeCloseTo(one.better, 9);
      expect(change?.worse).toBeCloseTo(one.worse, 9);
      expect(change?.low).toBeCloseTo(one.low, 8);
      expect(change?.high).toBeCloseTo(one.high, 8);
    }
  });
});

describe("typical error", () => {
  it("is the SD of the differences over √2", () => {
    // Differences 2, 0, −1, 3: mean 1, SD √(10/3).
    const error = typicalError([
      [40, 42],
      [38, 38],
      [45, 44],
      [50, 53],
    ]);
    expect(error?.value).toBeCloseTo(Math.sqrt(10 / 3) / Math.SQRT2, 12);
    expect(error?.freedom).toBe(3);
  });

  it("finds the hidden error of many athletes with three trials", () => {
    const random = seededRandom(7);
    const trials = Array.from({ length: 400 }, () => {
      const own = 40 + 6 * random.normal();
      return [0, 1, 2].map(() => own + 1.2 * random.normal());
    });
    expect(typicalError(trials)?.value).toBeCloseTo(1.2, 1);
  });

  it("needs two athletes with two trials", () => {
    expect(typicalError([[40, 42]])).toBeUndefined();
    expect(typicalError([[40], [41]])).toBeUndefined();
    expect(typicalError([])).toBeUndefined();
    expect(smallestWorthwhileChange([40])).toBeUndefined();
    expect(smallestWorthwhileChange([40, 50])).toBeCloseTo(0.2 * Math.sqrt(50), 12);
  });
});

describe("a change", () => {
  const change = (after: number, over = {}) => {
    const found = changeBetween({
      before: 40,
      after,
      error: { value: 1, freedom: 20 },
      worthwhile: 1,
      higherIsBetter: true,
      unit: "cm",
      decimals: 1,
      ...over,
    });
    if (!found) throw new Error("no change");
    return found;
  };
  const judged = (over: object) =>
    changeBetween({
      before: 40,
      after: 42,
      error: { value: 1, freedom: 20 },
      worthwhile: 1,
      higherIsBetter: true,
      unit: "cm",
      decimals: 1,
      ...over,
    });

  it("is none without a freedom of its error, or where a figure is no number", () => {
    expect(judged({ error: { value: 1, freedom: 0 } })).toBeUndefined();
    expect(judged({ after: Number.NaN })).toBeUndefined();
    expect(judged({ worthwhile: Number.POSITIVE_INFINITY })).toBeUndefined();
  });

  it("errs less as a mean of several trials", () => {
    const one = change(42);
    const three = change(42, { trialsBefore: 3, trialsAfter: 3 });
    expect((three.high - three.low) / (one.high - one.low)).toBeCloseTo(1 / Math.sqrt(3), 12);
    expect(three.better).toBeGreaterThan(one.better);
  });

  it.each([
    [45, "better"],
    [35, "worse"],
    [40, "unclear"],
  ])("to %s is %s", (after, verdict) => {
    expect(change(after).verdict).toBe(verdict);
  });

  it("is trivial where the error is small against what is worthwhile", () => {
    expect(change(40.1, { error: { value: 0.3, freedom: 20 } }).verdict).toBe("trivial");
  });

  it("turns round for times", () => {
    expect(change(35, { higherIsBetter: false }).verdict).toBe("better");
  });

  it("has chances that sum to one and the t interval of TE·√2", () => {
    const found = change(42);
    expect(found.better + found.trivial + found.worse).toBeCloseTo(1, 12);
    // t of 0.95 on 20 degrees of freedom, from tables.
    expect(found.high - found.difference).toBeCloseTo(1.7247182429207863 * Math.SQRT2, 9);
    // By symmetry the chance to exceed the difference itself is a half.
    expect(change(41).better).toBeCloseTo(0.5, 12);
  });

  it("takes the best or the mean of trials, lowest for times", () => {
    expect(testValue([3, 5, 4], true, "best")).toBe(5);
    expect(testValue([3, 5, 4], false, "best")).toBe(3);
    expect(testValue([3, 5, 4], true, "mean")).toBe(4);
    expect(testValue([], true, "best")).toBeUndefined();
  });
});
