import { describe, expect, it } from "vitest";
import { seededRandom } from "../core/numeric/random";
import { fitLine } from "../core/numeric/regression";
import { mean } from "../core/numeric/statistics";
import { analyseStream } from "../core/velocity/analyse";
import { type SimulatedLifter, simulateSet, trueVelocities } from "./lifter";
import { measureSet } from "./measure-set";
import {
  curveRise,
  doneShare,
  Movement,
  type MovePiece,
  pieceAcceleration,
  pieceVelocity,
} from "./movement";
import { SENSOR_DEFAULTS, sampleMovement } from "./sensor";
import type { SetEvent } from "./sensor-port";
import { SHAPE_FAMILIES } from "./shapes/families";
import { HELD_OUT_FAMILIES } from "./shapes/held-out";
import { SimulatedSensor, type Ticker } from "./simulated-sensor";

const LIFTER: SimulatedLifter = {
  v0Mps: 1.4,
  l0Kg: 120,
  repFade: 0.03,
  setFade: 0.015,
  fullRestS: 150,
  spreadMps: 0.015,
  rangeM: 0.4,
  topM: 1.1,
  loweringMps: 0.7,
  pauseS: 0,
  sticking: 0.2,
};

const INPUT = { loadKg: 60, reps: 3, setsBefore: 0, restS: 60, dayShiftMps: 0, seed: 5 };

describe("movement", () => {
  const piece: MovePiece = { kind: "move", riseM: 0.4, durationS: 0.5, skew: 0.1, sticking: 0.2 };

  it("has the velocity and acceleration of its own height", () => {
    const h = 1e-5;
    for (const tau of [0.1, 0.3, 0.5, 0.7, 0.9]) {
      const slope = ((doneShare(piece, tau + h) - doneShare(piece, tau - h)) / (2 * h)) * 0.4;
      expect(slope / 0.5).toBeCloseTo(pieceVelocity(piece, tau), 5);
      const bend = (pieceVelocity(piece, tau + h) - pieceVelocity(piece, tau - h)) / (2 * h) / 0.5;
      expect(bend).toBeCloseTo(pieceAcceleration(piece, tau), 4);
    }
    expect(doneShare(piece, 0)).toBe(0);
    expect(doneShare(piece, 1)).toBeCloseTo(1, 12);
  });

  it("goes on from piece to piece without a jump, and stands at both ends", () => {
    const movement = new Movement(1, [
      piece,
      { kind: "still", durationS: 0.3 },
      { ...piece, riseM: -0.4 },
    ]);
    for (let t = 0.001; t < movement.durationS; t += 0.001) {
      expect(Math.abs(movement.heightAt(t) - movement.heightAt(t - 0.001))).toBeLessThan(0.003);
    }
    expect(movement.heightAt(-1)).toBe(1);
    expect(movement.heightAt(99)).toBeCloseTo(1, 9);
  });

  it("has the velocity, and the acceleration, of its own height in every kind of piece", () => {
    const movement = new Movement(1, [
      piece,
      { kind: "curve", durationS: 0.3, fromMps: 0, toMps: 0.7, fromMps2: 1, toMps2: 4 },
      { kind: "still", durationS: 0.2 },
    ]);
    const h = 1e-5;
    for (let t = 0.05; t < 0.8; t += 0.06) {
      const slope = (movement.heightAt(t + h) - movement.heightAt(t - h)) / (2 * h);
      expect(movement.velocityAt(t)).toBeCloseTo(slope, 4);
      const bend = (movement.velocityAt(t + h) - movement.velocityAt(t - h)) / (2 * h);
      expect(movement.accelerationAt(t)).toBeCloseTo(bend, 3);
    }
    const even = { kind: "curve", durationS: 2, fromMps: 0.5, toMps: 0.5 } as const;
    expect(curveRise({ ...even, fromMps2: 0, toMps2: 0 }, 0.5)).toBeCloseTo(0.5, 12);
    expect(movement.velocityAt(-1)).toBe(0);
    expect(movement.accelerationAt(99)).toBe(0);
  });
});

describe("families of known truth", () => {
  const families = Object.entries({ ...SHAPE_FAMILIES, ...HELD_OUT_FAMILIES });

  it.each(families)("%s: the same for the same seed, each truth by its definition", (_, family) => {
    expect(family(3).reps).toEqual(family(3).reps);
    for (let seed = 1; seed <= 10; seed++) {
      const { movement, reps } = family(seed);
      expect(reps.length).toBeGreaterThan(0);
      for (const rep of reps) {
        expect(movement.velocityAt(rep.startS)).toBeCloseTo(0.05, 3);
        expect(movement.velocityAt(rep.endS)).toBeCloseTo(0.05, 2);
        const rise = movement.heightAt(rep.endS) - movement.heightAt(rep.startS);
        expect(rep.mcvMps).toBeCloseTo(rise / (rep.endS - rep.startS), 9);
        expect(rep.pvMps).toBeGreaterThan(rep.mcvMps);
        expect(rep.rangeM).toBeGreaterThan(rise);
      }
    }
  });

  it("cover pauses, rocks, failures, hard braking and slow grinds", () => {
    const reps = families.flatMap(([, family]) =>
      Array.from({ length: 12 }, (_, i) => family(i + 1)).flatMap((set) => set.reps),
    );
    expect(reps.filter((rep) => (rep.pauseS ?? 0) > 0.3).length).toBeGreaterThan(80);
    expect(reps.filter((rep) => rep.brakesHard).length).toBeGreaterThan(60);
    expect(reps.filter((rep) => rep.mcvMps < 0.35).length).toBeGreaterThan(30);
    expect(reps.filter((rep) => rep.outcome === "failed").length).toBeGreaterThan(8);
    expect(reps.filter((rep) => rep.rocksM.length > 0).length).toBeGreaterThan(8);
  });
});

describe("simulated lifter", () => {
  it("hides a line that its reps follow", () => {
    const points = [30, 45, 60, 75, 90].map((loadKg) => ({
      x: loadKg,
      y: Math.max(...trueVelocities({ ...LIFTER, spreadMps: 0 }, { ...INPUT, loadKg, reps: 2 })),
    }));
    const fit = fitLine(points);
    if (!fit.ok) throw new Error(fit.reason);
    expect(fit.intercept).toBeCloseTo(1.4, 1);
    expect(-fit.intercept / fit.slope).toBeCloseTo(120, 0);
  });

  it("tires from rep to rep and from set to set, and rest wins it back", () => {
    const average = (patch: Partial<typeof INPUT>) =>
      mean(
        Array.from({ length: 80 }, (_, i) =>
          trueVelocities(LIFTER, { ...INPUT, ...patch, seed: i }),
        ).flat(),
      ) ?? 0;
    expect(average({ setsBefore: 8 })).toBeLessThan(average({}) - 0.02);
    expect(average({ setsBefore: 8, restS: 150 })).toBeCloseTo(average({}), 2);
    const long = Array.from({ length: 60 }, (_, i) =>
      trueVelocities(LIFTER, { ...INPUT, reps: 8, seed: i }),
    );
    expect(mean(long.map((set) => set[7] as number)) ?? 0).toBeLessThan(
      (mean(long.map((set) => set[1] as number)) ?? 0) - 0.05,
    );
  });

  it("begins the same way when it is told to do fewer reps", () => {
    const three = simulateSet(LIFTER, INPUT);
    const one = simulateSet(LIFTER, { ...INPUT, reps: 1 });
    const end = one.reps[0]?.endS ?? 0;
    for (let t = 0; t <= end; t += 0.05) {
      expect(one.movement.heightAt(t)).toBe(three.movement.heightAt(t));
    }
    expect(one.reps[0]?.mcvMps).toBe(three.reps[0]?.mcvMps);
  });

  it("does what it drew: each rep's true mean velocity is the hidden line's", () => {
    for (const [path, loadKg] of [
      ["from-top", 40],
      ["from-top", 90],
      ["from-floor", 70],
      ["jump", 30],
    ] as const) {
      const drawn = trueVelocities(LIFTER, { ...INPUT, loadKg });
      const set = simulateSet({ ...LIFTER, path }, { ...INPUT, loadKg });
      set.reps.forEach((rep, i) => {
        const wished = Math.min(drawn[i] as number, LIFTER.rangeM / 0.34);
        expect(Math.abs(rep.mcvMps - wished), `${path} ${loadKg}`).toBeLessThan(0.06 * wished);
      });
    }
  });

  const measured = (lifter: SimulatedLifter, input: typeof INPUT) => {
    const set = simulateSet(lifter, input);
    const samples = sampleMovement(set.movement, SENSOR_DEFAULTS, seededRandom(input.seed));
    const { reps } = analyseStream(
      { timesS: samples.map((one) => one.timeS), heightsM: samples.map((one) => one.heightM) },
      { start: lifter.path === "from-floor" ? "bottom" : "top" },
    );
    return { truth: set.reps, reps };
  };

  it.each([
    ["a press", {}],
    ["a box squat with stops and rocks", { pauseS: 0.6, rockShare: 0.5, rangeM: 0.5 }],
    ["a box squat that bounces", { pauseS: 0.6, bounceShare: 0.5, rangeM: 0.5 }],
    ["a pull from the floor", { path: "from-floor", rangeM: 0.55 }],
    ["a jump", { path: "jump", rangeM: 0.45 }],
    ["a drive that begins and ends gently", { onsetS: 0.15, lockS: 0.15 }],
  ] as Array<[string, Partial<SimulatedLifter>]>)("%s is measured to its truth", (_, patch) => {
    for (let seed = 1; seed <= 15; seed++) {
      const input = { ...INPUT, seed, loadKg: 30 + 4 * seed };
      const { truth, reps } = measured({ ...LIFTER, ...patch }, input);
      expect(reps.map((rep) => rep.outcome)).toEqual(truth.map((rep) => rep.outcome));
      reps.forEach((rep, i) => {
        const known = truth[i];
        if (!known) return;
        const bound = known.brakesHard ? 0.035 : 0.02;
        expect(Math.abs(rep.mcvMps - known.mcvMps)).toBeLessThan(bound);
        expect(rep.rocks.length).toBe(known.rocksM.length);
      });
    }
  });

  it("fails where it is told to be too weak, and the set is over", () => {
    const weak = { ...LIFTER, failsUnderMps: 0.3 };
    const { truth, reps } = measured(weak, { ...INPUT, loadKg: 100 });
    expect(truth.map((rep) => rep.outcome)).toEqual(["failed"]);
    expect(reps.map((rep) => rep.outcome)).toEqual(["failed"]);
  });

  it("slows under bands as under their mean pull", () => {
    const input = { ...INPUT, loadKg: 50 };
    expect(trueVelocities(LIFTER, { ...input, pullKg: 20 })).toEqual(
      trueVelocities(LIFTER, { ...input, loadKg: 70 }),
    );
  });
});

describe("sensor", () => {
  const movement = simulateSet(LIFTER, INPUT).movement;

  it("samples at its rate, with noise of its size, in order", () => {
    const settings = { rateHz: 200, noiseM: 0.001, jitter: 0.3 };
    const samples = sampleMovement(movement, settings, seededRandom(1));
    expect(samples.length).toBeCloseTo(movement.durationS * 200, -1);
    const errors = samples.map((one) => one.heightM - movement.heightAt(one.timeS));
    expect(Math.sqrt(mean(errors.map((e) => e * e)) ?? 0)).toBeCloseTo(0.001, 4);
    for (let i = 1; i < samples.length; i++) {
      expect(samples[i]?.timeS).toBeGreaterThanOrEqual(samples[i - 1]?.timeS ?? 0);
    }
  });

  it("leaves out its gaps", () => {
    const samples = sampleMovement(
      movement,
      { rateHz: 100, noiseM: 0, jitter: 0, gaps: [{ fromS: 1, toS: 2 }] },
      seededRandom(1),
    );
    expect(samples.some((one) => one.timeS >= 1 && one.timeS < 2)).toBe(false);
  });
});

/** A clock that the test turns. */
class HandClock implements Ticker {
  #now = 0;
  readonly #ticks = new Set<{ ms: number; next: number; tick: () => void }>();

  nowMs(): number {
    return this.#now;
  }

  every(ms: number, tick: () => void): () => void {
    const one = { ms, next: this.#now + ms, tick };
    this.#ticks.add(one);
    return () => this.#ticks.delete(one);
  }

  turn(seconds: number): void {
    const end = this.#now + seconds * 1000;
    while (this.#now < end) {
      this.#now += 10;
      for (const one of [...this.#ticks]) {
        if (one.next <= this.#now) {
          one.next += one.ms;
          one.tick();
        }
      }
    }
  }
}

describe("the sensor at the rack", () => {
  const source = { lifter: LIFTER, dayShiftMps: 0 };
  const ahead = { ...INPUT, reps: 5 };
  const run = (reps = ahead.reps) => {
    const clock = new HandClock();
    const sensor = new SimulatedSensor(source, clock);
    const events: SetEvent[] = [];
    measureSet(sensor, { ...ahead, reps }, {}, (event) => events.push(event));
    return { clock, sensor, events };
  };
  const reps = (events: SetEvent[]) => events.filter((event) => event.type === "rep");

  it("tells frames, then each rep as it is certain, then that the bar is racked", () => {
    const { clock, events } = run();
    clock.turn(4.5);
    expect(events[0]?.type).toBe("frames");
    const early = reps(events).length;
    expect(early).toBeGreaterThan(0);
    expect(early).toBeLessThan(5);
    clock.turn(20);
    expect(reps(events)).toHaveLength(5);
    expect(events.at(-1)?.type).toBe("racked");
    expect(events.filter((event) => event.type === "racked")).toHaveLength(1);
  });

  it("stops after the rep that is under way when it is told to", () => {
    const { clock, sensor, events } = run();
    while (reps(events).length < 2) clock.turn(0.1);
    sensor.stop();
    clock.turn(20);
    expect(reps(events).length).toBeGreaterThanOrEqual(2);
    expect(reps(events).length).toBeLessThanOrEqual(3);
    expect(events.at(-1)?.type).toBe("racked");
  });

  it("starts anew for the next set", () => {
    const { clock, sensor, events } = run();
    clock.turn(3);
    const again: SetEvent[] = [];
    measureSet(sensor, { ...ahead, reps: 1 }, {}, (event) => again.push(event));
    const before = events.length;
    clock.turn(20);
    expect(events.length).toBe(before);
    expect(reps(again)).toHaveLength(1);
  });
});
