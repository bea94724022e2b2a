import type { Random } from "../../core/numeric/random";
import type { LegShape, ShapeBuilder } from "./builder";

/** What surrounds every set, and draws that several families share. */

export const between = (random: Random, low: number, high: number) =>
  low + (high - low) * random.uniform();

export const chance = (random: Random, share: number) => random.uniform() < share;

/** Unrack and walk out: a lift off the hooks and a few small bobs. */
export function walkOut(set: ShapeBuilder, random: Random): void {
  set.still(between(random, 0.5, 1.5));
  set.move(between(random, 0.03, 0.07), between(random, 0.4, 0.8));
  const steps = 2 + Math.floor(between(random, 0, 2));
  for (let i = 0; i < steps; i++) {
    const bob = between(random, 0.01, 0.03);
    set.move(-bob, between(random, 0.25, 0.5));
    set.move(bob, between(random, 0.25, 0.5));
    set.still(between(random, 0, 0.3));
  }
  set.still(between(random, 0.6, 1.5));
}

/** Stand, walk in and rack. */
export function rack(set: ShapeBuilder, random: Random): void {
  set.still(between(random, 0.5, 1.2));
  set.move(-0.015, 0.35);
  set.move(between(random, 0.02, 0.04), 0.4);
  set.move(-between(random, 0.04, 0.06), 0.4);
  set.still(0.8);
}

/** A lowering over a range; gives the moments it leaves the top and arrives. */
export function lower(
  set: ShapeBuilder,
  random: Random,
  rangeM: number,
  shape: Partial<LegShape> = {},
): { leaveTopS: number; arriveS: number } {
  const leaveTopS = set.timeS;
  set.leg(
    {
      rangeM,
      durationS: rangeM / between(random, 0.35, 0.9),
      onsetS: between(random, 0, 0.15),
      lockS: between(random, 0, 0.12),
      peakShare: between(random, 0.35, 0.7),
      ...shape,
    },
    -1,
  );
  return { leaveTopS, arriveS: set.timeS };
}

/** A drive; gives the moments that the truth is taken at. */
export function drive(
  set: ShapeBuilder,
  random: Random,
  rangeM: number,
  meanMps: number,
  shape: Partial<LegShape> = {},
): { driveFromS: number; topS: number } {
  const driveFromS = set.timeS;
  // No rep takes under a third of a second: a bar that quick has been thrown.
  const mean = Math.min(meanMps, rangeM / 0.33);
  set.leg({
    rangeM,
    durationS: rangeM / mean,
    onsetS: between(random, 0, 0.15),
    lockS: between(random, 0, 0.15),
    peakShare: between(random, 0.3, 0.75),
    ...shape,
  });
  return { driveFromS, topS: set.timeS };
}
