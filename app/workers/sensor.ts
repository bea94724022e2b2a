import { proxy, wrap } from "comlink";
import type { SensorEvent, SensorPort, SensorSetRequest } from "../../device/protocol";

interface OwnWorker {
  port: SensorPort;
  /** Rejects when the worker's script does not come, or breaks. */
  broken: Promise<never>;
}

let own: OwnWorker | undefined;

/** The worker of this page. One that broke is made anew by whoever asks next. */
function worker(): OwnWorker {
  if (own) return own;
  const script = new Worker(new URL("./sensor.worker.ts", import.meta.url), { type: "module" });
  const made: OwnWorker = {
    port: wrap<SensorPort>(script) as unknown as SensorPort,
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
export function startSensor(
  request: SensorSetRequest,
  tell: (event: SensorEvent) => void,
): Promise<void> {
  const { port, broken } = worker();
  return Promise.race([port.start(request, proxy(tell)), broken]);
}

export async function stopSensor(): Promise<void> {
  await own?.port.stop();
}
