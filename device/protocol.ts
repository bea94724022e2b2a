import type { MeasuredRep, StreamSettings } from "../core/velocity/stream";
import type { SimulatedLifter, SimulatedSetInput } from "./lifter";
import type { Sample } from "./sensor";

/** What the in-browser sensor is asked to do for one set. */
export interface SensorSetRequest {
  lifter: SimulatedLifter;
  set: SimulatedSetInput;
  settings: Partial<StreamSettings>;
  /** Hz, 25–1000. */
  rateHz: number;
  noiseM: number;
}

/** What a sensor tells while a set goes on. */
export type SensorEvent =
  | { type: "samples"; samples: Sample[] }
  | { type: "rep"; rep: MeasuredRep }
  | { type: "racked" };

/** One sensor at one rack: a stand-in now, a real position sensor behind the same calls. */
export interface SensorPort {
  start(request: SensorSetRequest, tell: (event: SensorEvent) => void): Promise<void>;
  /** The lifter is told to stop: ends after the rep that is under way. */
  stop(): Promise<void>;
}
