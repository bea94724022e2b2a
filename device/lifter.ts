import { type Random, seededRandom } from "../core/numeric/random";
import { Movement, type MovePiece, type Piece } from "./movement";

/**
 * The simulated lifter: a hidden load–velocity line, fatigue from rep to rep and from set to
 * set, recovery with rest, a form of the day and chance. It stands in for a person so that the
 * whole way from bar to report can be run, shown and tested without one.
 */
export interface SimulatedLifter {
  /** Hidden line: velocity at no load, m/s, and load at no velocity, kg. */
  v0Mps: number;
  l0Kg: number;
  /** Share of velocity lost by each rep within a set. */
  repFade: number;
  /** Share lost by each set when rest is `fullRestS` · 0; full rest wins it all back. */
  setFade: number;
  fullRestS: number;
  /** Rep-to-rep spread, m/s (standard deviation). */
  spreadMps: number;
  rangeM: number;
  topM: number;
  loweringMps: number;
  pauseS: number;
  /** Third harmonic of the drive: over about 0.2 shows a sticking point. */
  sticking: number;
}

export interface SimulatedSetInput {
  loadKg: number;
  reps: number;
  /** Sets done before this one, and the usual rest between them, s. */
  setsBefore: number;
  restS: number;
  /** Form of the day, m/s. */
  dayShiftMps: number;
  seed: number;
}

export interface SimulatedSet {
  movement: Movement;
  /** The true mean velocity of each rep, m/s. */
  trueMcvMps: number[];
  /** When each rep reaches its top, s from the start. */
  endsS: number[];
}

/** True mean concentric velocities of a set, without the movement around them. */
export function trueVelocities(lifter: SimulatedLifter, input: SimulatedSetInput): number[] {
  return draw(lifter, input, seededRandom(input.seed)).velocities;
}

function draw(lifter: SimulatedLifter, input: SimulatedSetInput, random: Random) {
  const tired = lifter.setFade * input.setsBefore * Math.max(0, 1 - input.restS / lifter.fullRestS);
  const fresh = lifter.v0Mps * (1 - input.loadKg / lifter.l0Kg) + input.dayShiftMps;
  const velocities: number[] = [];
  for (let rep = 0; rep < input.reps; rep++) {
    // The first rep is often not the best: the second has the feel of the bar.
    const warm = rep === 0 ? -0.012 : 0;
    const mean = fresh * (1 - tired) * (1 - lifter.repFade * Math.max(0, rep - 1)) + warm;
    velocities.push(Math.max(0.08, mean + lifter.spreadMps * random.normal()));
  }
  return { velocities, fresh };
}

/**
 * The bar's movement for a set. The same seed with fewer reps gives the same beginning, so a set
 * that is told to stop keeps what has happened.
 */
export function simulateSet(lifter: SimulatedLifter, input: SimulatedSetInput): SimulatedSet {
  const { velocities } = draw(lifter, { ...input, reps: 40 }, seededRandom(input.seed));
  const pieces: Piece[] = [];
  const ends: number[] = [];
  let time = 0;
  const add = (piece: Piece) => {
    pieces.push(piece);
    time += piece.durationS;
  };
  const move = (riseM: number, durationS: number, skew = 0, sticking = 0) =>
    add({ kind: "move", riseM, durationS, skew, sticking } satisfies MovePiece);
  const still = (durationS: number) => add({ kind: "still", durationS });

  still(0.4);
  move(0.04, 0.5);
  move(-0.012, 0.3);
  move(0.012, 0.3);
  still(0.7);
  for (let rep = 0; rep < input.reps; rep++) {
    const wobble = 1 + 0.02 * Math.sin(input.seed + rep * 1.7);
    const rangeM = lifter.rangeM * wobble;
    const mcv = Math.min(velocities[rep] as number, rangeM / 0.33);
    move(-rangeM, rangeM / (lifter.loweringMps * wobble));
    if (lifter.pauseS > 0) still(lifter.pauseS);
    move(rangeM, rangeM / mcv, 0.08, mcv < 0.6 ? lifter.sticking : 0);
    ends.push(time);
    still(0.35);
  }
  still(0.5);
  move(-0.04, 0.5);
  still(0.6);
  return {
    movement: new Movement(lifter.topM, pieces),
    trueMcvMps: velocities.slice(0, input.reps).map((v) => Math.min(v, lifter.rangeM / 0.33)),
    endsS: ends,
  };
}
