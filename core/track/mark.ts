import { inverseSpd } from "../numeric/spd";
import { brightnessAt, type GreyFrame } from "./grey";
import {
  COS,
  circleRim,
  findEdges,
  fitRim,
  LEAST_RADIUS_PX,
  MOST_RADIUS_PX,
  type PlateMark,
  RAYS,
  type Rim,
  type RimEdges,
  radiusOf,
  rayRadii,
  rimScore,
  SIN,
  shapeOf,
} from "./rim";

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
