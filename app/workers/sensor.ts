import { proxy, wrap } from "comlink";
import type { SetAhead, SetEvent, StreamChoice } from "../../device/sensor-port";
import type { SensorSource } from "../../device/sources";

/** One set to be measured: where its frames come from, what is lifted, how it is read. */
export interface SetToMeasure {
  source: SensorSource;
  set: SetAhead;
  settings: StreamChoice;
}

/** What the page's worker does. */
export interface SensorOfPage {
  start(request: SetToMeasure, tell: (event: SetEvent) => void): Promise<void>;
  /** The lifter is told to stop: ends after the rep that is under way. */
  stop(): Promise<void>;
}

interface OwnWorker {
  port: SensorOfPage;
  /** Rejects when the worker's script does not come, or breaks. */
  broken: Promise<never>;
}

let own: OwnWorker | undefined;

/** The worker of this page. One that broke is made anew by whoever asks next. */
function worker(): OwnWorker {
  if (own) return own;
  const script = new Worker(new URL("./sensor.worker.ts", import.meta.url), { type: "module" });
  const made: OwnWorker = {
    port: wrap<SensorOfPage>(script) as unknown as SensorOfPage,
    broken: new Promise<never>((_, reject) => {
      script.addEventListener("error", () => {
        if (own === made) own = undefined;
        script.terminate();
        reject(new Error("The sensor's part of the page could not be loaded."));
      });
    }),
  };
  // Whoever waits for the worker hears of it; where nobody does, the next one is told.
  made.broken.catch(() => {});
  own = made;
  return made;
}

/** Loads the sensor's worker now, so that it is there when the network is not. */
export function readySensor(): void {
  worker();
}

/** Rejects where the sensor is not on this page and cannot be fetched. */
export function startSensor(request: SetToMeasure, tell: (event: SetEvent) => void): Promise<void> {
  const { port, broken } = worker();
  return Promise.race([port.start(request, proxy(tell)), broken]);
}

export async function stopSensor(): Promise<void> {
  await own?.port.stop();
}
