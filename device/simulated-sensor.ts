import { seededRandom } from "../core/numeric/random";
import { type SimulatedLifter, simulateSet } from "./lifter";
import { SENSOR_DEFAULTS, sampleMovement } from "./sensor";
import type { Sample, SensorListener, SensorPort, SetAhead } from "./sensor-port";

/** Frames come in packets, as over a radio link. */
const PACKET_MS = 50;

/** What the sensor needs of its surroundings: a clock in ms and a way to be called again. */
export interface Ticker {
  nowMs(): number;
  every(ms: number, tick: () => void): () => void;
}

/** The stand-in: plays a simulated lifter's set in real time, frame by frame. */
export class SimulatedSensor implements SensorPort {
  readonly #lifter: SimulatedLifter;
  readonly #dayShiftMps: number;
  readonly #rateHz: number;
  readonly #ticker: Ticker;
  #stopRequested = false;
  #cancel: (() => void) | undefined;

  constructor(
    source: { lifter: SimulatedLifter; dayShiftMps: number; rateHz?: number },
    ticker: Ticker,
  ) {
    this.#lifter = source.lifter;
    this.#dayShiftMps = source.dayShiftMps;
    this.#rateHz = source.rateHz ?? SENSOR_DEFAULTS.rateHz;
    this.#ticker = ticker;
  }

  open(ahead: SetAhead, hears: SensorListener): void {
    this.#cancel?.();
    this.#stopRequested = false;
    const played = (reps: number) => {
      const input = { ...ahead, reps, dayShiftMps: this.#dayShiftMps };
      const set = simulateSet(this.#lifter, input);
      const sensor = { ...SENSOR_DEFAULTS, rateHz: this.#rateHz };
      const samples = sampleMovement(set.movement, sensor, seededRandom(ahead.seed + 1));
      return { set, samples };
    };
    let { set, samples } = played(ahead.reps);
    let trimmed = false;
    let sent = 0;
    const startMs = this.#ticker.nowMs();

    this.#cancel = this.#ticker.every(PACKET_MS, () => {
      const timeS = (this.#ticker.nowMs() - startMs) / 1000;
      if (this.#stopRequested && !trimmed) {
        trimmed = true;
        // The rep that has begun is finished, then the bar is racked.
        const begun = set.startsS.filter((start) => start <= timeS).length;
        if (begun < ahead.reps) ({ set, samples } = played(Math.max(1, begun)));
      }
      const packet: Sample[] = [];
      while (sent < samples.length && (samples[sent] as Sample).timeS <= timeS) {
        packet.push(samples[sent] as Sample);
        sent++;
      }
      if (packet.length > 0) hears.frames(packet);
      if (sent >= samples.length) {
        this.#cancel?.();
        this.#cancel = undefined;
        hears.racked();
      }
    });
  }

  stop(): void {
    this.#stopRequested = true;
  }
}
