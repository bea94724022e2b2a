import { type Random, seededRandom } from "../core/numeric/random";
import { GRAVITY } from "../core/units/velocity";
import { CONTACT_ABOVE_M } from "../core/velocity/stream";
import { Movement, type MovePiece, type Piece, pieceAcceleration, pieceVelocity } from "./movement";

/**
 * Sets of known truth, for measuring the accuracy of the velocity core: sticking points, holds
 * at lockout, pauses, touch and go, walkout and re-rack.
 */
export interface TrueRep {
  mcvMps: number;
  mpvMps: number;
  pvMps: number;
  pauseS: number;
  /** Speed down at the height at which contact is read. */
  contactMps: number;
  rangeM: number;
  /** Means over the propulsive phase for each kilogram moved, N and W. */
  forceNPerKg: number;
  powerWPerKg: number;
  /** The rep brakes harder than gravity before its top. */
  brakesHard: boolean;
}

export interface ReferenceSet {
  movement: Movement;
  reps: TrueRep[];
}

const FINE = 4000;

/** The truth of one concentric piece, by fine steps over its closed form. */
export function truthOf(piece: MovePiece): Omit<TrueRep, "pauseS" | "contactMps"> {
  let pv = 0;
  let peakAt = 0;
  for (let i = 0; i <= FINE; i++) {
    const v = pieceVelocity(piece, i / FINE);
    if (v > pv) {
      pv = v;
      peakAt = i;
    }
  }
  let propulsionEnd = FINE;
  for (let i = peakAt; i <= FINE; i++) {
    if (pieceAcceleration(piece, i / FINE) < -GRAVITY) {
      propulsionEnd = i;
      break;
    }
  }
  let rise = 0;
  let force = 0;
  let power = 0;
  for (let i = 0; i < propulsionEnd; i++) {
    const v = pieceVelocity(piece, (i + 0.5) / FINE);
    const push = pieceAcceleration(piece, (i + 0.5) / FINE) + GRAVITY;
    rise += (v * piece.durationS) / FINE;
    force += push / propulsionEnd;
    power += (push * v) / propulsionEnd;
  }
  return {
    mcvMps: piece.riseM / piece.durationS,
    mpvMps: propulsionEnd === 0 ? 0 : rise / ((propulsionEnd / FINE) * piece.durationS),
    pvMps: pv,
    rangeM: piece.riseM,
    forceNPerKg: force,
    powerWPerKg: power,
    brakesHard: propulsionEnd < FINE,
  };
}

/** Time with |v| < 0.05 between the fastest lowering and the fastest drive. */
export function truePause(lowering: MovePiece, stillS: number, drive: MovePiece): number {
  let under = stillS;
  const peakOf = (piece: MovePiece) => {
    let best = 0;
    for (let i = 0; i <= FINE; i++) {
      if (Math.abs(pieceVelocity(piece, i / FINE)) > Math.abs(pieceVelocity(piece, best / FINE))) {
        best = i;
      }
    }
    return best;
  };
  for (let i = peakOf(lowering); i < FINE; i++) {
    if (Math.abs(pieceVelocity(lowering, i / FINE)) < 0.05) under += lowering.durationS / FINE;
  }
  const drivePeak = peakOf(drive);
  for (let i = 0; i < drivePeak; i++) {
    if (Math.abs(pieceVelocity(drive, i / FINE)) < 0.05) under += drive.durationS / FINE;
  }
  return under;
}

const between = (random: Random, low: number, high: number) =>
  low + (high - low) * random.uniform();

/** Speed of a lowering where it passes the height of contact over its end. */
function trueContact(lowering: MovePiece): number {
  let leftM = -lowering.riseM;
  for (let i = 0; i < FINE; i++) {
    const v = -pieceVelocity(lowering, (i + 0.5) / FINE);
    leftM -= (v * lowering.durationS) / FINE;
    if (leftM <= CONTACT_ABOVE_M) return v;
  }
  return 0;
}

/** A set with everything that surrounds it, from a seed. */
export function referenceSet(seed: number): ReferenceSet {
  const random = seededRandom(seed);
  const pieces: Piece[] = [];
  const reps: TrueRep[] = [];
  const move = (riseM: number, durationS: number, skew = 0, sticking = 0): MovePiece => {
    const piece: MovePiece = { kind: "move", riseM, durationS, skew, sticking };
    pieces.push(piece);
    return piece;
  };
  const still = (durationS: number) => pieces.push({ kind: "still", durationS });

  // Unrack and walk out: a lift off the hooks and a few small bobs.
  still(between(random, 0.5, 1.5));
  move(between(random, 0.03, 0.07), between(random, 0.4, 0.8));
  const steps = 2 + Math.floor(between(random, 0, 2));
  for (let i = 0; i < steps; i++) {
    const bob = between(random, 0.01, 0.03);
    move(-bob, between(random, 0.25, 0.5));
    move(bob, between(random, 0.25, 0.5));
    still(between(random, 0, 0.3));
  }
  still(between(random, 0.6, 1.5));

  const range = between(random, 0.3, 0.65);
  const count = 1 + Math.floor(between(random, 0, 6));
  const base = between(random, 0.25, 1.35);
  const sticks = random.uniform() < 0.35;
  const pauses = random.uniform() < 0.4;
  const holds = random.uniform() < 0.6;
  for (let i = 0; i < count; i++) {
    const rise = range * between(random, 0.97, 1.03);
    // No rep takes under a third of a second: a bar that quick has been thrown.
    const wished = Math.max(0.18, base * (1 - 0.04 * i) * between(random, 0.95, 1.05));
    const mcv = Math.min(wished, rise / 0.33);
    const lowering = move(-rise, rise / between(random, 0.4, 0.9), between(random, -0.2, 0.2));
    const pause = pauses ? between(random, 0.15, 2) : 0;
    if (pause > 0) still(pause);
    const sticking = sticks && mcv < 0.8 ? between(random, 0.2, 0.45) : between(random, -0.1, 0.1);
    const drive = move(rise, rise / mcv, between(random, -0.25, 0.25), sticking);
    reps.push({
      ...truthOf(drive),
      pauseS: truePause(lowering, pause, drive),
      contactMps: trueContact(lowering),
    });
    if (holds) still(between(random, 0.2, 1.5));
  }

  // Stand, walk in and rack.
  still(between(random, 0.5, 1.2));
  move(-0.015, 0.35);
  move(between(random, 0.02, 0.04), 0.4);
  move(-between(random, 0.04, 0.06), 0.4);
  still(0.8);
  return { movement: new Movement(between(random, 1.1, 1.5), pieces), reps };
}
