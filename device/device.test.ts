import { describe, expect, it } from "vitest";
import { seededRandom } from "../core/numeric/random";
import { fitLine } from "../core/numeric/regression";
import { mean } from "../core/numeric/statistics";
import { analyseStream } from "../core/velocity/analyse";
import { type SimulatedLifter, simulateSet, trueVelocities } from "./lifter";
import { doneShare, Movement, type MovePiece, pieceAcceleration, pieceVelocity } from "./movement";
import type { SensorEvent, SensorSetRequest } from "./protocol";
import { referenceSet, truePause, truthOf } from "./reference-sets";
import { sampleMovement } from "./sensor";
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

  it("knows its own truth", () => {
    const plain: MovePiece = { kind: "move", riseM: 0.4, durationS: 0.5, skew: 0, sticking: 0 };
    const truth = truthOf(plain);
    expect(truth.mcvMps).toBeCloseTo(0.8, 9);
    expect(truth.pvMps).toBeCloseTo((0.8 * Math.PI) / 2, 6);
    expect(truth.brakesHard).toBe(false);
    expect(truthOf({ ...plain, durationS: 0.28 }).brakesHard).toBe(true);
    expect(truePause({ ...plain, riseM: -0.4 }, 0.5, plain)).toBeGreaterThan(0.5);
  });
});

describe("reference sets", () => {
  it("are the same for the same seed, and cover pauses, holds, sticking and hard braking", () => {
    expect(referenceSet(3).reps).toEqual(referenceSet(3).reps);
    const all = Array.from({ length: 200 }, (_, i) => referenceSet(i + 1));
    const reps = all.flatMap((set) => set.reps);
    expect(reps.filter((rep) => rep.pauseS > 0.3).length).toBeGreaterThan(100);
    expect(reps.filter((rep) => rep.brakesHard).length).toBeGreaterThan(30);
    expect(reps.filter((rep) => rep.mcvMps < 0.4).length).toBeGreaterThan(50);
    const sticking = all.filter((set) =>
      set.movement.pieces.some((piece) => piece.kind === "move" && piece.sticking > 0.15),
    );
    expect(sticking.length).toBeGreaterThan(20);
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
    const end = one.endsS[0] ?? 0;
    for (let t = 0; t <= end; t += 0.05) {
      expect(one.movement.heightAt(t)).toBe(three.movement.heightAt(t));
    }
    expect(one.trueMcvMps[0]).toBe(three.trueMcvMps[0]);
  });

  it("is measured by the core to its truth", () => {
    for (let seed = 1; seed <= 30; seed++) {
      const set = simulateSet(LIFTER, { ...INPUT, seed, loadKg: 30 + 2 * seed });
      const samples = sampleMovement(
        set.movement,
        { rateHz: 100, noiseM: 0.0003, jitter: 0.05 },
        seededRandom(seed),
      );
      const { reps } = analyseStream({
        timesS: samples.map((one) => one.timeS),
        heightsM: samples.map((one) => one.heightM),
      });
      expect(reps).toHaveLength(3);
      reps.forEach((rep, i) => {
        expect(Math.abs(rep.mcvMps - (set.trueMcvMps[i] ?? 0))).toBeLessThan(0.02);
      });
    }
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
  const request: SensorSetRequest = {
    lifter: LIFTER,
    set: { ...INPUT, reps: 5 },
    settings: {},
    rateHz: 100,
    noiseM: 0.0003,
  };
  const run = async () => {
    const clock = new HandClock();
    const sensor = new SimulatedSensor(clock);
    const events: SensorEvent[] = [];
    await sensor.start(request, (event) => events.push(event));
    return { clock, sensor, events };
  };
  const reps = (events: SensorEvent[]) => events.filter((event) => event.type === "rep");

  it("tells samples, then each rep as it is certain, then that the bar is racked", async () => {
    const { clock, events } = await run();
    clock.turn(4);
    expect(events[0]?.type).toBe("samples");
    const early = reps(events).length;
    expect(early).toBeGreaterThan(0);
    expect(early).toBeLessThan(5);
    clock.turn(20);
    expect(reps(events)).toHaveLength(5);
    expect(events.at(-1)?.type).toBe("racked");
    expect(events.filter((event) => event.type === "racked")).toHaveLength(1);
  });

  it("stops after the rep that is under way when it is told to", async () => {
    const { clock, sensor, events } = await run();
    while (reps(events).length < 2) clock.turn(0.1);
    await sensor.stop();
    clock.turn(20);
    expect(reps(events).length).toBeGreaterThanOrEqual(2);
    expect(reps(events).length).toBeLessThanOrEqual(3);
    expect(events.at(-1)?.type).toBe("racked");
  });

  it("starts anew for the next set", async () => {
    const { clock, sensor, events } = await run();
    clock.turn(3);
    const again: SensorEvent[] = [];
    await sensor.start({ ...request, set: { ...request.set, reps: 1 } }, (event) =>
      again.push(event),
    );
    const before = events.length;
    clock.turn(20);
    expect(events.length).toBe(before);
    expect(reps(again)).toHaveLength(1);
  });
});
