import { inverseSpd } from "../numeric/spd";
import { brightnessAt, type GreyFrame } from "./grey";

/**
 * A plate's rim in the picture: the ellipse x² m11 + 2xy m12 + y² m22 = 1 about its centre. The
 * same three numbers measure any way in the plate's plane in plate radii, whatever way the plate
 * is turned to the camera.
 */
export interface Rim {
  xPx: number;
  yPx: number;
  m11: number;
  m12: number;
  m22: number;
}

/** What the coach marks: a circle about the plate, a few per cent off or so. */
export interface PlateMark {
  xPx: number;
  yPx: number;
  radiusPx: number;
}

/**
 * A rim that stands out less than this may be read at another ring in part: of 90 drawn films those
 * above it were read within 2 % (0.6 % in the mean of squares), those below it by 2.7 %.
 */
export const CLEAR_RIM = 0.93;

/** Smallest and largest plate that is followed, px of radius. */
export const LEAST_RADIUS_PX = 18;
export const MOST_RADIUS_PX = 2000;
/** Directions from the centre in which the rim is looked for. */
export const RAYS = 96;
/** Grey levels an edge must differ by at the least. */
const LEAST_EDGE = 4;
/** An edge's strength beyond which it counts no more, so that one bright lamp outvotes nothing. */
const EDGE_CAP = 40;

export const COS = Float64Array.from({ length: RAYS }, (_, i) =>
  Math.cos((2 * Math.PI * i) / RAYS),
);
export const SIN = Float64Array.from({ length: RAYS }, (_, i) =>
  Math.sin((2 * Math.PI * i) / RAYS),
);

export const circleRim = (mark: PlateMark): Rim => ({
  xPx: mark.xPx,
  yPx: mark.yPx,
  m11: 1 / mark.radiusPx ** 2,
  m12: 0,
  m22: 1 / mark.radiusPx ** 2,
});

/** The rim's mean radius, px: of the circle with the ellipse's area. */
export const radiusOf = (rim: Rim): number => (rim.m11 * rim.m22 - rim.m12 ** 2) ** -0.25;

/** How far the rim lies from its centre in each ray's direction, px. */
export function rayRadii(rim: Rim): Float64Array {
  return Float64Array.from({ length: RAYS }, (_, i) => {
    const c = COS[i] as number;
    const s = SIN[i] as number;
    return 1 / Math.sqrt(rim.m11 * c * c + 2 * rim.m12 * c * s + rim.m22 * s * s);
  });
}

/** The rim's edge in each ray: px beyond where it was expected; NaN where there is none. */
export interface RimEdges {
  beyondPx: Float64Array;
}

/**
 * Looks along each ray for the edge near the expected rim, to a fraction of a pixel: the middle of
 * the brightness step. A step that movement has smeared evenly keeps its middle.
 *
 * @param scale the rim's size against `radii`
 * @param bandPx how far on either side of the expected rim, px
 */
export function findEdges(
  frame: GreyFrame,
  at: { xPx: number; yPx: number; scale: number },
  radii: Float64Array,
  bandPx: (ray: { cos: number; sin: number }) => number,
  /** How much a far edge counts less than a near one at the band's end, 0–1. */
  pull = 0.5,
): RimEdges {
  const beyondPx = new Float64Array(RAYS).fill(Number.NaN);
  for (let ray = 0; ray < RAYS; ray++) {
    const cos = COS[ray] as number;
    const sin = SIN[ray] as number;
    const radius = (radii[ray] as number) * at.scale;
    const band = Math.min(MOST_BAND_PX, Math.max(3, Math.ceil(bandPx({ cos, sin }))));
    const beyond = edgeInRay(frame, at, { cos, sin, radius, band, pull });
    if (beyond !== undefined) beyondPx[ray] = beyond;
  }
  return { beyondPx };
}

const MOST_BAND_PX = 120;
const profile = new Float64Array(2 * MOST_BAND_PX + 5);
const slope = new Float64Array(2 * MOST_BAND_PX + 5);

function edgeInRay(
  frame: GreyFrame,
  at: { xPx: number; yPx: number },
  ray: { cos: number; sin: number; radius: number; band: number; pull: number },
): number | undefined {
  const { cos, sin, radius, band, pull } = ray;
  const samples = 2 * band + 3;
  for (let i = 0; i < samples; i++) {
    const r = radius - band - 1 + i;
    const x = at.xPx + r * cos;
    const y = at.yPx + r * sin;
    // Three side by side, along the rim: half the noise.
    const value =
      2 * brightnessAt(frame, x, y) +
      brightnessAt(frame, x - sin, y + cos) +
      brightnessAt(frame, x + sin, y - cos);
    if (Number.isNaN(value)) return undefined;
    profile[i] = value / 4;
  }
  let peak = -1;
  let peakScore = 0;
  let sum = 0;
  for (let i = 1; i < samples - 1; i++) {
    const d = ((profile[i + 1] as number) - (profile[i - 1] as number)) / 2;
    slope[i] = d;
    sum += Math.abs(d);
    // Of two edges alike the nearer to the expected rim.
    const off = (i - 1 - band) / band;
    const score = Math.abs(d) * (1 - pull * off * off);
    if (score > peakScore) {
      peakScore = score;
      peak = i;
    }
  }
  if (peak < 0) return undefined;
  const height = slope[peak] as number;
  if (Math.abs(height) < Math.max(LEAST_EDGE / 2, (1.5 * sum) / (samples - 2))) return undefined;
  return middleOfStep(peak, samples) - 1 - band;
}

/** The middle of the step around a peak of the slope: its centroid over half the peak's height. */
function middleOfStep(peak: number, samples: number): number {
  const sign = Math.sign(slope[peak] as number);
  const floor = 0.4 * Math.abs(slope[peak] as number);
  let weight = 0;
  let moment = 0;
  const take = (i: number): boolean => {
    const over = sign * (slope[i] as number) - floor;
    if (over <= 0) return false;
    weight += over;
    moment += over * i;
    return true;
  };
  for (let i = peak; i >= 1 && take(i); i--);
  for (let i = peak + 1; i < samples - 1 && take(i); i++);
  return moment / weight;
}

/** A rim's place as its edges give it. */
export interface RimFit {
  xPx: number;
  yPx: number;
  scale: number;
  /** Share of all rays whose edge lies on the fitted rim. */
  onRim: number;
  /** Standard deviation of the centre across and along the picture, px. */
  sdXPx: number;
  sdYPx: number;
}

/** Residuals beyond this are no part of the rim, px; more where the edges themselves scatter. */
const LEAST_SPREAD_PX = 0.25;
const TUKEY = 4.685;

/** A rim's shape as the search along rays needs it, worked out once. */
export interface RimShape {
  radii: Float64Array;
  /** Per ray: px its edge moves for a px across, a px down, and a unit of scale. */
  rows: Float64Array;
}

export function shapeOf(rim: Rim): RimShape {
  const radii = rayRadii(rim);
  const rows = new Float64Array(3 * RAYS);
  for (let ray = 0; ray < RAYS; ray++) {
    const c = COS[ray] as number;
    const s = SIN[ray] as number;
    const gx = rim.m11 * c + rim.m12 * s;
    const gy = rim.m12 * c + rim.m22 * s;
    const along = gx * c + gy * s;
    rows[3 * ray] = gx / along;
    rows[3 * ray + 1] = gy / along;
    rows[3 * ray + 2] = radii[ray] as number;
  }
  return { radii, rows };
}

const residuals = new Float64Array(RAYS);

/**
 * The centre and size of a rim of known shape from its edges: least squares with Tukey's biweight,
 * so that what hides a part of the plate pulls at nothing. Errors from the scatter of the edges.
 */
export function fitRim(
  at: { xPx: number; yPx: number; scale: number },
  { rows }: RimShape,
  edges: RimEdges,
  /** What its size is known to be, before the picture is asked. */
  known?: { scale: number; sd: number },
): RimFit | undefined {
  const { beyondPx } = edges;
  let [x, y, scale] = [0, 0, 0];
  const leave = () => {
    for (let ray = 0; ray < RAYS; ray++)
      residuals[ray] =
        (beyondPx[ray] as number) -
        (rows[3 * ray] as number) * x -
        (rows[3 * ray + 1] as number) * y -
        (rows[3 * ray + 2] as number) * scale;
    return spreadOf(residuals);
  };
  let spread = leave();
  let inverse: number[][] | undefined;
  for (let round = 0; round < 12; round++) {
    let [xx, xy, yy, xs, ys, ss, bx, by, bs, sum] = [0, 0, 0, 0, 0, 0, 0, 0, 0, 0];
    for (let ray = 0; ray < RAYS; ray++) {
      const u = (residuals[ray] as number) / (TUKEY * spread);
      // Not a number where there is no edge: no comparison holds.
      if (!(Math.abs(u) < 1)) continue;
      const weight = (1 - u * u) ** 2;
      const gx = rows[3 * ray] as number;
      const gy = rows[3 * ray + 1] as number;
      const gs = rows[3 * ray + 2] as number;
      const value = beyondPx[ray] as number;
      sum += weight;
      xx += weight * gx * gx;
      xy += weight * gx * gy;
      yy += weight * gy * gy;
      xs += weight * gx * gs;
      ys += weight * gy * gs;
      ss += weight * gs * gs;
      bx += weight * gx * value;
      by += weight * gy * value;
      bs += weight * gs * value;
    }
    if (known) {
      const weight = (spread / known.sd) ** 2;
      ss += weight;
      bs += weight * (known.scale - at.scale);
    }
    inverse = inverseSpd([
      [xx, xy, xs],
      [xy, yy, ys],
      [xs, ys, ss],
    ]);
    if (!inverse || sum < 8) return undefined;
    const [nx, ny, ns] = inverse.map(
      ([a, b, c]) => (a as number) * bx + (b as number) * by + (c as number) * bs,
    ) as [number, number, number];
    const moved = Math.abs(nx - x) + Math.abs(ny - y);
    [x, y, scale] = [nx, ny, ns];
    spread = leave();
    if (moved < 0.002 && round > 1) break;
  }
  if (!inverse) return undefined;
  const room = Math.min(3, 2.5 * spread + 0.5);
  let on = 0;
  for (const residual of residuals) if (Math.abs(residual) < room) on++;
  const sd = (i: number) => spread * Math.sqrt((inverse?.[i]?.[i] as number) ?? 0);
  return {
    xPx: at.xPx + x,
    yPx: at.yPx + y,
    scale: at.scale + scale,
    onRim: on / RAYS,
    sdXPx: sd(0),
    sdYPx: sd(1),
  };
}

const distances = new Float64Array(RAYS);

/** Spread of residuals about nothing by their median distance (× 1.4826 for a normal spread). */
function spreadOf(of: Float64Array): number {
  let count = 0;
  for (const residual of of) if (!Number.isNaN(residual)) distances[count++] = Math.abs(residual);
  const far = distances.subarray(0, count).sort();
  return Math.max(LEAST_SPREAD_PX, 1.4826 * (far[count >> 1] ?? 0));
}

/**
 * How well a rim of this size would lie at a place: the mean brightness step across it, each
 * ray's capped.
 */
export function rimScore(
  frame: GreyFrame,
  at: { xPx: number; yPx: number; scale: number },
  radii: Float64Array,
  reachPx: number,
): number {
  let sum = 0;
  for (let ray = 0; ray < RAYS; ray += 2) {
    const c = COS[ray] as number;
    const s = SIN[ray] as number;
    const radius = (radii[ray] as number) * at.scale;
    const outer = radius + reachPx;
    const inner = radius - reachPx;
    const step =
      brightnessAt(frame, at.xPx + outer * c, at.yPx + outer * s) -
      brightnessAt(frame, at.xPx + inner * c, at.yPx + inner * s);
    if (!Number.isNaN(step)) sum += Math.min(EDGE_CAP, Math.abs(step));
  }
  return sum / (RAYS / 2);
}
