import { seedFromText } from "../core/numeric/random";
import type { SimulatedLifter } from "./lifter";
import type { SensorPort } from "./sensor-port";
import { SimulatedSensor, type Ticker } from "./simulated-sensor";

/**
 * Where a station's frames come from. A real sensor is one more kind here and one more branch of
 * `openSource`; nothing else knows which it is.
 */
export type SensorSource = {
  kind: "simulated";
  lifter: SimulatedLifter;
  /** Form of the day, m/s. */
  dayShiftMps: number;
  /** Frames a second, as the sensor in Gear has it. */
  rateHz?: number;
};

export function openSource(source: SensorSource, ticker: Ticker): SensorPort {
  return new SimulatedSensor(source, ticker);
}

/** The stand-in for a lifter, in the form that this day gives; the same for the same words. */
export function simulatedSource(
  lifter: SimulatedLifter,
  ofDay: string,
  rateHz: number,
): SensorSource {
  const form = (seedFromText(ofDay) % 1000) / 1000 - 0.5;
  return { kind: "simulated", lifter, dayShiftMps: DAY_SPREAD_MPS * form, rateHz };
}

const DAY_SPREAD_MPS = 0.05;
