import type { MeasuredRep, StreamSettings } from "../core/velocity/stream";

/** One reading of a position sensor: s on its own clock, bar height in m. */
export interface Sample {
  timeS: number;
  heightM: number;
}

/** What is about to be lifted. A real sensor may show it; none needs it to measure. */
export interface SetAhead {
  loadKg: number;
  reps: number;
  /** Sets of this lift done before, and how long the lifter has rested, s. */
  setsBefore: number;
  restS: number;
  /** Mean pull of bands and chains over the range, kg; none where undefined. */
  pullKg?: number;
  /** Names this set among all, so that a stand-in does it the same way again. */
  seed: number;
}

/**
 * A position sensor at a station: frames in order of their arrival, until the set is over. It
 * measures nothing; reps are found from its frames by the one detector (`measureSet`).
 */
export interface SensorPort {
  open(set: SetAhead, hears: SensorListener): void;
  /** The lifter is told to stop: the sensor goes on until the bar is racked. */
  stop(): void;
}

export interface SensorListener {
  frames(frames: readonly Sample[]): void;
  /** The set is over: no frame follows. */
  racked(): void;
}

/** What a station hears of a set. */
export type SetEvent =
  | { type: "frames"; frames: readonly Sample[] }
  | { type: "rep"; rep: MeasuredRep }
  | { type: "racked" };

export type StreamChoice = Partial<StreamSettings>;
