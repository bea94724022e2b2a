import type { Random } from "../core/numeric/random";
import type { Movement } from "./movement";
import type { Sample } from "./sensor-port";

/** A small stand-in for a linear position sensor on the bar: it samples a known movement. */
export interface SensorSettings {
  /** Nominal rate, Hz, 25–1000. */
  rateHz: number;
  /** White noise of the height, standard deviation, m. */
  noiseM: number;
  /** Spread of the sampling moments as a share of the interval, 0–0.45. */
  jitter: number;
  /** Stretches without samples, s from the start of the movement. */
  gaps?: ReadonlyArray<{ fromS: number; toS: number }>;
  /** Share of single samples that are lost on the way, 0–0.2. */
  lostShare?: number;
}

/** An ordinary position sensor; the stand-in at the rack has these. */
export const SENSOR_DEFAULTS: SensorSettings = { rateHz: 100, noiseM: 0.0003, jitter: 0.05 };

/** All samples of a movement, in order. */
export function sampleMovement(
  movement: Movement,
  settings: SensorSettings,
  random: Random,
): Sample[] {
  const out: Sample[] = [];
  const step = 1 / settings.rateHz;
  const count = Math.floor(movement.durationS * settings.rateHz) + 1;
  for (let i = 0; i < count; i++) {
    const offset = settings.jitter * step * (2 * random.uniform() - 1);
    const timeS = Math.max(0, i * step + offset);
    const heightM = movement.heightAt(timeS) + settings.noiseM * random.normal();
    if (settings.gaps?.some((gap) => timeS >= gap.fromS && timeS < gap.toS)) continue;
    if (settings.lostShare !== undefined && random.uniform() < settings.lostShare) continue;
    out.push({ timeS, heightM });
  }
  return out;
}
