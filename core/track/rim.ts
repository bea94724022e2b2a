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

/** Smallest and largest plate that is followed, px of radius. */
export const LEAST_RADIUS_PX = 18;
export const MOST_RADIUS_PX = 2000;
/** Directions from the centre in which the rim is looked for. */
export const RAYS = 96;
/** Grey levels an edge must differ by at the least. */
const LEAST_EDGE = 4;
/** An edge's strength beyond which it counts no more, so that one bright lamp outvotes nothing. */
const EDGE_CAP = 40;

const COS = Float64Array.from({ length: RAYS }, (_, i) => Math.cos((2 * Math.PI * i) / RAYS));
const SIN = Float64Array.from({ length: RAYS }, (_, i) => Math.sin((2 * Math.PI * i) / RAYS));

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
  /** Rays that lie outside the picture. */
  outside: number;
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
  let outside = 0;
  for (let ray = 0; ray < RAYS; ray++) {
    const cos = COS[ray] as number;
    const sin = SIN[ray] as number;
    const radius = (radii[ray] as number) * at.scale;
    const band = Math.min(MOST_BAND_PX, Math.max(3, Math.ceil(bandPx({ cos, sin }))));
    const beyond = edgeInRay(frame, at, { cos, sin, radius, band, pull });
    if (beyond === "outside") outside++;
    else if (beyond !== undefined) beyondPx[ray] = beyond;
  }
  return { beyondPx, outside };
}

const MOST_BAND_PX = 120;
const profile = new Float64Array(2 * MOST_BAND_PX + 5);
const slope = new Float64Array(2 * MOST_BAND_PX + 5);

function edgeInRay(
  frame: GreyFrame,
  at: { xPx: number; yPx: number },
  ray: { cos: number; sin: number; radius: number; band: number; pull: number },
): number | "outside" | undefined {
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
    if (Number.isNaN(value)) return "outside";
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
  /** … and of the scale. */
  sdScale: number;
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
    sdScale: sd(2),
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

/** Ways in which a mark cannot be used. */
export type MarkFault = "mark-too-small" | "mark-outside" | "no-rim";

/** Which of a plate's rings is its rim: usually the outermost, else the one nearest the mark. */
export type WhichRing = "outermost" | "nearest";

export type MarkResult =
  | {
      ok: true;
      rim: Rim;
      onRim: number;
      /** A larger ring that stands out too, as a multiple of the taken one's size. */
      otherRing: number | undefined;
    }
  | { ok: false; reason: MarkFault };

/** How far off a mark may be, as a share of its radius. */
const MARK_SLACK = 0.14;
/** Least share of the rim that must be seen when it is marked. */
const LEAST_ON_MARK = 0.5;

/**
 * The rim under a coach's mark: the circle near it that the picture bears out best, then the
 * ellipse through its edges.
 *
 * @param mark in px of the frame; up to about a tenth of its radius off
 */
export function refineMark(
  frame: GreyFrame,
  mark: PlateMark,
  ring: WhichRing = "outermost",
): MarkResult {
  if (!(mark.radiusPx >= LEAST_RADIUS_PX && mark.radiusPx <= MOST_RADIUS_PX))
    return { ok: false, reason: "mark-too-small" };
  if (
    !(mark.xPx > 0 && mark.yPx > 0 && mark.xPx < frame.widthPx - 1 && mark.yPx < frame.heightPx - 1)
  )
    return { ok: false, reason: "mark-outside" };
  const near = circleNear(frame, mark);
  let circle = circleRim(near);
  let otherRing: number | undefined;
  for (const share of [0.06, 0.04, 0, 0.03]) {
    // A plate has rings within its rim: of those that the picture bears out the outermost is meant.
    if (share === 0) {
      const chosen = chooseRing(frame, circle, mark.radiusPx, ring);
      circle = chosen.rim;
      otherRing = chosen.other;
      continue;
    }
    const shape = shapeOf(circle);
    const at = { xPx: circle.xPx, yPx: circle.yPx, scale: 1 };
    const fit = fitRim(
      at,
      shape,
      findEdges(frame, at, shape.radii, () => share * near.radiusPx),
    );
    if (!fit) return { ok: false, reason: "no-rim" };
    circle = circleRim({ xPx: fit.xPx, yPx: fit.yPx, radiusPx: radiusOf(circle) * fit.scale });
  }
  // A turned plate is an ellipse that lies within this of a circle.
  let found: { rim: Rim; onRim: number } | undefined = { rim: circle, onRim: 0 };
  for (const share of [0.03, 0.02]) {
    found = ellipseAt(frame, found.rim, share * near.radiusPx, 0.8);
    if (!found) return { ok: false, reason: "no-rim" };
  }
  const { rim, onRim } = found;
  const flat = Math.sqrt(shapeRatio(rim));
  if (onRim < LEAST_ON_MARK || flat > 1.45) return { ok: false, reason: "no-rim" };
  return { ok: true, rim, onRim, otherRing };
}

function ellipseAt(
  frame: GreyFrame,
  rim: Rim,
  bandPx: number,
  pull: number,
): { rim: Rim; onRim: number } | undefined {
  const radii = rayRadii(rim);
  const at = { xPx: rim.xPx, yPx: rim.yPx, scale: 1 };
  const edges = findEdges(frame, at, radii, () => bandPx, pull);
  return fitEllipse(rim, radii, edges, 0.02 * radiusOf(rim));
}

/** Sizes tried about a found ring, and how well one must be seen to be tried as the rim. */
const RING_STEP = 0.006;
const LEAST_RING = 0.35;
const RING_AGAINST_BEST = 0.4;
/** Rings nearer to one another than this are one, share. */
const RING_APART = 0.03;
/** Worths this near to one another are about the same. */
const ABOUT_AS_MUCH = 0.5;
/** How far on either side of a ring it is asked whether the picture is still the plate, share. */
const RING_ASIDE = 0.035;

/**
 * The rim among a plate's rings: within it the picture is alike all around, beyond it is whatever
 * stands behind.
 */
function chooseRing(
  frame: GreyFrame,
  rim: Rim,
  markedPx: number,
  ring: WhichRing,
): { rim: Rim; other: number | undefined } {
  const radii = rayRadii(rim);
  const radius = radiusOf(rim);
  const seen: Array<{ size: number; share: number }> = [];
  for (let size = 0.88; size <= 1.15; size += RING_STEP) {
    if (Math.abs(size * radius - markedPx) > MARK_SLACK * markedPx) continue;
    const at = { xPx: rim.xPx, yPx: rim.yPx, scale: size };
    const { beyondPx } = findEdges(frame, at, radii, () => 3, 0.8);
    let on = 0;
    for (const beyond of beyondPx) if (Math.abs(beyond) < 1.3) on++;
    seen.push({ size, share: on / RAYS });
  }
  const best = Math.max(0, ...seen.map((one) => one.share));
  const least = Math.max(LEAST_RING, RING_AGAINST_BEST * best);
  const tried: Array<{ size: number; worth: number }> = [];
  seen.forEach(({ size, share }, i) => {
    const peak = share >= (seen[i - 1]?.share ?? 0) && share >= (seen[i + 1]?.share ?? 0);
    if (!peak || share < least) return;
    const within = unlikeAround(frame, rim, radii, size - RING_ASIDE);
    const beyond = unlikeAround(frame, rim, radii, size + RING_ASIDE);
    const far = (size * radius - markedPx) / (MARK_SLACK * markedPx);
    const worth = share + (beyond - within) / (beyond + within + 6) - 0.3 * far * far;
    tried.push({ size, worth });
  });
  const top = Math.max(...tried.map((one) => one.worth));
  // Of rings that are worth about as much the outermost: there is no plate beyond its rim.
  const off = (size: number) => Math.abs(size * radius - markedPx);
  const size =
    ring === "nearest"
      ? [...tried].sort((p, q) => off(p.size) - off(q.size))[0]?.size
      : tried.filter((one) => one.worth >= top - ABOUT_AS_MUCH).at(-1)?.size;
  const by = size ?? 1;
  // Rings within the rim are a plate's own; one beyond the taken one asks for the coach's eye.
  const other = tried
    .filter((one) => one.size / by > 1 + RING_APART)
    .sort((p, q) => q.worth - p.worth)[0];
  return {
    rim: { ...rim, m11: rim.m11 / by ** 2, m12: rim.m12 / by ** 2, m22: rim.m22 / by ** 2 },
    other: other === undefined ? undefined : other.size / by,
  };
}

/** How unlike the picture is all around at a size: mean distance from its middle brightness. */
function unlikeAround(frame: GreyFrame, rim: Rim, radii: Float64Array, size: number): number {
  const values: number[] = [];
  for (let ray = 0; ray < RAYS; ray++) {
    const r = (radii[ray] as number) * size;
    const value = brightnessAt(
      frame,
      rim.xPx + r * (COS[ray] as number),
      rim.yPx + r * (SIN[ray] as number),
    );
    if (!Number.isNaN(value)) values.push(value);
  }
  values.sort((p, q) => p - q);
  const middle = values[values.length >> 1] ?? 0;
  return (
    values.reduce((sum, v) => sum + Math.min(60, Math.abs(v - middle)), 0) / (values.length || 1)
  );
}

/** The longer axis squared over the shorter squared. */
function shapeRatio({ m11, m12, m22 }: Rim): number {
  const middle = (m11 + m22) / 2;
  const off = Math.hypot((m11 - m22) / 2, m12);
  return (middle + off) / Math.max(1e-12, middle - off);
}

function circleNear(frame: GreyFrame, mark: PlateMark): PlateMark {
  const reach = Math.max(1.5, mark.radiusPx / 40);
  const circle = rayRadii(circleRim({ ...mark, radiusPx: 1 }));
  let best = mark;
  let bestScore = -1;
  const look = (around: PlateMark, slack: number, stepPx: number) => {
    const most = Math.ceil((slack * mark.radiusPx) / stepPx);
    for (let i = -most; i <= most; i++)
      for (let j = -most; j <= most; j++)
        for (let k = -most; k <= most; k++) {
          const tried = {
            xPx: around.xPx + i * stepPx,
            yPx: around.yPx + j * stepPx,
            radiusPx: around.radiusPx + k * stepPx,
          };
          const off =
            Math.hypot(
              tried.xPx - mark.xPx,
              tried.yPx - mark.yPx,
              1.5 * (tried.radiusPx - mark.radiusPx),
            ) /
            (MARK_SLACK * mark.radiusPx);
          const score =
            rimScore(frame, { ...tried, scale: tried.radiusPx }, circle, reach) *
            (1 - 0.15 * off * off);
          if (score > bestScore) {
            bestScore = score;
            best = tried;
          }
        }
  };
  look(mark, MARK_SLACK, (MARK_SLACK * mark.radiusPx) / 6);
  look(best, (MARK_SLACK / 6) * 1.2, (MARK_SLACK * mark.radiusPx) / 24);
  return best;
}

/** An ellipse through the edges: a conic by least squares, far ones left out round by round. */
function fitEllipse(
  rim: Rim,
  radii: Float64Array,
  edges: RimEdges,
  roomPx: number,
): { rim: Rim; onRim: number } | undefined {
  const radius = radiusOf(rim);
  const points: Array<{ x: number; y: number; ray: number }> = [];
  for (let ray = 0; ray < RAYS; ray++) {
    const beyond = edges.beyondPx[ray] as number;
    if (Number.isNaN(beyond)) continue;
    const r = ((radii[ray] as number) + beyond) / radius;
    points.push({ x: r * (COS[ray] as number), y: r * (SIN[ray] as number), ray });
  }
  let kept = points;
  let conic: number[] | undefined;
  let room = roomPx / radius;
  for (let round = 0; round < 8; round++) {
    conic = kept.length >= 12 ? conicThrough(kept) : undefined;
    if (!conic) return undefined;
    const [a, b, c, d, e] = conic as [number, number, number, number, number];
    const off = ({ x, y }: { x: number; y: number }) =>
      (a * x * x + b * x * y + c * y * y + d * x + e * y - 1) / 2;
    const far = kept.map((one) => Math.abs(off(one))).sort((p, q) => p - q);
    room = Math.max(0.6 / radius, Math.min(room, 4 * (far[far.length >> 1] ?? room)));
    const next = points.filter((one) => Math.abs(off(one)) < room);
    if (next.length === kept.length && round > 0) break;
    kept = next;
  }
  if (!conic) return undefined;
  const [a, b, c, d, e] = conic as [number, number, number, number, number];
  const under = 4 * a * c - b * b;
  if (!(under > 1e-9)) return undefined;
  const x0 = (b * e - 2 * c * d) / under;
  const y0 = (b * d - 2 * a * e) / under;
  const level = 1 + a * x0 * x0 + b * x0 * y0 + c * y0 * y0;
  if (!(level > 0 && Math.hypot(x0, y0) < 0.5)) return undefined;
  const unit = level * radius * radius;
  return {
    rim: {
      xPx: rim.xPx + x0 * radius,
      yPx: rim.yPx + y0 * radius,
      m11: a / unit,
      m12: b / 2 / unit,
      m22: c / unit,
    },
    onRim: kept.length / RAYS,
  };
}

function conicThrough(points: ReadonlyArray<{ x: number; y: number }>): number[] | undefined {
  const a = Array.from({ length: 5 }, () => new Array<number>(5).fill(0));
  const b = new Array<number>(5).fill(0);
  for (const { x, y } of points) {
    const row = [x * x, x * y, y * y, x, y];
    for (let i = 0; i < 5; i++) {
      b[i] = (b[i] as number) + (row[i] as number);
      for (let j = 0; j <= i; j++)
        (a[i] as number[])[j] =
          ((a[i] as number[])[j] as number) + (row[i] as number) * (row[j] as number);
    }
  }
  return inverseSpd(a)?.map((line) => line.reduce((sum, v, j) => sum + v * (b[j] as number), 0));
}
