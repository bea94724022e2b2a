import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { seededRandom } from "../numeric/random";
import { grains, grainsToKg, kgToGrains, type Mass } from "../units/mass";
import { loadableTable } from "./loadable";
import type { LoadingGear } from "./loading-gear";
import { planSequence, warmUpRamp } from "./sequence";

const kg = (amount: number): Mass => ({ amount, unit: "kg" });
function room(plates: Array<[number, number]>, sleeveMm = 400): LoadingGear {
  return {
    bar: { id: "b", name: "Bar", mass: kg(20), rated: kg(300), sleeveMm },
    collar: kg(0),
    plates: plates.map(([amount, pairs]) => ({ mass: kg(amount), pairs, thicknessMm: 20 })),
  };
}

/** Every order of plates of every load, and every way from one to the next. */
function bruteForce(gear: LoadingGear, totalsKg: number[], start: number[] = []): number {
  const all = (target: number, left: number[]): number[][] => {
    if (target === 0) return [[]];
    return gear.plates.flatMap((stock, i) => {
      const each = grains(stock.mass);
      if ((left[i] as number) === 0 || each > target) return [];
      const rest = left.map((count, j) => (i === j ? count - 1 : count));
      return all(target - each, rest).map((stack) => [i, ...stack]);
    });
  };
  const empty = grains(gear.bar.mass);
  let before: Array<{ stack: number[]; moves: number }> = [{ stack: start, moves: 0 }];
  for (const totalKg of totalsKg) {
    const stacks = all(
      (kgToGrains(totalKg) - empty) / 2,
      gear.plates.map((stock) => stock.pairs),
    );
    before = stacks.map((stack) => ({
      stack,
      moves: Math.min(
        ...before.map((one) => {
          let shared = 0;
          while (shared < one.stack.length && one.stack[shared] === stack[shared]) shared++;
          return one.moves + 2 * (one.stack.length + stack.length - 2 * shared);
        }),
      ),
    }));
  }
  return Math.min(...before.map((one) => one.moves));
}

describe("a sequence of loads", () => {
  it("has the fewest moves of all in 300 random small rooms", () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.constantFrom(1.25, 2.5, 5, 7.5, 10, 15), { minLength: 2, maxLength: 4 }),
        fc.array(fc.integer({ min: 1, max: 2 }), { minLength: 4, maxLength: 4 }),
        fc.array(fc.nat(1000), { minLength: 1, maxLength: 5 }),
        (amounts, pairs, picks) => {
          const gear = room(amounts.map((amount, i) => [amount, pairs[i] ?? 1]));
          const { totals } = loadableTable(gear);
          const loads = picks.map((pick) => grainsToKg(totals[pick % totals.length] as number));
          const plan = planSequence(gear, loads);
          if (!plan.ok) throw new Error(plan.reason);
          expect(plan.proven).toBe(true);
          expect(plan.moves).toBe(bruteForce(gear, loads));
        },
      ),
      { numRuns: 300, seed: 4 },
    );
  });

  it("is proven for forty loads over seven kinds of plates, and from any start", () => {
    const gear = room([
      [25, 2],
      [20, 2],
      [15, 1],
      [10, 2],
      [5, 2],
      [2.5, 2],
      [1.25, 1],
    ]);
    const { totals } = loadableTable(gear);
    const random = seededRandom(3);
    const pick = () => grainsToKg(totals[Math.floor(random.uniform() * totals.length)] as number);
    for (let i = 0; i < 5; i++) {
      const plan = planSequence(
        gear,
        Array.from({ length: 40 }, () => Math.min(200, pick())),
        { start: [kg(10), kg(2.5)] },
      );
      expect(plan.ok && plan.proven && plan.moves === plan.leastMoves).toBe(true);
    }
  });

  it("counts from what is on the bar, as trying every way does", () => {
    const gear = room([
      [10, 2],
      [5, 2],
      [2.5, 1],
    ]);
    const { totals } = loadableTable(gear);
    fc.assert(
      fc.property(
        fc.array(fc.nat(totals.length - 1), { minLength: 1, maxLength: 4 }),
        fc.subarray([kg(5), kg(10), kg(2.5)]),
        (picks, start) => {
          const loads = picks.map((one) => grainsToKg(totals[one] as number));
          const plan = planSequence(gear, loads, { start });
          if (!plan.ok) throw new Error(plan.reason);
          const on = start.map((mass) =>
            gear.plates.findIndex((one) => one.mass === mass || one.mass.amount === mass.amount),
          );
          expect(plan.moves).toBe(bruteForce(gear, loads, on));
        },
      ),
      { numRuns: 200, seed: 9 },
    );
  });

  it("says a bound where there is too much to look at, and is no better than it", () => {
    const gear = room(
      [25, 20, 15, 10, 5, 2.5, 2, 1.5, 1.25, 1].map((amount) => [amount, 6]),
      2000,
    );
    const { totals } = loadableTable(gear);
    const random = seededRandom(8);
    const loads = Array.from({ length: 6 }, () =>
      grainsToKg(totals[Math.floor((0.3 + 0.5 * random.uniform()) * totals.length)] as number),
    );
    const plan = planSequence(gear, loads);
    if (!plan.ok) throw new Error(plan.reason);
    expect(plan.leastMoves).toBeLessThanOrEqual(plan.moves);
    expect(plan.proven).toBe(plan.leastMoves === plan.moves);
    expect(plan.moves).toBeLessThanOrEqual(plan.movesOnePlan);
  });

  it("never uses more plates than the room has, and every side sums to its load", () => {
    const gear = room([
      [20, 1],
      [10, 2],
      [5, 1],
      [2.5, 2],
      [1.25, 1],
    ]);
    const { totals } = loadableTable(gear);
    fc.assert(
      fc.property(fc.array(fc.nat(totals.length - 1), { minLength: 1, maxLength: 12 }), (picks) => {
        const loads = picks.map((pick) => grainsToKg(totals[pick] as number));
        const plan = planSequence(gear, loads);
        if (!plan.ok) throw new Error(plan.reason);
        let stack: Mass[] = [];
        for (const step of plan.steps) {
          for (const mass of step.off) expect(stack.pop()).toEqual(mass);
          stack = [...stack, ...step.on];
          expect(stack).toEqual(step.side);
          const sum = step.side.reduce((total, mass) => total + grains(mass), 0);
          expect(grainsToKg(2 * sum + grains(kg(20)))).toBeCloseTo(step.totalKg, 9);
          for (const stock of gear.plates) {
            const used = step.side.filter((mass) => mass.amount === stock.mass.amount).length;
            expect(used).toBeLessThanOrEqual(stock.pairs);
          }
        }
        expect(plan.moves).toBeLessThanOrEqual(plan.movesOnePlan);
      }),
    );
  });

  it("leaves the light plate inside where that saves moves, and heavy inside otherwise", () => {
    const gear = room([
      [20, 1],
      [10, 2],
      [5, 2],
    ]);
    // 30 → 50 → 30: the 5 stays on under the 10.
    const plan = planSequence(gear, [30, 50, 30]);
    if (!plan.ok) throw new Error(plan.reason);
    expect(plan.steps.map((step) => step.side.map((mass) => mass.amount))).toEqual([
      [5],
      [5, 10],
      [5],
    ]);
    expect(plan.moves).toBe(6);
    expect(plan.movesOnePlan).toBe(14);
    const alone = planSequence(gear, [50]);
    expect(alone.ok && alone.steps[0]?.side.map((mass) => mass.amount)).toEqual([10, 5]);
  });

  it("starts from what is on the bar, and names a load that cannot be built", () => {
    const gear = room([
      [10, 2],
      [5, 2],
    ]);
    const plan = planSequence(gear, [40], { start: [kg(10)] });
    expect(plan.ok && plan.moves).toBe(0);
    expect(planSequence(gear, [40, 41])).toEqual({
      ok: false,
      reason: "not-loadable",
      index: 1,
      totalKg: 41,
    });
  });
});

describe("a warm-up ramp", () => {
  it("rises from the empty bar, merged where steps round together, under the work load", () => {
    const gear = room([
      [20, 2],
      [10, 2],
      [5, 2],
      [2.5, 2],
      [1.25, 1],
    ]);
    expect(warmUpRamp(gear, 100)).toEqual([20, 40, 55, 70, 85, 95]);
    expect(warmUpRamp(gear, 30)).toEqual([20, 25, 27.5]);
    expect(warmUpRamp(gear, 20)).toEqual([]);
  });
});
