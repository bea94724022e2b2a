import type { StreamSettings } from "../velocity/stream";
import { type ClipHeights, clipHeights } from "./heights";
import { CLEAR_RIM, type Rim } from "./rim";
import { type ClipSpeeds, clipSpeeds } from "./speeds";
import type { Sighting } from "./tracker";

/** A clip is read in pieces of at most so long, s: a set, not an evening. */
export const MOST_CUT_S = 180;
/** Fewer pictures a second than this show no rep. */
export const LEAST_RATE_HZ = 20;
/** A bar that moves less than this does not move, m. */
const LEAST_MOTION_M = 0.1;
/** A path that leans more against the plumb line asks to look at the line, degrees. */
const MUCH_LEAN_DEG = 6;
/** The background moves by so much, m: said … */
export const CAMERA_SAID_M = 0.01;
/** … and beyond this heights are worth nothing. */
export const CAMERA_REFUSED_M = 0.03;
/** A plate out of sight for longer leaves its rep unmeasured, s. */
const HIDDEN_S = 0.1;

export interface ClipInput {
  rim: Rim;
  /** Share of the rim that stood out under the mark. */
  onRim: number;
  /** In order of time; the clip's own times, s. */
  sightings: readonly Sighting[];
  plateDiameterM: number;
  /** Up in the picture: along the rack's upright. */
  up: { x: number; y: number };
  /** How many times slower the clip plays than it was filmed; 1 for a plain one. */
  slowedBy: number;
  /** The farthest that the background was off, px; undefined where it could not be told. */
  cameraPx: number | undefined;
  pictureHeightPx: number;
  settings: Partial<StreamSettings>;
}

/** What a coach is told beside the figures. */
export type ClipNote =
  | { kind: "hidden"; fromS: number; toS: number }
  /** The plate's edge hardly stands out: its size, and with it each speed, is less sure. */
  | { kind: "unclear-rim"; share: number }
  | { kind: "leans"; degrees: number }
  | { kind: "camera-moved"; byM: number }
  | { kind: "camera-unknown" }
  | { kind: "few-pictures"; rateHz: number };

export type ClipResult =
  | { ok: true; heights: ClipHeights; speeds: ClipSpeeds; notes: ClipNote[] }
  | { ok: false; reason: "too-few" | "bad-size" | "no-motion" | "too-slow-rate" | "camera-moved" };

/**
 * A clip's sightings as reps: heights by the plate's size, real times, the one processing, and what
 * the coach is told beside it.
 *
 * @example measureClip({ rim, sightings, plateDiameterM: 0.45, up: { x: 0, y: -1 }, slowedBy: 1, … })
 */
export function measureClip(input: ClipInput): ClipResult {
  const { sightings, slowedBy, cameraPx, pictureHeightPx } = input;
  if (!(slowedBy >= 1 && slowedBy <= 64)) return { ok: false, reason: "bad-size" };
  if (sightings.length < 10) return { ok: false, reason: "too-few" };
  const heights = clipHeights(input);
  if (!heights) return { ok: false, reason: "bad-size" };
  heights.timesS = heights.timesS.map((s) => s / slowedBy);
  const low = least(heights.heightsM, 1);
  const high = -least(heights.heightsM, -1);
  if (!(high - low >= LEAST_MOTION_M)) return { ok: false, reason: "no-motion" };
  const metresAPx = input.plateDiameterM / 2 / heights.radiusPx;
  const movedM = cameraPx === undefined ? undefined : cameraPx * metresAPx;
  if (movedM !== undefined && movedM > CAMERA_REFUSED_M)
    return { ok: false, reason: "camera-moved" };
  const speeds = clipSpeeds(heights, input.settings, pictureHeightPx * metresAPx);
  if (speeds.rateHz < LEAST_RATE_HZ) return { ok: false, reason: "too-slow-rate" };
  const notes: ClipNote[] = [];
  heights.timesS.forEach((toS, i) => {
    const fromS = heights.timesS[i - 1];
    if (fromS !== undefined && toS - fromS > Math.max(HIDDEN_S, 2.5 / speeds.rateHz))
      notes.push({ kind: "hidden", fromS, toS });
  });
  if (input.onRim < CLEAR_RIM) notes.push({ kind: "unclear-rim", share: input.onRim });
  const lean = heights.leanDeg;
  if (lean !== undefined && Math.abs(lean) > MUCH_LEAN_DEG)
    notes.push({ kind: "leans", degrees: lean });
  if (movedM === undefined) notes.push({ kind: "camera-unknown" });
  else if (movedM > CAMERA_SAID_M) notes.push({ kind: "camera-moved", byM: movedM });
  if (speeds.rateHz < 45) notes.push({ kind: "few-pictures", rateHz: speeds.rateHz });
  return { ok: true, heights, speeds, notes };
}

/** The least of the values times a sign; a clip may hold more than a call takes arguments. */
const least = (values: readonly number[], sign: number) =>
  values.reduce((found, value) => Math.min(found, sign * value), Number.POSITIVE_INFINITY);

/** A bar this little above its height with the athlete on the seat has reached it, m. */
const SEAT_SLACK_M = 0.015;

/** @param overM lowest bar height of a rep over its height with the athlete seated, m */
export const reachesSeat = (overM: number): boolean => overM <= SEAT_SLACK_M;
