/** Frames a second that phones film at, the usual first. */
export const FRAME_RATES = [60, 30, 120, 240] as const;

/** Shortest and longest way of a bar that is read, m. */
const LEAST_TRAVEL_M = 0.1;
const MOST_TRAVEL_M = 1.5;
/** Fewer frames tell nothing: half a speed is their error. */
export const LEAST_FRAMES = 3;
const MOST_FRAMES = 2000;

export type VideoSpeed =
  | {
      ok: true;
      /** Mean over the way up, m/s. */
      mps: number;
      /** What one frame more or less makes of it, m/s. */
      errorMps: number;
    }
  | { ok: false; reason: "too-few-frames" | "no-travel" | "no-rate" };

/**
 * A rep's mean speed from the frames of a film: the way over the time from the first frame in
 * which the bar rises to the one in which it stands, v = s · f ÷ n. Off by one frame, it is off by
 * v ÷ n.
 *
 * @param frames between the two, a whole number from 3
 * @param framesPerS of the film
 * @param travelM the bar's way up, m
 * @example speedOfFrames({ frames: 48, framesPerS: 60, travelM: 0.64 }) // { mps: 0.8, … }
 */
export function speedOfFrames(of: {
  frames: number;
  framesPerS: number;
  travelM: number;
}): VideoSpeed {
  const { frames, framesPerS, travelM } = of;
  if (!Number.isInteger(frames) || frames < LEAST_FRAMES || frames > MOST_FRAMES)
    return { ok: false, reason: "too-few-frames" };
  if (!(framesPerS >= 10 && framesPerS <= 1000)) return { ok: false, reason: "no-rate" };
  if (!(travelM >= LEAST_TRAVEL_M && travelM <= MOST_TRAVEL_M))
    return { ok: false, reason: "no-travel" };
  const mps = (travelM * framesPerS) / frames;
  return { ok: true, mps, errorMps: mps / frames };
}

export const VIDEO_WORDS = {
  "too-few-frames":
    "Frames from the first in which it rises to the one in which it stands: 3 or more.",
  "no-travel": "The way of the bar in cm, 10 to 150.",
  "no-rate": "Frames a second, as the phone films.",
} as const;
