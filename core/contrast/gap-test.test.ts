import { describe, expect, it } from "vitest";
import { seededRandom } from "../numeric/random";
import { day } from "../units/fixtures/day";
import type { LocalDate } from "../units/time";
import { analyseGaps, DEFAULT_GAPS_MIN, daysNeeded, type GapTestDay } from "./gap-test";

const WORTHWHILE = 1;

/** A hidden curve: first tired, then a gain with its peak at `bestMin`, fading after it. */
function hidden(gain: number, bestMin: number) {
  return (gapMin: number) =>
    gain * Math.exp(-0.5 * ((gapMin - bestMin) / 2.2) ** 2) - 0.8 * Math.exp(-gapMin / 0.8);
}

function simulate(curve: (gapMin: number) => number, error: number, days: number, seed: number) {
  const random = seededRandom(seed);
  return Array.from({ length: days }, (_, i): GapTestDay => {
    const level = 40 + 1.5 * random.normal();
    return {
      date: day(`2026-03-${String(i + 1).padStart(2, "0")}`),
      baseline: [0, 1, 2].map(() => level + error * random.normal()),
      trials: DEFAULT_GAPS_MIN.map((gapMin) => ({
        gapMin,
        value: level + curve(gapMin) + error * random.normal(),
      })),
    };
  });
}

describe("300 simulated athletes, two days, trial error half a smallest worthwhile change", () => {
  const error = 0.5 * WORTHWHILE;
  const runs = Array.from({ length: 300 }, (_, seed) => {
    const random = seededRandom(9000 + seed);
    const gain = seed % 3 === 0 ? 0 : WORTHWHILE * (1.6 + 1.2 * random.uniform());
    const bestMin = 3 + 8 * random.uniform();
    const curve = hidden(gain, bestMin);
    const found = analyseGaps({
      days: simulate(curve, error, 2, seed),
      worthwhile: WORTHWHILE,
      seed,
    });
    const best = Math.max(...DEFAULT_GAPS_MIN.map(curve));
    return { gain, curve, best, found };
  });

  it("finds the hidden best gap, or one with four fifths of its gain, in at least 80 %", () => {
    // Those whose best gain at a tested gap is 1.6 worthwhile changes or more.
    const with16 = runs.filter((one) => one.best >= 1.6 * WORTHWHILE);
    expect(with16.length).toBeGreaterThan(100);
    const right = with16.filter(({ curve, best, found }) => {
      if (!found.ok || found.verdict.kind !== "best") return false;
      return curve(found.verdict.gapMin) >= 0.8 * best;
    });
    expect(right.length / with16.length).toBeGreaterThanOrEqual(0.8);
  });

  it("sees no benefit in at least 90 % of those without one", () => {
    const without = runs.filter((one) => one.gain === 0);
    expect(without.length).toBe(100);
    const none = without.filter(({ found }) => found.ok && found.verdict.kind === "none");
    expect(none.length / without.length).toBeGreaterThanOrEqual(0.9);
  });
});

describe("a noisier athlete", () => {
  it("is told how many days it takes, more with more noise", () => {
    expect(daysNeeded(0.5, 1)).toBe(2);
    expect(daysNeeded(1, 1)).toBeGreaterThan(daysNeeded(0.5, 1));
    expect(daysNeeded(2, 1)).toBeGreaterThan(daysNeeded(1, 1));
    const noisy = Array.from({ length: 60 }, (_, seed) =>
      analyseGaps({
        days: simulate(hidden(1.6, 7), 1.2, 2, 500 + seed),
        worthwhile: WORTHWHILE,
      }),
    );
    const unclear = noisy.filter((one) => one.ok && one.verdict.kind === "unclear");
    expect(unclear.length).toBeGreaterThan(5);
    for (const one of unclear) {
      if (one.ok && one.verdict.kind === "unclear") expect(one.verdict.moreDays).toBeGreaterThan(0);
    }
  });
});

describe("the arithmetic", () => {
  const dayWith = (date: LocalDate, values: number[]): GapTestDay => ({
    date,
    baseline: [39, 40, 41],
    trials: [2, 6, 10].map((gapMin, i) => ({ gapMin, value: values[i] as number })),
  });
  const found = analyseGaps({
    days: [dayWith("2026-03-02", [40, 43, 41]), dayWith("2026-03-09", [40, 45, 41])],
    worthwhile: 1,
  });

  it("gives changes against the day's baseline, pooled spread and t by hand", () => {
    if (!found.ok) throw new Error("refused");
    expect(found.spread).toBeCloseTo(1, 12);
    expect(found.freedom).toBe(4);
    expect(found.changes.map((one) => one.change)).toEqual([0, 4, 1]);
    // One trial and the mean of three baselines on each of two days: √((1 + 1/3) / 2)
    expect(found.changes[1]?.error).toBeCloseTo(Math.sqrt(2 / 3), 12);
    // t = (4 − 1) ÷ 0.8165 = 3.674 with 4 degrees: 0.98933
    expect(found.changes[1]?.chance).toBeCloseTo(0.9893, 3);
    expect(found.changes.reduce((sum, one) => sum + one.bestChance, 0)).toBeCloseTo(1, 9);
    expect(found.verdict).toMatchObject({ kind: "best", gapMin: 6 });
  });

  it("turns round for times, where less is better", () => {
    const turned = analyseGaps({
      days: [
        {
          date: "2026-03-02" as const,
          baseline: [3, 3.02, 2.98],
          trials: [{ gapMin: 4, value: 2.8 }],
        },
        {
          date: "2026-03-09" as const,
          baseline: [3, 3.02, 2.98],
          trials: [{ gapMin: 4, value: 2.82 }],
        },
      ],
      worthwhile: 0.05,
      up: false,
    });
    expect(turned.ok && turned.verdict.kind).toBe("best");
    expect(turned.ok && turned.changes[0]?.change).toBeCloseTo(0.19, 12);
  });

  it("asks for a second day, for baselines, for trials", () => {
    expect(analyseGaps({ days: [dayWith("2026-03-02", [40, 41, 42])], worthwhile: 1 })).toEqual({
      ok: false,
      reason: "few-days",
      moreDays: 1,
    });
    const bare = {
      date: "2026-03-02" as const,
      baseline: [40],
      trials: [{ gapMin: 2, value: 41 }],
    };
    expect(analyseGaps({ days: [bare], worthwhile: 1 })).toMatchObject({ reason: "few-baseline" });
    expect(analyseGaps({ days: [], worthwhile: 1 })).toMatchObject({ reason: "no-trials" });
  });
});
