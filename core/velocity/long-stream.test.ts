import { describe, expect, it } from "vitest";
import { type SimulatedLifter, simulateSet } from "../../device/lifter";
import { SENSOR_DEFAULTS, sampleMovement } from "../../device/sensor";
import { SHAPE_FAMILIES, type ShapeFamily } from "../../device/shapes/families";
import { seededRandom } from "../numeric/random";
import { quantile } from "../numeric/statistics";
import { analyseStream } from "./analyse";
import { addedMassKg, repForce } from "./force";
import { LongStream, setsOf } from "./long-stream";

const shape = SHAPE_FAMILIES.ramps as ShapeFamily;

const LIFTER: SimulatedLifter = {
  v0Mps: 1.45,
  l0Kg: 130,
  repFade: 0.03,
  setFade: 0.01,
  fullRestS: 150,
  spreadMps: 0.02,
  rangeM: 0.42,
  topM: 1.1,
  loweringMps: 0.7,
  pauseS: 0.1,
  sticking: 0.2,
};

/** Several sets with long waits between them, as one stream. */
function session(sets: number, waitS: number) {
  const times: number[] = [];
  const heights: number[] = [];
  let at = 0;
  for (let i = 0; i < sets; i++) {
    const set = simulateSet(LIFTER, {
      loadKg: 60 + 5 * i,
      reps: 3,
      setsBefore: i,
      restS: 150,
      dayShiftMps: 0,
      seed: i + 1,
    });
    const samples = sampleMovement(
      set.movement,
      { ...SENSOR_DEFAULTS, rateHz: 100 },
      seededRandom(i + 9),
    );
    for (const { timeS, heightM } of samples) {
      times.push(at + timeS);
      heights.push(heightM);
    }
    const last = samples[samples.length - 1];
    const end = at + (last?.timeS ?? 0);
    for (let t = 0.01; t < waitS; t += 0.01) {
      times.push(end + t);
      heights.push(last?.heightM ?? 0);
    }
    at = end + waitS + 0.05;
  }
  return { times, heights };
}

describe("a long stream", () => {
  it("finds to the last digit what is found in one piece, set by set", () => {
    const { times, heights } = session(8, 50);
    const long = new LongStream();
    for (const [i, t] of times.entries()) long.push(t, heights[i] as number, i + 2);
    long.finish();
    const whole = analyseStream({ timesS: times, heightsM: heights }).reps;
    expect(times[times.length - 1]).toBeGreaterThan(400);
    expect(long.problems.count).toBe(0);
    expect(whole).toHaveLength(24);
    expect(long.reps).toHaveLength(24);
    long.reps.forEach((rep, i) => {
      expect(rep).toEqual(whole[i]);
    });
    expect(setsOf(long.reps).map((set) => set.length)).toEqual(Array(8).fill(3));
  });

  it.each([
    [
      "positions in centimetres",
      [
        [0, 100],
        [1, 140],
      ],
      "cm or mm",
    ],
    ["nothing", [], "no samples"],
  ] as Array<[string, number[][], string]>)("names %s", (_, samples, words) => {
    const long = new LongStream();
    for (const [i, [t, h]] of samples.entries()) long.push(t as number, h as number, i + 2);
    long.finish();
    expect(long.problems.kept[0]?.text).toContain(words);
  });

  it("counts what the signal got wrong by kind, with the first line, and goes on", () => {
    const { times, heights } = session(2, 20);
    const long = new LongStream();
    times.forEach((t, i) => {
      if (i === 500) long.push(t - 0.004, 5, i + 2);
      else long.push(t, heights[i] as number, i + 2);
      if (i === 900) long.push(t, heights[i] as number, 5000);
    });
    long.finish();
    expect(long.faults.map(({ fault, count, line }) => [fault, count, line])).toEqual([
      ["spike", 1, 502],
      ["repeated", 1, 5000],
    ]);
    expect(long.problems.count).toBe(0);
    expect(long.reps).toHaveLength(6);
  });

  it("notes gaps with their line, and measures on both sides", () => {
    const { times, heights } = session(2, 20);
    const long = new LongStream();
    times.forEach((t, i) => {
      if (t < 15 || t > 17) long.push(t, heights[i] as number, i + 2);
    });
    long.finish();
    expect(long.gaps).toHaveLength(1);
    expect(long.gaps[0]?.lengthS).toBeCloseTo(2, 1);
    expect(long.problems.count).toBe(0);
    expect(long.reps.length).toBeGreaterThanOrEqual(6);
  });
});

describe("force and power of a rep", () => {
  it("equal the time averages of m(a + g) and F·v along the true movement", () => {
    // Minimum-jerk rise of 0.4 m in 0.36 s: fast enough to brake harder than gravity.
    const rangeM = 0.4;
    const T = 0.36;
    const v = (t: number) => (rangeM / T) * 30 * ((t / T) ** 2 - 2 * (t / T) ** 3 + (t / T) ** 4);
    const x = (t: number) => rangeM * (10 * (t / T) ** 3 - 15 * (t / T) ** 4 + 6 * (t / T) ** 5);
    const a = (t: number) => (v(t + 1e-6) - v(t - 1e-6)) / 2e-6;
    let end = T;
    for (let t = T / 2; t < T; t += 1e-5) {
      if (a(t) < -9.81) {
        end = t;
        break;
      }
    }
    expect(end).toBeLessThan(T);
    let force = 0;
    let power = 0;
    const steps = 20000;
    // From the passage of 0.05 m/s on.
    let start = 0;
    while (v(start) < 0.05) start += 1e-5;
    for (let i = 0; i < steps; i++) {
      const t = start + ((i + 0.5) / steps) * (end - start);
      force += (50 * (a(t) + 9.81)) / steps;
      power += (50 * (a(t) + 9.81) * v(t)) / steps;
    }
    const found = repForce(
      { propulsiveS: end - start, propulsiveM: x(end) - x(start), propulsiveEndMps: v(end) },
      50,
    );
    expect(found?.forceN).toBeCloseTo(force, 0);
    expect(found?.powerW).toBeCloseTo(power, 0);
  });

  it("come from the stream within 5 % of the truth in 19 of 20 reps at 100 Hz", () => {
    const errors: number[] = [];
    for (let seed = 1; seed <= 40; seed++) {
      const set = shape(seed);
      const samples = sampleMovement(
        set.movement,
        { rateHz: 100, noiseM: 0.0003, jitter: 0.1 },
        seededRandom(seed * 7919),
      );
      const { reps } = analyseStream({
        timesS: samples.map((one) => one.timeS),
        heightsM: samples.map((one) => one.heightM),
      });
      reps.forEach((rep, i) => {
        const truth = set.reps[i];
        const found = repForce(rep, 1);
        if (!truth || !found) return;
        errors.push(Math.abs(found.forceN / truth.forceNPerKg - 1));
        errors.push(Math.abs(found.powerW / truth.powerWPerKg - 1));
      });
    }
    expect(errors.length).toBeGreaterThan(200);
    expect(quantile(errors, 0.95)).toBeLessThan(0.05);
  });

  it("is the weight where propulsion lasts to the top, and states its system mass", () => {
    const slow = { propulsiveS: 1.2, propulsiveM: 0.4, propulsiveEndMps: 0.05 };
    expect(repForce(slow, 100)?.forceN).toBeCloseTo(981, 9);
    expect(repForce(slow, 0)).toBeUndefined();
    expect(addedMassKg("bar", undefined)).toBe(0);
    expect(addedMassKg("bar-and-body", 80)).toBeCloseTo(70.4, 9);
    expect(addedMassKg("bar-and-body", undefined)).toBeUndefined();
  });
});
