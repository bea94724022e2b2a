import { proxy, wrap } from "comlink";
import type { SensorEvent, SensorPort, SensorSetRequest } from "../../device/protocol";

let port: SensorPort | undefined;

function sensor(): SensorPort {
  port ??= wrap<SensorPort>(
    new Worker(new URL("./sensor.worker.ts", import.meta.url), { type: "module" }),
  ) as unknown as SensorPort;
  return port;
}

/** Loads the sensor's worker now, so that it is there when the network is not. */
export function readySensor(): void {
  sensor();
}

export function startSensor(
  request: SensorSetRequest,
  tell: (event: SensorEvent) => void,
): Promise<void> {
  return sensor().start(request, proxy(tell));
}

export function stopSensor(): Promise<void> {
  return sensor().stop();
}
