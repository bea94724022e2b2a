import { GRAVITY } from "../../core/units/velocity";
import { CONTACT_ABOVE_M } from "../../core/velocity/stream";
import type { Movement } from "../movement";

/**
 * What a perfect reading of a movement says, straight from its closed form: the definitions of
 * docs/decisions/velocity.md, with the moments known that a detector has to find.
 */
export interface RepMarks {
  outcome: "counted" | "failed";
  /** The top before the lowering ends; undefined where the lift starts low. */
  leaveTopS?: number;
  /** The bar first arrives at the bottom. */
  arriveS?: number;
  /** Its last stay at the bottom ends at the latest here, and lies after `stayFromS`. */
  stayFromS: number;
  driveFromS: number;
  /** The drive's top. */
  topS: number;
  /** Rises on the seat before the drive, m. */
  rocksM?: number[];
}

export interface TrueRep {
  outcome: "counted" | "failed";
  mcvMps: number;
  mpvMps: number;
  pvMps: number;
  /** Turn to turn. */
  rangeM: number;
  eccentricS: number | undefined;
  pauseS: number | undefined;
  /** Speed down where contact is read, before the first arrival. */
  contactMps: number | undefined;
  /** Means over the propulsive phase for each kilogram moved, N and W. */
  forceNPerKg: number;
  powerWPerKg: number;
  /** The drive brakes harder than gravity before its end. */
  brakesHard: boolean;
  rocksM: number[];
  startS: number;
  endS: number;
}

const EDGE_MPS = 0.05;
const FINE_S = 0.0005;

/** Moment at which a rising f passes zero between two moments, by halving. */
function root(f: (s: number) => number, low: number, high: number): number {
  let a = low;
  let b = high;
  const up = f(b) >= f(a);
  for (let i = 0; i < 40; i++) {
    const middle = (a + b) / 2;
    if (f(middle) >= 0 === up) b = middle;
    else a = middle;
  }
  return (a + b) / 2;
}

/** First moment of `wanted` going from one moment to another in fine steps, either way. */
function scan(fromS: number, toS: number, wanted: (s: number) => boolean): number | undefined {
  const step = fromS <= toS ? FINE_S : -FINE_S;
  const steps = Math.floor(Math.abs(toS - fromS) / FINE_S);
  for (let i = 0; i <= steps; i++) if (wanted(fromS + i * step)) return fromS + i * step;
  return undefined;
}

export function zoneOf(rangeM: number): number {
  return Math.min(0.05, Math.max(0.02, 0.1 * rangeM));
}

/** Passages of 0.05 m/s of a drive that begins at its bottom and ends at its top. */
function passages(movement: Movement, stayFromS: number, driveFromS: number, topS: number) {
  const v = (s: number) => movement.velocityAt(s);
  const h = (s: number) => movement.heightAt(s);
  const bottomM = h(driveFromS);
  const topM = h(topS);
  const zone = zoneOf(topM - bottomM);
  const leave = scan(topS, driveFromS, (s) => h(s) < bottomM + zone) ?? driveFromS;
  const enter = scan(driveFromS, topS, (s) => h(s) > topM - zone) ?? topS;
  const slow = (s: number) => v(s) < EDGE_MPS;
  const fast = (s: number) => v(s) >= EDGE_MPS;
  // The last rise through 0.05 before the bottom zone is left, else the first after.
  const lastFast = scan(leave, stayFromS, fast);
  const before = lastFast === undefined ? undefined : scan(lastFast, stayFromS, slow);
  const startNear = before ?? scan(leave, topS, fast) ?? driveFromS;
  const startS =
    before === undefined
      ? root((s) => v(s) - EDGE_MPS, startNear - FINE_S, startNear)
      : root((s) => v(s) - EDGE_MPS, before, before + FINE_S);
  // The first fall through 0.05 after the top zone is entered, else the last before.
  const firstFast = scan(enter, topS, fast);
  const after = firstFast === undefined ? undefined : scan(firstFast, topS, slow);
  const endNear = after ?? scan(enter, startS, fast) ?? topS;
  const endS =
    after === undefined
      ? root((s) => EDGE_MPS - v(s), endNear, endNear + FINE_S)
      : root((s) => EDGE_MPS - v(s), after - FINE_S, after);
  return { startS, endS };
}

export function truthOf(movement: Movement, marks: RepMarks): TrueRep {
  const v = (s: number) => movement.velocityAt(s);
  const h = (s: number) => movement.heightAt(s);
  const { startS, endS } = passages(movement, marks.stayFromS, marks.driveFromS, marks.topS);
  const steps = Math.max(1, Math.ceil((endS - startS) / FINE_S));
  const at = (i: number) => startS + ((endS - startS) * i) / steps;
  let peak = 0;
  for (let i = 0; i <= steps; i++) if (v(at(i)) > v(at(peak))) peak = i;
  let propulsive = steps;
  for (let i = peak; i < steps; i++) {
    if (movement.accelerationAt(at(i) + 1e-9) < -GRAVITY) {
      propulsive = i;
      break;
    }
  }
  const propulsiveS = at(propulsive) - startS;
  const riseM = h(at(propulsive)) - h(startS);
  const endMps = v(at(propulsive));
  return {
    outcome: marks.outcome,
    mcvMps: (h(endS) - h(startS)) / (endS - startS),
    mpvMps: riseM / propulsiveS,
    pvMps: v(at(peak)),
    rangeM: h(marks.topS) - h(marks.driveFromS),
    eccentricS: eccentric(movement, marks),
    pauseS: pause(movement, marks, at(peak)),
    contactMps: contact(movement, marks),
    forceNPerKg: GRAVITY + (endMps - EDGE_MPS) / propulsiveS,
    powerWPerKg: (GRAVITY * riseM + (endMps ** 2 - EDGE_MPS ** 2) / 2) / propulsiveS,
    brakesHard: propulsive < steps,
    rocksM: marks.rocksM ?? [],
    startS,
    endS,
  };
}

/** From leaving the top to the first arrival, both at 0.05 m/s downwards. */
function eccentric(movement: Movement, marks: RepMarks): number | undefined {
  const { leaveTopS, arriveS } = marks;
  if (leaveTopS === undefined || arriveS === undefined) return undefined;
  const down = (s: number) => movement.velocityAt(s) <= -EDGE_MPS;
  const from = scan(leaveTopS, arriveS, down);
  const to = scan(arriveS, leaveTopS, down);
  return from === undefined || to === undefined ? undefined : to - from;
}

/** Time with |v| under 0.05 m/s between the fastest lowering and the fastest drive. */
function pause(movement: Movement, marks: RepMarks, peakS: number): number | undefined {
  const { leaveTopS, arriveS } = marks;
  if (leaveTopS === undefined || arriveS === undefined) return undefined;
  let fastest = leaveTopS;
  for (let s = leaveTopS; s <= arriveS; s += FINE_S) {
    if (movement.velocityAt(s) < movement.velocityAt(fastest)) fastest = s;
  }
  let under = 0;
  for (let s = fastest; s < peakS; s += FINE_S) {
    if (Math.abs(movement.velocityAt(s)) < EDGE_MPS) under += FINE_S;
  }
  return under;
}

function contact(movement: Movement, marks: RepMarks): number | undefined {
  const { leaveTopS, arriveS } = marks;
  if (leaveTopS === undefined || arriveS === undefined) return undefined;
  const level = movement.heightAt(arriveS) + CONTACT_ABOVE_M;
  const at = scan(leaveTopS, arriveS, (s) => movement.heightAt(s) <= level);
  return at === undefined ? undefined : -movement.velocityAt(at);
}
