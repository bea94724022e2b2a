import { seededRandom } from "../../core/numeric/random";
import { between, chance, drive, lower, rack, walkOut } from "./around";
import { ShapeBuilder } from "./builder";
import type { ShapeFamily } from "./families";

/**
 * Families that the method was not chosen over: written before it, run once at the end. They
 * differ from the others in kind, not in their numbers alone.
 */

/** Least jerk, with halves of unequal length: both ends as smooth as can be. */
const leastJerk: ShapeFamily = (seed) => {
  const random = seededRandom(seed + 110_000);
  const set = new ShapeBuilder();
  walkOut(set, random);
  const rangeM = between(random, 0.3, 0.65);
  const base = between(random, 0.25, 1.1);
  const count = 1 + Math.floor(between(random, 0, 5));
  const smooth = (riseM: number, durationS: number, early: number) => {
    // v = c·τ²(1 − τ)² in cubic pieces; the first half takes the share `early` of the time.
    const parts = 24;
    const speed = (t: number) => 30 * t * t * (1 - t) * (1 - t);
    const slope = (t: number) => 60 * t * (1 - t) * (1 - 2 * t);
    const rise = riseM / durationS;
    for (let i = 0; i < parts; i++) {
      const [a, b] = [i / parts, (i + 1) / parts];
      const stretch = 2 * (i < parts / 2 ? early : 1 - early);
      const seconds = (durationS / parts) * stretch;
      const perS = 1 / (durationS * stretch);
      set.add({
        kind: "curve",
        durationS: seconds,
        fromMps: rise * speed(a),
        toMps: rise * speed(b),
        fromMps2: rise * slope(a) * perS,
        toMps2: rise * slope(b) * perS,
      });
    }
  };
  for (let i = 0; i < count; i++) {
    const mean = Math.min(Math.max(0.18, base * (1 - 0.05 * i)), rangeM / 0.4);
    const leaveTopS = set.timeS;
    smooth(-rangeM, rangeM / between(random, 0.35, 0.8), 0.5);
    const arriveS = set.timeS;
    if (chance(random, 0.5)) set.still(between(random, 0.1, 0.8));
    const driveFromS = set.timeS;
    smooth(rangeM, rangeM / mean, between(random, 0.35, 0.65));
    const marks = { outcome: "counted", leaveTopS, arriveS, stayFromS: arriveS } as const;
    set.mark({ ...marks, driveFromS, topS: set.timeS });
    set.still(between(random, 0.1, 1));
  }
  rack(set, random);
  return set.build(between(random, 1.1, 1.5), "top");
};

/** The bar rides up to 2 cm over the lockout and settles, or rings about it. */
const bounces: ShapeFamily = (seed) => {
  const random = seededRandom(seed + 120_000);
  const set = new ShapeBuilder();
  walkOut(set, random);
  const rangeM = between(random, 0.3, 0.6);
  const base = between(random, 0.4, 1.2);
  const count = 1 + Math.floor(between(random, 0, 5));
  for (let i = 0; i < count; i++) {
    const down = lower(set, random, rangeM);
    if (chance(random, 0.5)) set.still(between(random, 0.1, 0.8));
    const up = drive(set, random, rangeM, base * (1 - 0.04 * i), {
      lockS: between(random, 0, 0.04),
    });
    set.mark({ outcome: "counted", ...down, stayFromS: down.arriveS, ...up });
    const ride = between(random, 0.004, 0.012);
    set.move(-ride, between(random, 0.12, 0.25));
    const over = chance(random, 0.5) ? between(random, 0, 0.015) : 0;
    set.move(ride + over, between(random, 0.15, 0.3));
    if (over > 0) set.move(-over, between(random, 0.2, 0.4));
    if (chance(random, 0.5)) {
      set.move(-ride / 2, 0.2);
      set.move(ride / 2, 0.2);
    }
    set.still(between(random, 0.2, 1));
  }
  rack(set, random);
  return set.build(between(random, 1.1, 1.5), "top");
};

/** A drop of 1 to 5 cm inside the drive, which goes on to the top. */
const fallBacks: ShapeFamily = (seed) => {
  const random = seededRandom(seed + 130_000);
  const set = new ShapeBuilder();
  walkOut(set, random);
  const rangeM = between(random, 0.35, 0.6);
  const base = between(random, 0.3, 0.7);
  const count = 1 + Math.floor(between(random, 0, 4));
  for (let i = 0; i < count; i++) {
    const down = lower(set, random, rangeM);
    if (chance(random, 0.4)) set.still(between(random, 0.1, 0.6));
    const driveFromS = set.timeS;
    const first = rangeM * between(random, 0.4, 0.65);
    const drop = between(random, 0.01, 0.05);
    const soft = { lockS: between(random, 0.02, 0.1), onsetS: between(random, 0, 0.12) };
    drive(set, random, first, base, soft);
    set.move(-drop, between(random, 0.15, 0.35));
    const up = drive(set, random, rangeM - first + drop, base * 0.8, soft);
    set.mark({
      outcome: "counted",
      ...down,
      stayFromS: down.arriveS,
      driveFromS,
      topS: up.topS,
    });
    set.still(between(random, 0.3, 1.2));
  }
  rack(set, random);
  return set.build(between(random, 1.1, 1.5), "top");
};

/** Thrown hard and caught: the bar brakes harder than gravity and stops in a moment. */
const hardStops: ShapeFamily = (seed) => {
  const random = seededRandom(seed + 140_000);
  const set = new ShapeBuilder();
  walkOut(set, random);
  const rangeM = between(random, 0.35, 0.7);
  const count = 1 + Math.floor(between(random, 0, 5));
  for (let i = 0; i < count; i++) {
    const down = lower(set, random, rangeM);
    if (chance(random, 0.5)) set.still(between(random, 0.1, 0.8));
    const up = drive(set, random, rangeM, between(random, 0.85, 1.6), {
      peakShare: between(random, 0.6, 0.85),
      lockS: between(random, 0, 0.05),
      onsetS: between(random, 0, 0.12),
    });
    set.mark({ outcome: "counted", ...down, stayFromS: down.arriveS, ...up });
    set.still(between(random, 0.25, 1.2));
  }
  rack(set, random);
  return set.build(between(random, 1.1, 1.5), "top");
};

/** Even acceleration, even speed, even braking, joined by short ramps. */
const trapezoids: ShapeFamily = (seed) => {
  const random = seededRandom(seed + 150_000);
  const set = new ShapeBuilder();
  walkOut(set, random);
  const rangeM = between(random, 0.3, 0.65);
  const base = between(random, 0.25, 1.1);
  const count = 1 + Math.floor(between(random, 0, 5));
  const trapezoid = (riseM: number, meanMps: number, upShare: number, downShare: number) => {
    const seconds = Math.abs(riseM) / meanMps;
    const [upS, downS] = [seconds * upShare, seconds * downShare];
    const evenS = seconds - upS - downS;
    const top = riseM / (upS / 2 + evenS + downS / 2);
    const line = (durationS: number, fromMps: number, toMps: number) => {
      const slope = (toMps - fromMps) / durationS;
      set.add({ kind: "curve", durationS, fromMps, toMps, fromMps2: slope, toMps2: slope });
    };
    line(upS, 0, top);
    line(evenS, top, top);
    line(downS, top, 0);
  };
  for (let i = 0; i < count; i++) {
    const mean = Math.min(Math.max(0.18, base * (1 - 0.04 * i)), rangeM / 0.36);
    const leaveTopS = set.timeS;
    trapezoid(-rangeM, between(random, 0.35, 0.8), 0.25, 0.25);
    const arriveS = set.timeS;
    if (chance(random, 0.6)) set.still(between(random, 0.1, 1));
    const driveFromS = set.timeS;
    trapezoid(rangeM, mean, between(random, 0.1, 0.5), between(random, 0.15, 0.45));
    const marks = { outcome: "counted", leaveTopS, arriveS, stayFromS: arriveS } as const;
    set.mark({ ...marks, driveFromS, topS: set.timeS });
    set.still(between(random, 0.2, 1));
  }
  rack(set, random);
  return set.build(between(random, 1.1, 1.5), "top");
};

/** Grinds with sticking points down to about 0.05 m/s. */
const grinds: ShapeFamily = (seed) => {
  const random = seededRandom(seed + 160_000);
  const set = new ShapeBuilder();
  walkOut(set, random);
  const rangeM = between(random, 0.35, 0.6);
  const count = 1 + Math.floor(between(random, 0, 3));
  for (let i = 0; i < count; i++) {
    const down = lower(set, random, rangeM);
    if (chance(random, 0.4)) set.still(between(random, 0.1, 0.8));
    const up = drive(set, random, rangeM, between(random, 0.14, 0.35), {
      stick: between(random, 0.12, 0.5),
    });
    set.mark({ outcome: "counted", ...down, stayFromS: down.arriveS, ...up });
    set.still(between(random, 0.4, 1.2));
  }
  rack(set, random);
  return set.build(between(random, 1.1, 1.5), "top");
};

export const HELD_OUT_FAMILIES: Record<string, ShapeFamily> = {
  "least jerk": leastJerk,
  bounces,
  "fall-backs": fallBacks,
  "hard stops": hardStops,
  trapezoids,
  grinds,
};
