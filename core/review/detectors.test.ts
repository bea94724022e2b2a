import { describe, expect, it } from "vitest";
import { seededRandom } from "../numeric/random";
import { addDays } from "../units/time";
import { equalSpeed, type MeasuredSet, SMALLEST_RISE_MPS, usualSlope } from "./equal-speed";
import { type FaultDay, faultReturns } from "./fault-return";
import { speedSets, WORLD_START } from "./fixtures/speed-world";
import { setFade } from "./set-fade";
import { shrinkTowards, squadMean } from "./squad-mean";
import { stallOf } from "./stall";

const share = (hits: number, of: number) => hits / of;
const BLOCKS = 500;

function trend(sets: MeasuredSet[], maxKg: number, towards = {}) {
  const slope = usualSlope(maxKg);
  if (!slope) throw new Error("a max");
  const found = equalSpeed(sets, { slope, ...towards });
  if (!found.ok) throw new Error(found.reason);
  return found;
}

describe("the detectors on 500 simulated blocks", () => {
  it("calls one in ten or fewer of those who truly rise a stall, and finds some who do not", () => {
    const stalls = (perWaveMps: number, weeks: number) => {
      let called = 0;
      for (let seed = 1; seed <= BLOCKS; seed++) {
        const { sets, maxKg } = speedSets({ seed, weeks, perWaveMps });
        const found = stallOf({
          speed: trend(sets, maxKg),
          exposures: weeks,
          exposuresAsked: 6,
          smallestMps: SMALLEST_RISE_MPS,
          chanceAsked: 0.8,
        });
        if (found.stalls) called++;
      }
      return share(called, BLOCKS);
    };
    for (const weeks of [6, 9, 12, 18]) expect(stalls(0.03, weeks), `${weeks}`).toBeLessThan(0.1);
    // What is found of flat ones, and of falling ones: reported, and kept from falling.
    expect(stalls(0, 9)).toBeGreaterThan(0.2);
    expect(stalls(0, 18)).toBeGreaterThan(0.45);
    expect(stalls(-0.03, 9)).toBeGreaterThan(0.6);
    expect(stalls(0, 3)).toBe(0);
  });

  it("needs the coach's number of exposures", () => {
    const { sets, maxKg } = speedSets({ seed: 1, weeks: 9, perWaveMps: -0.05 });
    const of = (exposuresAsked: number | undefined) =>
      stallOf({
        speed: trend(sets, maxKg),
        exposures: 9,
        exposuresAsked,
        smallestMps: SMALLEST_RISE_MPS,
        chanceAsked: 0.8,
      });
    expect(of(undefined)).toMatchObject({ stalls: false, why: "exposures-not-set" });
    expect(of(10)).toMatchObject({ stalls: false, why: "too-few-exposures" });
    expect(of(9)).toMatchObject({ stalls: true });
  });

  it("tells a fade over the limit from one under it", () => {
    const fades = (lostPercent: number, seedFrom: number) => {
      let called = 0;
      for (let i = 0; i < BLOCKS; i++) {
        const random = seededRandom(seedFrom + i);
        const first = 0.7 + 0.2 * random.uniform();
        const sets = Array.from({ length: 9 }, (_, before) => ({
          before,
          // The loss gathers towards the end, and each set is read with its own error.
          bestMps:
            first * (1 - (lostPercent / 100) * (0.6 * (before / 8) + 0.4 * (before / 8) ** 2)) +
            0.025 * random.normal(),
        }));
        const found = setFade(sets, 8);
        if (found.ok && found.fades) called++;
      }
      return share(called, BLOCKS);
    };
    expect(fades(4, 1000)).toBeLessThan(0.02);
    expect(fades(8, 2000)).toBeLessThan(0.15);
    expect(fades(16, 3000)).toBeGreaterThan(0.6);
    expect(fades(20, 4000)).toBeGreaterThan(0.9);
  });

  it("tells a fault's return from single slips", () => {
    const called = (returns: boolean, seedFrom: number) => {
      let hits = 0;
      for (let i = 0; i < BLOCKS; i++) {
        const random = seededRandom(seedFrom + i);
        const days = Array.from({ length: 9 }, (_, week): FaultDay => {
          const chance = week < 2 ? 0.5 : week === 8 && returns ? 0.4 : 0.02;
          const sets = Array.from({ length: 8 }, () => random.uniform() < chance).filter(Boolean);
          return {
            date: addDays(WORLD_START, 7 * week),
            sets: 8,
            faults: sets.length > 0 ? [{ fault: "Knees in", sets: sets.length, percent: 60 }] : [],
          };
        });
        if (faultReturns(days).length > 0) hits++;
      }
      return share(hits, BLOCKS);
    };
    expect(called(false, 100)).toBeLessThan(0.03);
    expect(called(true, 900)).toBeGreaterThan(0.8);
  });

  it("calls at most one in ten of a squad without a change, shrunk towards the squad's mean", () => {
    for (const weeks of [3, 6, 9]) {
      let [called, all] = [0, 0];
      for (let squad = 0; squad < 60; squad++) {
        const people = Array.from({ length: 12 }, (_, i) =>
          speedSets({ seed: 1 + 12 * squad + i, weeks, perWaveMps: 0 }),
        );
        const alone = people.flatMap(({ sets, maxKg }) => trend(sets, maxKg).alone ?? []);
        const towards = shrinkTowards(squadMean(alone));
        for (const { sets, maxKg } of people) {
          all++;
          if (trend(sets, maxKg, towards).verdict !== "unclear") called++;
        }
      }
      expect(share(called, all), `${weeks} weeks`).toBeLessThan(0.1);
    }
  });

  it("covers the squad's true mean", () => {
    let [inside, all] = [0, 0];
    for (let squad = 0; squad < 200; squad++) {
      const alone = Array.from({ length: 12 }, (_, i) => {
        const { sets, maxKg } = speedSets({
          seed: 5000 + 12 * squad + i,
          weeks: 3,
          perWaveMps: 0.02,
        });
        return trend(sets, maxKg).alone;
      }).flatMap((one) => one ?? []);
      const mean = squadMean(alone);
      if (!mean) continue;
      all++;
      if (mean.low <= 0.02 && 0.02 <= mean.high) inside++;
    }
    expect(share(inside, all)).toBeGreaterThan(0.85);
    expect(squadMean([])).toBeUndefined();
    expect(shrinkTowards(undefined).words).toBe("no change");
  });
});
