import { expose } from "comlink";
import { measureSet } from "../../device/measure-set";
import type { SensorPort } from "../../device/sensor-port";
import { openSource } from "../../device/sources";
import type { SensorOfPage } from "./sensor";

const ticker = {
  nowMs: () => performance.now(),
  every(ms: number, tick: () => void) {
    const timer = setInterval(tick, ms);
    return () => clearInterval(timer);
  },
};

let open: SensorPort | undefined;

/** The sensor and the detector of this page, off its own thread. */
const sensor: SensorOfPage = {
  async start({ source, set, settings }, tell) {
    open?.stop();
    open = openSource(source, ticker);
    measureSet(open, set, settings, tell);
  },
  async stop() {
    open?.stop();
  },
};

expose(sensor);
