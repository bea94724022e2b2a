import { type Random, seededRandom } from "../core/numeric/random";
import type { Movement } from "./movement";
import { ShapeBuilder } from "./shapes/builder";
import type { RepMarks, TrueRep } from "./shapes/truth";

/**
 * The simulated lifter: a hidden load–velocity line, fatigue from rep to rep and from set to
 * set, recovery with rest, a form of the day, faults and chance. It stands in for a person so that
 * the whole way from bar to report can be run, shown and tested without one.
 */
export interface SimulatedLifter {
  /** Hidden line: mean concentric velocity at no load, m/s, and load at no velocity, kg. */
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
  /** How deep the drive of a slow rep dips in the middle, 0–0.6: over 0.2 a sticking point. */
  sticking: number;
  /** Squats, presses and pulls on a rack begin high where undefined; pulls low; jumps leave. */
  path?: "from-top" | "from-floor" | "jump";
  /** How the drive begins and locks out, s: 0 at once, 0.15 gently. */
  onsetS?: number;
  lockS?: number;
  /** Share of the reps that rock on the seat before the drive, and how far, m. */
  rockShare?: number;
  rockM?: number;
  /** Share of the reps that bounce off the seat: no stop. */
  bounceShare?: number;
  /** Slower than this a rep fails half way and ends the set, m/s; never where undefined. */
  failsUnderMps?: number;
}

export interface SimulatedSetInput {
  loadKg: number;
  reps: number;
  /** Sets done before this one, and the usual rest between them, s. */
  setsBefore: number;
  restS: number;
  /** Form of the day, m/s. */
  dayShiftMps: number;
  /** Mean pull of bands and chains over the range, kg: slows like load, most of it at the top. */
  pullKg?: number;
  seed: number;
}

export interface SimulatedSet {
  movement: Movement;
  reps: TrueRep[];
  /** When each rep leaves its top or its floor, s from the start of the movement. */
  startsS: number[];
}

/** A set is drawn to this length, whatever is asked of it: less begins the same way. */
const DRAWN_REPS = 40;
const LEAST_MPS = 0.08;
/** No rep takes less than a third of a second, or it has been thrown. */
const LEAST_DRIVE_S = 0.33;

/** True mean concentric velocities of a set, without the movement around them. */
export function trueVelocities(lifter: SimulatedLifter, input: SimulatedSetInput): number[] {
  return draw(lifter, input, input.reps, seededRandom(input.seed));
}

function draw(
  lifter: SimulatedLifter,
  input: SimulatedSetInput,
  reps: number,
  random: Random,
): number[] {
  const tired = lifter.setFade * input.setsBefore * Math.max(0, 1 - input.restS / lifter.fullRestS);
  const loadKg = input.loadKg + (input.pullKg ?? 0);
  const fresh = lifter.v0Mps * (1 - loadKg / lifter.l0Kg) + input.dayShiftMps;
  const velocities: number[] = [];
  for (let rep = 0; rep < reps; rep++) {
    // The first rep is often not the best: the second has the feel of the bar.
    const warm = rep === 0 ? -0.012 : 0;
    const mean = fresh * (1 - tired) * (1 - lifter.repFade * Math.max(0, rep - 1)) + warm;
    velocities.push(Math.max(LEAST_MPS, mean + lifter.spreadMps * random.normal()));
  }
  return velocities;
}

/**
 * The bar's movement for a set. The same seed with fewer reps gives the same beginning, so a set
 * that is told to stop keeps what has happened.
 */
export function simulateSet(lifter: SimulatedLifter, input: SimulatedSetInput): SimulatedSet {
  const velocities = draw(lifter, input, DRAWN_REPS, seededRandom(input.seed));
  const habits = seededRandom(input.seed + 17);
  const fromFloor = lifter.path === "from-floor";
  const set = new ShapeBuilder();
  const startsS: number[] = [];
  set.still(0.4);
  if (!fromFloor) walkOut(set);
  const state: Floor = { stayFromS: 0, down: undefined };
  for (let rep = 0; rep < input.reps; rep++) {
    const mcvMps = velocities[rep] as number;
    const chance = { rock: habits.uniform(), bounce: habits.uniform(), stop: habits.normal() };
    startsS.push(set.timeS);
    const goesOn = oneRep(set, lifter, input, { rep, mcvMps, chance }, state);
    if (!goesOn) break;
  }
  if (fromFloor) set.still(0.8);
  else rackBar(set);
  const { movement, reps } = set.build(
    fromFloor ? FLOOR_BAR_M : lifter.topM,
    fromFloor ? "bottom" : "top",
  );
  return { movement, reps, startsS };
}

/** Height of a loaded bar on the floor, m. */
const FLOOR_BAR_M = 0.225;

interface Floor {
  stayFromS: number;
  down: { leaveTopS: number; arriveS: number } | undefined;
}

function walkOut(set: ShapeBuilder): void {
  set.move(0.04, 0.5);
  set.move(-0.012, 0.3);
  set.move(0.012, 0.3);
  set.still(0.7);
}

function rackBar(set: ShapeBuilder): void {
  set.still(0.5);
  set.move(-0.04, 0.5);
  set.still(0.6);
}

interface RepDraw {
  rep: number;
  mcvMps: number;
  chance: { rock: number; bounce: number; stop: number };
}

/** One rep; false where it failed and the set is over. */
function oneRep(
  set: ShapeBuilder,
  lifter: SimulatedLifter,
  input: SimulatedSetInput,
  { rep, mcvMps, chance }: RepDraw,
  state: Floor,
): boolean {
  const fromFloor = lifter.path === "from-floor";
  const rangeM = lifter.rangeM * (1 + 0.02 * Math.sin(input.seed + rep * 1.7));
  let { stayFromS, down } = state;
  const rocksM: number[] = [];
  if (!fromFloor) {
    const leaveTopS = set.timeS;
    lowering(set, rangeM, lifter.loweringMps);
    down = { leaveTopS, arriveS: set.timeS };
    stayFromS = set.timeS;
    const bounces = chance.bounce < (lifter.bounceShare ?? 0);
    if (!bounces && lifter.pauseS > 0) {
      set.still(lifter.pauseS * Math.max(0.5, 1 + 0.1 * chance.stop));
      if (chance.rock < (lifter.rockShare ?? 0)) {
        const rockM = lifter.rockM ?? 0.04;
        set.move(rockM, 0.25);
        set.move(-rockM, 0.22);
        stayFromS = set.timeS;
        set.still(0.15);
        rocksM.push(rockM);
      }
    }
  }
  const driveFromS = set.timeS;
  const fails = lifter.failsUnderMps !== undefined && mcvMps < lifter.failsUnderMps;
  const marks: Omit<RepMarks, "topS" | "outcome"> = {
    stayFromS,
    driveFromS,
    rocksM,
    ...(down ?? {}),
  };
  if (fails) {
    driveAt(set, lifter, rangeM * 0.55, mcvMps, input.pullKg);
    set.mark({ ...marks, outcome: "failed", topS: set.timeS });
    set.move(-rangeM * 0.55, 1);
    if (!fromFloor) {
      // Spotters bring the bar up.
      set.still(0.6);
      set.move(rangeM, rangeM / 0.25);
    }
    return false;
  }
  driveAt(set, lifter, rangeM, mcvMps, input.pullKg);
  set.mark({ ...marks, outcome: "counted", topS: set.timeS });
  if (lifter.path === "jump") {
    // Up in the air and down again, caught in the knees.
    set.move(-0.1, 0.25);
    set.move(0.1, 0.5);
  }
  set.still(0.35);
  if (fromFloor) {
    const leaveTopS = set.timeS;
    lowering(set, rangeM, lifter.loweringMps);
    state.down = { leaveTopS, arriveS: set.timeS };
    state.stayFromS = set.timeS;
    set.still(0.3 + lifter.pauseS);
  }
  return true;
}

function lowering(set: ShapeBuilder, rangeM: number, meanMps: number): void {
  const durationS = rangeM / meanMps;
  set.leg({ rangeM, durationS, onsetS: 0.1, lockS: 0.06, peakShare: 0.5 }, -1);
}

/** A drive whose mean velocity between its passages of 0.05 m/s is the one wished for. */
function driveAt(
  set: ShapeBuilder,
  lifter: SimulatedLifter,
  rangeM: number,
  mcvMps: number,
  pullKg: number | undefined,
): void {
  const slow = mcvMps < 0.6 && lifter.sticking > 0;
  const shape = {
    rangeM,
    onsetS: lifter.onsetS ?? 0.04,
    lockS: lifter.path === "jump" ? 0.01 : (lifter.lockS ?? 0.06),
    // Bands hold the bar back most at the top: its peak comes early.
    peakShare: pullKg ? 0.38 : lifter.path === "jump" ? 0.75 : 0.5,
    ...(slow ? { stick: Math.max(0.3, 1 - 1.6 * lifter.sticking) } : {}),
  };
  let durationS = rangeM / Math.min(mcvMps, rangeM / LEAST_DRIVE_S);
  for (let i = 0; i < 3; i++) {
    const trial = new ShapeBuilder();
    trial.still(0.1);
    const driveFromS = trial.timeS;
    trial.leg({ ...shape, durationS });
    trial.mark({ outcome: "counted", stayFromS: 0, driveFromS, topS: trial.timeS });
    trial.still(0.1);
    const [truth] = trial.build(0, "bottom").reps;
    if (truth) durationS = Math.max(LEAST_DRIVE_S, (durationS * truth.mcvMps) / mcvMps);
  }
  set.leg({ ...shape, durationS });
}
