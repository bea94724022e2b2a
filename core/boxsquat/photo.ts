import { plainNumber } from "../units/mass";
import type { Working } from "../units/working";

/** A mark in a photo, in its pixels; y grows downwards. */
export interface PhotoPoint {
  x: number;
  y: number;
}

/**
 * From a side photo: the angle of the thigh to the level line, and the height of the hip crease
 * over the knee. Image y grows downwards; the level line is two points of one level edge.
 * @param thighCm length of the thigh from knee to crease, cm
 */
export function thighFromPhoto(input: {
  knee: PhotoPoint;
  crease: PhotoPoint;
  level: readonly [PhotoPoint, PhotoPoint] | undefined;
  thighCm: number;
}): { angleDeg: number; creaseOverKneeCm: number } | undefined {
  const { knee, crease, level, thighCm } = input;
  if (!(thighCm > 0 && thighCm <= MOST_THIGH_CM)) return undefined;
  if (![knee, crease, ...(level ? [level[0], level[1]] : [])].every(isPoint)) return undefined;
  if (knee.x === crease.x && knee.y === crease.y) return undefined;
  const forward = Math.abs(crease.x - knee.x);
  const up = knee.y - crease.y;
  const thigh = Math.atan2(up, forward);
  let tilt = 0;
  if (level) {
    const [a, b] = level[0].x <= level[1].x ? level : [level[1], level[0]];
    if (a.x === b.x) return undefined;
    // How far the camera leans, as seen in the direction in which the thigh points.
    tilt = Math.atan2(a.y - b.y, b.x - a.x) * Math.sign(crease.x - knee.x || 1);
  }
  const angle = thigh - tilt;
  return { angleDeg: (angle * 180) / Math.PI, creaseOverKneeCm: thighCm * Math.sin(angle) };
}

/** Pixels of a picture. */
const MOST_PIXELS = 1e6;
const isPoint = (point: PhotoPoint | undefined): point is PhotoPoint =>
  point !== undefined && Math.abs(point.x) <= MOST_PIXELS && Math.abs(point.y) <= MOST_PIXELS;
/** Longer than any thigh, cm. */
const MOST_THIGH_CM = 100;

/** A leg seen from the front, as it was marked. */
export interface FrontLeg {
  hip: PhotoPoint;
  knee: PhotoPoint;
  ankle: PhotoPoint;
}

export interface FrontLegAngles {
  /** Shin off the upright, degrees; above zero the knee lies outside of the ankle. */
  shinOutDeg: number;
  /**
   * Bend at the knee in the plane of the photo, degrees: above zero the knee lies inside the line
   * from hip to ankle, below zero outside of it (the frontal-plane projection angle).
   */
  kneeInDeg: number;
}

/**
 * From a front photo: tilt of both shins and where each knee stands to the line from hip to
 * ankle, corrected for a leaning camera where a level edge is marked. A photo sees one plane:
 * turned feet or hips change it. A prompt to look, never a verdict.
 * @param legs the one further left in the picture first
 * @returns undefined where a mark is none, those of a leg lie on one point, or the ankles do not lie left and right
 */
export function legsFromPhoto(input: {
  legs: readonly [FrontLeg, FrontLeg];
  level: readonly [PhotoPoint, PhotoPoint] | undefined;
}): [FrontLegAngles, FrontLegAngles] | undefined {
  const { legs, level } = input;
  const points = [legs[0], legs[1]].flatMap((leg) => [leg?.hip, leg?.knee, leg?.ankle]);
  if (![...points, ...(level ? [level[0], level[1]] : [])].every(isPoint)) return undefined;
  if (level && level[0].x === level[1].x) return undefined;
  const [a, b] = level && level[0].x > level[1].x ? [level[1], level[0]] : (level ?? []);
  const tilt = a && b ? Math.atan2(a.y - b.y, b.x - a.x) : 0;
  // Upright axes: x to the right along the level edge, y up.
  const upright = (from: PhotoPoint, to: PhotoPoint) => {
    const x = to.x - from.x;
    const y = from.y - to.y;
    return {
      x: x * Math.cos(tilt) + y * Math.sin(tilt),
      y: y * Math.cos(tilt) - x * Math.sin(tilt),
    };
  };
  if (!(upright(legs[0].ankle, legs[1].ankle).x > 0)) return undefined;
  const angles = [legs[0], legs[1]].map(({ hip, knee, ankle }, i): FrontLegAngles | undefined => {
    const out = i === 0 ? -1 : 1;
    const shin = upright(ankle, knee);
    const thigh = upright(knee, hip);
    if (Math.hypot(shin.x, shin.y) === 0 || Math.hypot(thigh.x, thigh.y) === 0) return undefined;
    const lean = (one: { x: number; y: number }) =>
      (Math.atan2(out * one.x, one.y) * 180) / Math.PI;
    return { shinOutDeg: lean(shin), kneeInDeg: lean(thigh) - lean(shin) };
  });
  const [left, right] = angles;
  return left && right ? [left, right] : undefined;
}

const degrees = (value: number) => `${plainNumber(Math.abs(value), 1)}°`;

export const kneeWords = (leg: FrontLegAngles): string =>
  `${degrees(leg.kneeInDeg)} ${leg.kneeInDeg >= 0 ? "inside" : "outside"}`;

export const shinWords = (leg: FrontLegAngles): string =>
  `${degrees(leg.shinOutDeg)} ${leg.shinOutDeg >= 0 ? "out" : "in"}`;

const levelWords = (level: boolean) => (level ? "level-corrected" : "camera taken as level");

/** How one leg of a front photo was read. */
export const frontLegWorking = (
  leg: FrontLegAngles,
  side: "left" | "right",
  level: boolean,
): Working => ({
  title: `Front photo, ${side} leg`,
  lines: [
    { label: "Shin, ankle to knee", value: shinWords(leg), detail: levelWords(level) },
    {
      label: "Bend at the knee",
      value: kneeWords(leg),
      detail: "thigh less shin, in the plane of the photo",
      emphasis: "answer",
    },
  ],
  sources: ["Angles of the marks (frontal-plane projection)"],
  changes: ["Turned feet or hips: a photo sees one plane."],
});

/** How the next box height was read off a side photo. */
export const sidePhotoWorking = (
  thigh: { angleDeg: number; creaseOverKneeCm: number },
  heightCm: number,
  level: boolean,
): Working => ({
  title: "From the side photo",
  lines: [
    {
      label: "Thigh against level",
      value: `${plainNumber(thigh.angleDeg, 1)}°`,
      detail: levelWords(level),
    },
    {
      label: "Thigh × sin(angle)",
      value: `${plainNumber(thigh.creaseOverKneeCm, 1)} cm`,
      detail: "crease over the knee",
    },
    { label: "Seat − that", value: `${plainNumber(heightCm, 1)} cm`, emphasis: "answer" },
  ],
  sources: ["Angle of the marks; height by the thigh's own length"],
  changes: ["Marks, thigh length, a level edge marked in the photo."],
});
