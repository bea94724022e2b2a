import { seedFromText } from "../core/numeric/random";
import type { SimulatedLifter } from "./lifter";
import type { SensorPort } from "./sensor-port";
import { SimulatedSensor, type Ticker } from "./simulated-sensor";
import { type Connect, StreamSensor } from "./stream-sensor";

/**
 * Where a station's frames come from. A real sensor is one more kind here and one more branch of
 * `openSource`; nothing else knows which it is.
 */
export type SensorSource = SimulatedSource | StreamSource;

export interface SimulatedSource {
  kind: "simulated";
  lifter: SimulatedLifter;
  /** Form of the day, m/s. */
  dayShiftMps: number;
  /** Frames a second, as the sensor in Gear has it. */
  rateHz?: number;
}

/** A sensor that sends its frames to the server (docs/sensor-protocol.md). */
export interface StreamSource {
  kind: "sensor";
  rackId: string;
}

/** @param connect how a sending sensor's frames come here */
export function openSource(source: SensorSource, ticker: Ticker, connect: Connect): SensorPort {
  return source.kind === "sensor"
    ? new StreamSensor(source.rackId, connect)
    : new SimulatedSensor(source, ticker);
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
