import { fitLine } from "../numeric/regression";
import { median } from "../numeric/statistics";
import { CLEAR_RIM, type Rim, radiusOf } from "./rim";
import type { Sighting } from "./tracker";

/** The bar's heights as a clip gives them, and how well. */
export interface ClipHeights {
  timesS: number[];
  /** m above the plate's place where it was marked. */
  heightsM: number[];
  /** One standard deviation of a height by itself, m. */
  sdM: number[];
  /** What all heights share: one standard deviation of the scale, as a share. */
  sdScale: number;
  /** The rim's mean radius where it was marked, px. */
  radiusPx: number;
  /** How far the bar's path leans against the plumb line, degrees; undefined without a path. */
  leanDeg: number | undefined;
}

export interface HeightsInput {
  rim: Rim;
  sightings: readonly Sighting[];
  plateDiameterM: number;
  /** Share of the rim that stood out where it was marked: the scale hangs on it. */
  onRim: number;
  /** Which way is up in the picture: a plumb line drawn along the rack's upright. */
  up: { x: number; y: number };
}

/** The usual full-size plate, m. */
export const PLATE_DIAMETER_M = 0.45;
/** What a plate's size is off by: wear, the rim's rounding, the lens (share). */
const SD_SIZE = 0.003;
/** What the scale is off by then (share). */
const SD_UNCLEAR_RIM = 0.03;
/** The picture's own softness at the rim, px on the radius. */
const SD_RIM_PX = 0.12;
/** A place is no surer than this, px, however well its edges agree: pixels, compression. */
const LEAST_SD_PX = 0.06;
/** A plate's size read in all pictures is the marked one within this share. */
const READ_AT_MARK = 0.01;
/** A change of scale with height is taken only where it is this many times its own error. */
const SURE_OF_SLOPE = 3;
/** A lens shows no more than this over a metre (share): beyond it the scale was misread. */
const MOST_SCALE_PER_M = 0.5;

/**
 * Places in the picture as heights in metres. A way in the plate's own plane is measured by the
 * rim's ellipse (three numbers that hold for any turn of the plate to a distant camera); that a
 * camera looking up or down sees the plate nearer or farther as it moves is taken out by the rim's
 * size, whose power 2/3 runs straight along a line in a perspective picture.
 *
 * @returns undefined for fewer than two sightings or a size, or plumb line, that is none
 */
export function clipHeights(input: HeightsInput): ClipHeights | undefined {
  const { rim, sightings, plateDiameterM, up } = input;
  const length = Math.hypot(up.x, up.y);
  if (!(plateDiameterM > 0.05 && plateDiameterM < 1 && length > 0) || sightings.length < 2)
    return undefined;
  const [ux, uy] = [up.x / length, up.y / length];
  const radiusM = plateDiameterM / 2;
  const { m11, m12, m22 } = rim;
  // Up, and across to it, as the plate's plane has them.
  const [vx, vy] = [m11 * ux + m12 * uy, m12 * ux + m22 * uy];
  const unit = Math.sqrt(ux * vx + uy * vy);
  const area = Math.sqrt(m11 * m22 - m12 * m12);
  const rise = sightings.map(({ xPx, yPx }) => {
    const [dx, dy] = [xPx - rim.xPx, yPx - rim.yPx];
    return (radiusM * (dx * vx + dy * vy)) / unit;
  });
  const across = sightings.map(({ xPx, yPx }) => {
    const [dx, dy] = [xPx - rim.xPx, yPx - rim.yPx];
    return (radiusM * area * (ux * dy - uy * dx)) / unit;
  });
  const scale = scaleAlong(rise, sightings);
  if (!scale) return undefined;
  const { middle, slope } = scale;
  // Against the place of the mark: nearer or farther than there.
  const local = (u: number) => 1 + (slope / middle) * u;
  // The size at the mark's own height, read in all pictures, against the one that was marked: where
  // it is smaller by more than reading allows, a ring within the rim was followed, and the mark holds.
  const read = middle ** 1.5;
  const size = read < 1 - READ_AT_MARK ? 1 : read;
  const heightsM = rise.map((u) => u / (size * local(u)));
  return {
    timesS: sightings.map((one) => one.timeS),
    heightsM,
    sdM: sightings.map(
      ({ sdPx }, i) =>
        (radiusM * Math.max(LEAST_SD_PX, sdPx)) / radiusOf(rim) / local(rise[i] as number) ** 2,
    ),
    sdScale: Math.hypot(
      SD_SIZE,
      SD_RIM_PX / radiusOf(rim),
      input.onRim < CLEAR_RIM ? SD_UNCLEAR_RIM : 0,
    ),
    radiusPx: radiusOf(rim),
    leanDeg: leanOf(rise, across),
  };
}

/** The rim's size to the power 2/3 as a line over the rise: its place at the mark and its slope. */
function scaleAlong(
  rise: readonly number[],
  sightings: readonly Sighting[],
): { middle: number; slope: number } | undefined {
  let points = rise.map((x, i) => ({ x, y: (sightings[i] as Sighting).scale ** (2 / 3) }));
  let middle = median(points.map((point) => point.y));
  if (middle === undefined || !(middle > 0)) return undefined;
  let slope = 0;
  for (let round = 0; round < 3; round++) {
    const fit = fitLine(points);
    if (!fit.ok) return { middle, slope: 0 };
    const off = points.map((point) => Math.abs(point.y - fit.intercept - fit.slope * point.x));
    const room = 4.5 * (median(off) ?? 0) + 1e-6;
    const near = points.filter((_, i) => (off[i] as number) <= room);
    // Neighbours err alike: a slope's own error is taken as if every sixth picture counted.
    const error = Math.sqrt(6 / fit.sxx) * (fit.see ?? Number.POSITIVE_INFINITY);
    const sure =
      Math.abs(fit.slope) > SURE_OF_SLOPE * error &&
      Math.abs(2 * fit.slope) < MOST_SCALE_PER_M * fit.intercept;
    slope = sure ? fit.slope : 0;
    if (sure) middle = fit.intercept;
    else middle = median(near.map((point) => point.y)) ?? middle;
    if (near.length === points.length) break;
    points = near;
  }
  return { middle, slope };
}

/** A path shorter than this has no direction, m. */
const LEAST_PATH_M = 0.15;

function leanOf(rise: readonly number[], across: readonly number[]): number | undefined {
  let low = 0;
  let high = 0;
  rise.forEach((value, i) => {
    if (value < (rise[low] as number)) low = i;
    if (value > (rise[high] as number)) high = i;
  });
  const up = (rise[high] as number) - (rise[low] as number);
  if (up < LEAST_PATH_M) return undefined;
  // The direction of the whole path: of most change.
  const [mu, mw] = [
    rise.reduce((a, b) => a + b, 0) / rise.length,
    across.reduce((a, b) => a + b, 0) / across.length,
  ];
  let [uu, uw] = [0, 0];
  rise.forEach((value, i) => {
    uu += (value - mu) ** 2;
    uw += (value - mu) * ((across[i] as number) - mw);
  });
  return (Math.atan2(uw, uu) * 180) / Math.PI;
}

/** Which way is up in a picture whose plumb line leans to the right by so many degrees. */
export function upLeaning(degrees: number): { x: number; y: number } {
  const radians = (degrees * Math.PI) / 180;
  return { x: Math.sin(radians), y: -Math.cos(radians) };
}

/** The bar's height at a moment, m: of the first picture from then on. */
export const heightAt = (
  { timesS, heightsM }: Pick<ClipHeights, "timesS" | "heightsM">,
  timeS: number,
): number | undefined => heightsM[timesS.findIndex((s) => s >= timeS - 1e-6)];
