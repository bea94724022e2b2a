import type { VelocityMetric } from "../units/velocity";

/**
 * The version of the processing that made a velocity. It is stored with every rep; a change that
 * can move a figure by 0.001 m/s raises it.
 */
export const PROCESSING_VERSION = "velocity-2";

/** A rep is measured between the two passages of this speed, m/s. */
export const EDGE_MPS = 0.05;

/** A displacement–time stream: bar height over time, as a position sensor gives it. */
export interface PositionStream {
  /** Seconds from any start, increasing. */
  timesS: ArrayLike<number>;
  /** Bar height, m, up is positive. Same length. */
  heightsM: ArrayLike<number>;
}

/** Whether the lift starts with the bar at the top (squat, bench) or at the bottom (pull). */
export type LiftStart = "top" | "bottom";

export interface StreamSettings {
  start: LiftStart;
  /** Low-pass cut-off, Hz, 6–10; docs/sources.md says how 7 was chosen. */
  cutoffHz: number;
  /** Least upward displacement that can be a rep, m. */
  leastDisplacementM: number;
  /** Least concentric time that can be a rep, s. */
  leastTimeS: number;
  /** Under this speed the bar counts as stopped, m/s. */
  stillMps: number;
}

export const STREAM_DEFAULTS: StreamSettings = {
  start: "top",
  cutoffHz: 7,
  leastDisplacementM: 0.15,
  leastTimeS: 0.15,
  stillMps: 0.05,
};

export type RepOutcome =
  /** Reached the top. */
  | "counted"
  /** Turned back before the top: recorded, not counted. */
  | "failed";

/** Height over the bottom at which the speed of contact is read, m. */
export const CONTACT_ABOVE_M = 0.02;

/** A rise on the seat before the drive: a prompt to look, never a verdict. */
export interface Rock {
  riseM: number;
  /** How long the bar rose, and from its highest to the drive, s. */
  riseS: number;
  toDriveS: number;
}

/** One rep as measured. Speeds m/s, times s from the stream's own start, lengths m. */
export interface MeasuredRep {
  outcome: RepOutcome;
  /** Started clearly higher than the reps before it: counted, and marked. */
  short: boolean;
  /** The passages of 0.05 m/s at the bottom, and at the top. */
  startS: number;
  endS: number;
  concentricS: number;
  /** Turn to turn. */
  rangeM: number;
  bottomM: number;
  /** Mean concentric velocity: height gained between the passages over the time between. */
  mcvMps: number;
  /** Mean propulsive velocity: up to the first a < −9.81 m/s² after the peak. */
  mpvMps: number;
  pvMps: number;
  /** The propulsive phase, from 0.05 m/s on: its time, its displacement, the speed at its end. */
  propulsiveS: number;
  propulsiveM: number;
  propulsiveEndMps: number;
  /** From leaving the bottom to the peak. */
  timeToPeakS: number;
  /** Up to the first arrival at the bottom; undefined where no lowering was seen. */
  eccentricS: number | undefined;
  greatestLoweringMps: number | undefined;
  /** Lowering speed this far over the bottom: what the box, or the chest, is met with. */
  contactMps: number | undefined;
  /** Time under `stillMps` between the fastest lowering and the fastest drive. */
  pauseS: number | undefined;
  /** Rises on the seat before the drive, in order. */
  rocks: Rock[];
  /** The largest fall inside the drive that went on, m; 0 where there was none. */
  fallBackM: number;
}

export interface StreamAnalysis {
  reps: MeasuredRep[];
  /** Stretches that were measured; more than one means the signal had gaps. */
  runs: Array<{ startS: number; endS: number; rateHz: number }>;
  processing: typeof PROCESSING_VERSION;
}

export function repVelocity(rep: MeasuredRep, metric: VelocityMetric): number {
  if (metric === "MCV") return rep.mcvMps;
  return metric === "MPV" ? rep.mpvMps : rep.pvMps;
}
