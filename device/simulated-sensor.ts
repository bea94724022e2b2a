import { seededRandom } from "../core/numeric/random";
import { LiveSet } from "../core/velocity/live";
import { simulateSet } from "./lifter";
import type { SensorEvent, SensorPort, SensorSetRequest } from "./protocol";
import { type Sample, SENSOR_DEFAULTS, sampleMovement } from "./sensor";

/** Samples come in packets, as over a radio link. */
const PACKET_MS = 50;

/** What the sensor needs of its surroundings: a clock in ms and a way to be called again. */
export interface Ticker {
  nowMs(): number;
  every(ms: number, tick: () => void): () => void;
}

/**
 * The simulated sensor: plays a simulated lifter's set in real time, sample by sample, through
 * the same live detector that a real stream would go through.
 */
export class SimulatedSensor implements SensorPort {
  readonly #ticker: Ticker;
  #stopRequested = false;
  #cancel: (() => void) | undefined;

  constructor(ticker: Ticker) {
    this.#ticker = ticker;
  }

  async start(request: SensorSetRequest, tell: (event: SensorEvent) => void): Promise<void> {
    this.#cancel?.();
    this.#stopRequested = false;
    const sensor = {
      rateHz: request.rateHz,
      noiseM: request.noiseM,
      jitter: SENSOR_DEFAULTS.jitter,
    };
    const sampled = (reps: number) => {
      const set = simulateSet(request.lifter, { ...request.set, reps });
      return {
        set,
        samples: sampleMovement(set.movement, sensor, seededRandom(request.set.seed + 1)),
      };
    };
    let { set, samples } = sampled(request.set.reps);
    let trimmed = false;
    let sent = 0;
    const live = new LiveSet(request.settings);
    const startMs = this.#ticker.nowMs();

    this.#cancel = this.#ticker.every(PACKET_MS, () => {
      const timeS = (this.#ticker.nowMs() - startMs) / 1000;
      if (this.#stopRequested && !trimmed) {
        trimmed = true;
        const begun = set.endsS.filter((end) => end <= timeS).length;
        const underWay = Math.min(request.set.reps, repUnderWay(set.endsS, timeS) ?? begun);
        if (underWay < request.set.reps) ({ set, samples } = sampled(Math.max(1, underWay)));
      }
      const packet: Sample[] = [];
      while (sent < samples.length && (samples[sent] as Sample).timeS <= timeS) {
        packet.push(samples[sent] as Sample);
        sent++;
      }
      if (packet.length > 0) {
        tell({ type: "samples", samples: packet });
        for (const rep of live.push(packet)) tell({ type: "rep", rep });
      }
      if (sent >= samples.length) {
        this.#cancel?.();
        this.#cancel = undefined;
        tell({ type: "racked" });
      }
    });
  }

  async stop(): Promise<void> {
    this.#stopRequested = true;
  }
}

/** The pause at the top, in which a lifter who is told to stop has not yet begun the next rep. */
const TOP_HOLD_S = 0.35;

function repUnderWay(endsS: readonly number[], timeS: number): number | undefined {
  const done = endsS.filter((end) => end + TOP_HOLD_S <= timeS).length;
  const atTop = endsS.some((end) => timeS >= end && timeS < end + TOP_HOLD_S);
  return atTop ? done + 1 : undefined;
}
