import { StreamMeter } from "../core/velocity/meter";
import type { SensorPort, SetAhead, SetEvent, StreamChoice } from "./sensor-port";

/** Listens to a sensor for one set: its frames as they come, and each rep as it is certain. */
export function measureSet(
  sensor: SensorPort,
  set: SetAhead,
  settings: StreamChoice,
  tell: (event: SetEvent) => void,
): void {
  const meter = new StreamMeter(settings);
  sensor.open(set, {
    frames(frames) {
      tell({ type: "frames", frames });
      for (const frame of frames) {
        for (const rep of meter.push(frame.timeS, frame.heightM)) tell({ type: "rep", rep });
      }
    },
    racked() {
      for (const rep of meter.finish()) tell({ type: "rep", rep });
      tell({ type: "racked" });
    },
  });
}
