import { expose } from "comlink";
import { SimulatedSensor } from "../../device/simulated-sensor";

/** The in-browser sensor, off the page's own thread. */
expose(
  new SimulatedSensor({
    nowMs: () => performance.now(),
    every(ms, tick) {
      const timer = setInterval(tick, ms);
      return () => clearInterval(timer);
    },
  }),
);
