import { StreamMeter } from "./meter";
import {
  type PositionStream,
  PROCESSING_VERSION,
  type StreamAnalysis,
  type StreamSettings,
} from "./stream";

/**
 * Finds the reps in a displacement stream and measures each: the live detector, fed the same
 * frames, so the two cannot differ.
 *
 * Walkout, re-rack, bar bounce and plate changes are not reps: they move the bar less than
 * `leastDisplacementM`, or (for lifts that start from the top) have no lowering before them.
 *
 * @param stream times in s, heights in m; 25–1000 Hz, jitter and gaps allowed
 * @returns the reps in order of time; an empty list where there are none (never an error)
 */
export function analyseStream(
  stream: PositionStream,
  settings: Partial<StreamSettings> = {},
): StreamAnalysis {
  const meter = new StreamMeter(settings);
  const reps = [];
  const { timesS, heightsM } = stream;
  for (let i = 0; i < timesS.length; i++) {
    const fresh = meter.push(timesS[i] as number, heightsM[i] as number);
    if (fresh.length > 0) reps.push(...fresh);
  }
  reps.push(...meter.finish());
  return { reps, runs: [...meter.runs], processing: PROCESSING_VERSION };
}
