import { expose } from "comlink";
import { type PackedFrames, unpackFrames } from "../../device/frame-lines";
import { measureSet } from "../../device/measure-set";
import type { SensorPort } from "../../device/sensor-port";
import { openSource } from "../../device/sources";
import type { Connect } from "../../device/stream-sensor";
import type { SensorOfPage } from "./sensor";

const ticker = {
  nowMs: () => performance.now(),
  every(ms: number, tick: () => void) {
    const timer = setInterval(tick, ms);
    return () => clearInterval(timer);
  },
};

/** The rack's stream of frames; a broken line comes back by itself. */
const connect: Connect = (rackId, hear) => {
  const stream = new EventSource(`/api/sensor/${rackId}?frames`);
  stream.addEventListener("frames", (event) => {
    hear(unpackFrames(JSON.parse((event as MessageEvent<string>).data) as PackedFrames));
  });
  return () => stream.close();
};

let open: SensorPort | undefined;

/** The sensor and the detector of this page, off its own thread. */
const sensor: SensorOfPage = {
  async start({ source, set, settings }, tell) {
    open?.stop();
    open = openSource(source, ticker, connect);
    measureSet(open, set, settings, tell);
  },
  async stop() {
    open?.stop();
  },
};

expose(sensor);
