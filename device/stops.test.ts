import { describe, expect, it } from "vitest";
import { judgeBoxReps, twoBounces } from "../core/boxsquat/stops";
import { seededRandom } from "../core/numeric/random";
import { analyseStream } from "../core/velocity/analyse";
import { Movement, type Piece } from "./movement";

const RATE_HZ = 50;
const NOISE_M = 0.001;
const SMALLEST_STOP_S = 0.4;

/** A set on the box whose stops are known, sampled at 50 Hz with 1 mm noise. */
function boxSet(stopsS: readonly number[], seed: number) {
  const random = seededRandom(seed);
  const pieces: Piece[] = [{ kind: "still", durationS: 1 }];
  for (const stopS of stopsS) {
    const rangeM = 0.5 + 0.1 * random.uniform();
    const down = 0.45 + 0.35 * random.uniform();
    const up = 0.55 + 0.45 * random.uniform();
    pieces.push({ kind: "move", riseM: -rangeM, durationS: rangeM / down, skew: 0, sticking: 0 });
    if (stopS > 0) pieces.push({ kind: "still", durationS: stopS });
    pieces.push({ kind: "move", riseM: rangeM, durationS: rangeM / up, skew: 0.1, sticking: 0.1 });
    pieces.push({ kind: "still", durationS: 0.6 + 0.4 * random.uniform() });
  }
  const movement = new Movement(1.4, pieces);
  const timesS: number[] = [];
  const heightsM: number[] = [];
  for (let i = 0; i / RATE_HZ <= movement.durationS; i++) {
    timesS.push(i / RATE_HZ);
    heightsM.push(movement.heightAt(i / RATE_HZ) + NOISE_M * random.normal());
  }
  return { timesS: Float64Array.from(timesS), heightsM: Float64Array.from(heightsM) };
}

/**
 * A stop's time counts what the bar does under 0.05 m/s, so a bounce without any stop still shows
 * about a tenth of a second. Bounces here last 0 to 0.15 s, stops 0.5 to 1.5 s.
 */
describe("stops and bounces at 50 Hz with 1 mm noise", () => {
  it("are told apart at least 98 times of 100", () => {
    let right = 0;
    let all = 0;
    let missed = 0;
    for (let seed = 0; seed < 60; seed++) {
      const random = seededRandom(700 + seed);
      const stops = Array.from({ length: 5 }, () =>
        random.uniform() < 0.5 ? 0.15 * random.uniform() : 0.5 + random.uniform(),
      );
      const { reps } = analyseStream(boxSet(stops, seed));
      if (reps.length !== stops.length) missed++;
      const judged = judgeBoxReps(reps, { smallestStopS: SMALLEST_STOP_S, seatM: undefined });
      stops.forEach((stopS, i) => {
        all++;
        const found = judged[i]?.stop;
        if (found === (stopS < SMALLEST_STOP_S ? "bounce" : "stopped")) right++;
      });
    }
    expect(all).toBe(300);
    expect(missed).toBe(0);
    expect(right / all).toBeGreaterThanOrEqual(0.98);
  });

  it("flags nothing where the slot sets no smallest stop, and knows the box by the seat", () => {
    const { reps } = analyseStream(boxSet([0.8, 0.8, 0], 3));
    const judged = judgeBoxReps(reps, { smallestStopS: undefined, seatM: 0.85 });
    expect(judged.map((one) => one.stop)).toEqual([undefined, undefined, undefined]);
    expect(judged.every((one) => one.reached !== undefined)).toBe(true);
    const high = judgeBoxReps(reps, { smallestStopS: 0.4, seatM: 0.6 });
    expect(high.every((one) => one.reached === false)).toBe(true);
  });

  it("sees two bounces in a row, and not two apart", () => {
    expect(twoBounces([{ stop: "bounce" }, { stop: "stopped" }, { stop: "bounce" }])).toBe(false);
    expect(twoBounces([{ stop: "stopped" }, { stop: "bounce" }, { stop: "bounce" }])).toBe(true);
  });
});
