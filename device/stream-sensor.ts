import type { Sample, SensorListener, SensorPort, SetAhead } from "./sensor-port";

/** How the frames of a rack come to this page; gives back how to stop. */
export type Connect = (rackId: string, hear: (frames: readonly Sample[]) => void) => () => void;

/**
 * A sensor at a rack that sends by itself, whoever lifts: frames from now on are the set's, until it is
 * stopped. It knows nothing of the set, and never says that the bar is racked: the rules or somebody
 * end the set.
 */
export class StreamSensor implements SensorPort {
  readonly #rackId: string;
  readonly #connect: Connect;
  #leave: (() => void) | undefined;
  #hears: SensorListener | undefined;

  constructor(rackId: string, connect: Connect) {
    this.#rackId = rackId;
    this.#connect = connect;
  }

  open(_set: SetAhead, hears: SensorListener): void {
    this.#leave?.();
    this.#hears = hears;
    this.#leave = this.#connect(this.#rackId, (frames) => hears.frames(frames));
  }

  stop(): void {
    this.#leave?.();
    this.#leave = undefined;
    // What was begun is finished: the last rep may be certain only now.
    this.#hears?.racked();
    this.#hears = undefined;
  }
}
