import { type Random, seededRandom } from "../../core/numeric/random";
import { between, chance, drive, lower, rack, walkOut } from "./around";
import { ShapeBuilder, type ShapeSet } from "./builder";

/**
 * Families of bar paths with their exact truth, drawn from a seed. The method of
 * `core/velocity` was chosen over these; device/shapes/held-out.ts was only run at its end.
 */
export type ShapeFamily = (seed: number) => ShapeSet;

const repsOf = (random: Random) => 1 + Math.floor(between(random, 0, 6));
const fading = (random: Random, baseMps: number, rep: number) =>
  Math.max(0.18, baseMps * (1 - 0.04 * rep) * between(random, 0.95, 1.05));

/** Drives and lowerings of half and third waves, with pauses, holds and sticking points. */
const harmonic: ShapeFamily = (seed) => {
  const random = seededRandom(seed);
  const set = new ShapeBuilder();
  walkOut(set, random);
  const range = between(random, 0.3, 0.65);
  const base = between(random, 0.25, 1.35);
  const count = repsOf(random);
  const sticks = chance(random, 0.35);
  const pauses = chance(random, 0.4);
  const holds = chance(random, 0.6);
  for (let i = 0; i < count; i++) {
    const rangeM = range * between(random, 0.97, 1.03);
    const mean = Math.min(fading(random, base, i), rangeM / 0.33);
    const wave = (riseM: number, durationS: number, skew: number, sticking: number) =>
      set.add({ kind: "move", riseM, durationS, skew, sticking });
    const leaveTopS = set.timeS;
    wave(-rangeM, rangeM / between(random, 0.4, 0.9), between(random, -0.2, 0.2), 0);
    const arriveS = set.timeS;
    if (pauses) set.still(between(random, 0.15, 2));
    const driveFromS = set.timeS;
    const sticking = sticks && mean < 0.8 ? between(random, 0.2, 0.45) : between(random, -0.1, 0.1);
    wave(rangeM, rangeM / mean, between(random, -0.25, 0.25), sticking);
    const marks = { outcome: "counted", leaveTopS, arriveS, stayFromS: arriveS } as const;
    set.mark({ ...marks, driveFromS, topS: set.timeS });
    if (holds) set.still(between(random, 0.2, 1.5));
  }
  rack(set, random);
  return set.build(between(random, 1.1, 1.5), "top");
};

/** Onset ramps of 0–150 ms, soft and hard lockouts, the peak anywhere. */
const ramps: ShapeFamily = (seed) => {
  const random = seededRandom(seed + 10_000);
  const set = new ShapeBuilder();
  walkOut(set, random);
  const range = between(random, 0.3, 0.65);
  const base = between(random, 0.25, 1.2);
  const count = repsOf(random);
  for (let i = 0; i < count; i++) {
    const rangeM = range * between(random, 0.97, 1.03);
    const down = lower(set, random, rangeM);
    if (chance(random, 0.6)) set.still(between(random, 0.05, 1));
    const up = drive(set, random, rangeM, fading(random, base, i));
    set.mark({ outcome: "counted", ...down, stayFromS: down.arriveS, ...up });
    set.still(between(random, 0.15, 1.2));
  }
  rack(set, random);
  return set.build(between(random, 1.1, 1.5), "top");
};

/** Stops on a box: still, with drift, and with rocks of 1.5 cm to three tenths of the way. */
const boxes: ShapeFamily = (seed) => {
  const random = seededRandom(seed + 20_000);
  const set = new ShapeBuilder();
  walkOut(set, random);
  const range = between(random, 0.35, 0.6);
  const base = between(random, 0.4, 1.1);
  const count = repsOf(random);
  const drifts = chance(random, 0.5);
  for (let i = 0; i < count; i++) {
    const rangeM = range * between(random, 0.97, 1.03);
    const down = lower(set, random, rangeM);
    let left = 0;
    const stay = () => {
      const seconds = between(random, 0.25, 0.9);
      const driftM = drifts ? between(random, -0.02, 0.02) * seconds : 0;
      if (driftM === 0) set.still(seconds);
      else set.drift(driftM, seconds);
      left += driftM;
    };
    stay();
    let stayFromS = down.arriveS;
    const rocksM: number[] = [];
    if (chance(random, 0.4)) {
      const rise = chance(random, 0.5)
        ? between(random, 0.02, 0.05)
        : between(random, 0.05, 0.29 * rangeM);
      const upS = rise / between(random, 0.12, 0.4);
      set.move(rise, upS);
      set.move(-rise, upS * between(random, 0.7, 1.3));
      rocksM.push(rise);
      stayFromS = set.timeS;
      stay();
    }
    const up = drive(set, random, rangeM - left, fading(random, base, i));
    set.mark({ outcome: "counted", ...down, stayFromS, ...up, rocksM });
    set.still(between(random, 0.3, 1.2));
  }
  rack(set, random);
  return set.build(between(random, 1.1, 1.5), "top");
};

/** The last rep fails: it falls back, or hangs and is lifted away by spotters. */
const failures: ShapeFamily = (seed) => {
  const random = seededRandom(seed + 30_000);
  const set = new ShapeBuilder();
  walkOut(set, random);
  const rangeM = between(random, 0.3, 0.6);
  const base = between(random, 0.2, 0.6);
  const count = 1 + Math.floor(between(random, 0, 4));
  for (let i = 0; i < count; i++) {
    const down = lower(set, random, rangeM);
    if (chance(random, 0.3)) set.still(between(random, 0.1, 0.6));
    const up = drive(set, random, rangeM, fading(random, base, i));
    set.mark({ outcome: "counted", ...down, stayFromS: down.arriveS, ...up });
    set.still(between(random, 0.3, 1));
  }
  const down = lower(set, random, rangeM);
  const part = rangeM * between(random, 0.38, 0.7);
  const up = drive(set, random, part, between(random, 0.15, 0.4));
  set.mark({ outcome: "failed", ...down, stayFromS: down.arriveS, ...up });
  const back = chance(random, 0.6) ? part : Math.max(0.14, part * 0.7);
  set.move(-back, back / between(random, 0.4, 0.9));
  if (chance(random, 0.5)) set.still(between(random, 0.5, 2));
  if (chance(random, 0.6)) {
    // Lifted to the hooks: no rep.
    const left = rangeM - part + back;
    set.move(left * 0.6, (left * 0.6) / 0.25);
    set.still(0.2);
    set.move(left * 0.4, (left * 0.4) / 0.25);
    rack(set, random);
  } else {
    set.still(2);
  }
  return set.build(between(random, 1.1, 1.5), "top");
};

/** Touch and go: the bar turns at once, round or sharply, and again at the top. */
const touches: ShapeFamily = (seed) => {
  const random = seededRandom(seed + 40_000);
  const set = new ShapeBuilder();
  walkOut(set, random);
  const range = between(random, 0.3, 0.6);
  const base = between(random, 0.3, 1.3);
  const count = repsOf(random);
  const sharp = chance(random, 0.5);
  const holds = chance(random, 0.5);
  for (let i = 0; i < count; i++) {
    const rangeM = range * between(random, 0.98, 1.02);
    const corner = () => (sharp ? between(random, 0, 0.02) : between(random, 0.05, 0.12));
    const down = lower(set, random, rangeM, { lockS: corner() });
    const up = drive(set, random, rangeM, fading(random, base, i), { onsetS: corner() });
    set.mark({ outcome: "counted", ...down, stayFromS: down.arriveS, ...up });
    if (holds) set.still(between(random, 0.1, 0.6));
  }
  set.still(0.5);
  rack(set, random);
  return set.build(between(random, 1.1, 1.5), "top");
};

/** Pulls from the floor: from a dead stop or off a bounce of the plates. */
const pulls: ShapeFamily = (seed) => {
  const random = seededRandom(seed + 50_000);
  const set = new ShapeBuilder();
  set.still(between(random, 0.8, 2));
  const rangeM = between(random, 0.4, 0.75);
  const base = between(random, 0.2, 1.1);
  const count = repsOf(random);
  let stayFromS = 0;
  let leaveTopS: number | undefined;
  let arriveS: number | undefined;
  for (let i = 0; i < count; i++) {
    const up = drive(set, random, rangeM, fading(random, base, i));
    set.mark({
      outcome: "counted",
      stayFromS,
      ...up,
      ...(leaveTopS === undefined || arriveS === undefined ? {} : { leaveTopS, arriveS }),
    });
    set.still(between(random, 0.2, 0.8));
    const down = lower(set, random, rangeM, { lockS: between(random, 0, 0.03) });
    ({ leaveTopS, arriveS } = down);
    stayFromS = set.timeS;
    if (chance(random, 0.5)) {
      const hop = between(random, 0.004, 0.014);
      set.move(hop, 0.06);
      set.move(-hop, 0.06);
      stayFromS = set.timeS;
    }
    set.still(between(random, 0.1, 1.2));
  }
  set.still(1);
  return set.build(0.22, "bottom");
};

export const SHAPE_FAMILIES: Record<string, ShapeFamily> = {
  harmonic,
  ramps,
  boxes,
  failures,
  touches,
  pulls,
};
