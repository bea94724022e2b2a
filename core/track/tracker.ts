import { brightnessAt, type GreyFrame, isFrame } from "./grey";
import { type MarkFault, refineMark, type WhichRing } from "./mark";
import {
  findEdges,
  fitRim,
  type PlateMark,
  type Rim,
  type RimFit,
  type RimShape,
  radiusOf,
  rimScore,
  shapeOf,
} from "./rim";

import { SizeAlong } from "./size-along";

/** Where a plate was seen in one picture. */
export interface Sighting {
  timeS: number;
  xPx: number;
  yPx: number;
  /** The rim's size against the marked one. */
  scale: number;
  /** One standard deviation of the place, px, from the scatter of the rim's edges. */
  sdPx: number;
}

/** Why a plate is not followed further; never a guess in its place. */
export type LossReason =
  /** Its place, as far as known, is at the picture's edge. */
  | "left-picture"
  /** Something stands before it, or it moved on unseen. */
  | "hidden";

export type TrackStep =
  | { kind: "seen"; at: Sighting }
  /** Not sure of it in this picture; looked for again in the next. */
  | { kind: "unseen"; timeS: number }
  | { kind: "lost"; timeS: number; reason: LossReason }
  /** A picture that is none, or whose time is not after the one before. */
  | { kind: "skipped"; timeS: number };

/** A plate unseen for longer than this is lost, s. */
export const LOST_AFTER_S = 1;
/** Least share of the rim that must be seen … */
const LEAST_ON_RIM = 0.4;
/** … and after it was out of sight. */
const LEAST_ON_RIM_AGAIN = 0.55;
/** How much a plate's size differs from the picture before: as read, and as it moves (shares). */
const SIZE_SD = 0.003;
const SIZE_SD_PER_S = 0.12;
/** From this share of a rim on that stood out where it was marked its size holds for what follows. */
const SURE_MARK = 0.85;
/** Beyond so many of these it is another ring, or another plate. */
const MOST_SIZE_SDS = 3;
/** A size that the way before does not foretell is drawn back to it, and given up only this far off. */
const MOST_ALONG_SDS = 5;
/** The plate's face may differ by so many grey levels, its own light and contrast taken out. */
const MOST_FACE_DIFFERENCE = 22;
/** No bar is faster, m/s, nor turns harder, m/s²; with a radius of 0.225 m. */
const MOST_SPEED_RADII = 25;
const MOST_TURN_RADII = 110;
/** How slowly the face as it was follows what is seen: light changes. */
const FACE_MEMORY = 0.05;

/** The rim is looked for where it is foretold: of two edges the nearer, unless it is much fainter. */
const NEAR_PULL = 0.85;

const FACE_RINGS = 14;
const FACE_ANGLES = 24;

/**
 * Follows one plate's rim from picture to picture: where a rim of its size lies best near the
 * place foretold, then its edges to a fraction of a pixel. It turns, is smeared by its speed, is
 * half hidden by who walks by and changes with the light; when too little of it is left it says so.
 */
export class RimTracker {
  readonly rim: Rim;
  readonly radiusPx: number;
  /** Share of the rim that stood out under the mark. */
  readonly onRim: number;
  readonly #shape: RimShape;
  readonly #sizes: SizeAlong;
  #face: Float64Array;
  #last: Sighting;
  #velocity = { x: 0, y: 0 };
  #lastTimeS: number;
  #lost: LossReason | undefined;

  private constructor(rim: Rim, onRim: number, frame: GreyFrame) {
    this.rim = rim;
    this.onRim = onRim;
    this.radiusPx = radiusOf(rim);
    this.#shape = shapeOf(rim);
    this.#sizes = new SizeAlong(onRim >= SURE_MARK);
    this.#last = {
      timeS: frame.timeS,
      xPx: rim.xPx,
      yPx: rim.yPx,
      scale: 1,
      sdPx: 0,
    };
    this.#lastTimeS = frame.timeS;
    this.#face = faceOf(frame, this.#last, this.#shape.radii);
  }

  /**
   * Begins at a mark.
   *
   * @param ring which of the plate's rings is followed
   */
  static begin(
    frame: GreyFrame,
    mark: PlateMark,
    ring: WhichRing = "outermost",
  ):
    | { ok: true; tracker: RimTracker; otherRing: number | undefined }
    | { ok: false; reason: MarkFault | "no-frame" } {
    if (!isFrame(frame)) return { ok: false, reason: "no-frame" };
    const found = refineMark(frame, mark, ring);
    if (!found.ok) return found;
    const tracker = new RimTracker(found.rim, found.onRim, frame);
    return { ok: true, tracker, otherRing: found.otherRing };
  }

  /** The plate as it was marked. */
  get marked(): Sighting {
    return { ...this.#last, xPx: this.rim.xPx, yPx: this.rim.yPx, scale: 1 };
  }

  get lost(): LossReason | undefined {
    return this.#lost;
  }

  push(frame: GreyFrame): TrackStep {
    const { timeS } = frame;
    if (!isFrame(frame) || timeS <= this.#lastTimeS) return { kind: "skipped", timeS };
    if (this.#lost) return { kind: "lost", timeS, reason: this.#lost };
    const sinceS = timeS - this.#last.timeS;
    const stepS = timeS - this.#lastTimeS;
    this.#lastTimeS = timeS;
    const found = this.#find(frame, sinceS);
    if (found) {
      const seen = {
        timeS,
        xPx: found.xPx,
        yPx: found.yPx,
        scale: found.scale,
        sdPx: Math.max(found.sdXPx, found.sdYPx),
      };
      this.#velocity =
        sinceS < 0.2
          ? {
              x: (seen.xPx - this.#last.xPx) / sinceS,
              y: (seen.yPx - this.#last.yPx) / sinceS,
            }
          : { x: 0, y: 0 };
      this.#last = seen;
      this.#sizes.read(this.#radiiFrom(seen.yPx), seen.scale);
      return { kind: "seen", at: seen };
    }
    // What moves on unseen slows down as far as we know.
    const keep = Math.exp(-stepS / 0.15);
    this.#velocity = { x: this.#velocity.x * keep, y: this.#velocity.y * keep };
    if (sinceS < LOST_AFTER_S) return { kind: "unseen", timeS };
    this.#lost = this.#atEdge(frame) ? "left-picture" : "hidden";
    return { kind: "lost", timeS, reason: this.#lost };
  }

  #radiiFrom(yPx: number): number {
    return (this.rim.yPx - yPx) / this.radiusPx;
  }

  #atEdge(frame: GreyFrame): boolean {
    const { xPx, yPx } = this.#last;
    const room = this.radiusPx * 1.15;
    return xPx < room || yPx < room || xPx > frame.widthPx - room || yPx > frame.heightPx - room;
  }

  #find(frame: GreyFrame, sinceS: number): RimFit | undefined {
    const again = sinceS > 0.12;
    const coarse = this.#coarse(frame, sinceS);
    // A picture's smear is at most the way between two pictures.
    const smear = {
      x: Math.abs(coarse.xPx - this.#last.xPx) * (again ? 0.1 : 0.5),
      y: Math.abs(coarse.yPx - this.#last.yPx) * (again ? 0.1 : 0.5),
    };
    let at: { xPx: number; yPx: number; scale: number } = coarse;
    let fit: RimFit | undefined;
    const since = {
      scale: this.#last.scale,
      sd: SIZE_SD + SIZE_SD_PER_S * Math.min(sinceS, 0.3),
    };
    const along = this.#sizes.at(this.#radiiFrom(coarse.yPx));
    const known = together(since, along);
    at = { ...coarse, scale: known.scale };
    for (const share of [0.06, 0.03]) {
      const edges = findEdges(
        frame,
        at,
        this.#shape.radii,
        ({ cos, sin }) => share * this.radiusPx + Math.abs(smear.x * cos) + Math.abs(smear.y * sin),
        NEAR_PULL,
      );
      fit = fitRim(at, this.#shape, edges, known);
      if (!fit) return undefined;
      at = fit;
    }
    if (!fit) return undefined;
    if (fit.onRim < (again ? LEAST_ON_RIM_AGAIN : LEAST_ON_RIM)) return undefined;
    if (Math.abs(fit.scale / since.scale - 1) > MOST_SIZE_SDS * since.sd) return undefined;
    if (Math.abs(fit.scale / along.scale - 1) > MOST_ALONG_SDS * along.sd) return undefined;
    if (Math.max(fit.sdXPx, fit.sdYPx) > 0.05 * this.radiusPx) return undefined;
    const face = faceOf(frame, fit, this.#shape.radii);
    if (faceDifference(this.#face, face) > MOST_FACE_DIFFERENCE) return undefined;
    this.#face = this.#face.map((value, i) => value + FACE_MEMORY * ((face[i] ?? value) - value));
    return fit;
  }

  /** Where a rim of this size lies best around the place foretold. */
  #coarse(frame: GreyFrame, sinceS: number): { xPx: number; yPx: number; scale: number } {
    const ahead = Math.min(sinceS, 0.2);
    const foretold = {
      xPx: this.#last.xPx + this.#velocity.x * ahead,
      yPx: this.#last.yPx + this.#velocity.y * ahead,
    };
    const stepPx = Math.max(1, this.radiusPx / 45);
    const wayRadii = Math.min(
      1.2,
      0.04 + Math.min(MOST_TURN_RADII * sinceS * sinceS, MOST_SPEED_RADII * sinceS),
    );
    const most = Math.ceil((wayRadii * this.radiusPx) / stepPx);
    const stride = most > 14 ? 2 : 1;
    let best = { ...foretold, scale: this.#last.scale };
    let bestScore = -1;
    const look = (xPx: number, yPx: number, off: number) => {
      const at = { xPx, yPx, scale: this.#last.scale };
      const score = rimScore(frame, at, this.#shape.radii, stepPx * 1.2) * (1 - 0.2 * off * off);
      if (score > bestScore) {
        bestScore = score;
        best = at;
      }
    };
    for (let i = -most; i <= most; i += stride)
      for (let j = -most; j <= most; j += stride)
        look(
          foretold.xPx + i * stepPx,
          foretold.yPx + j * stepPx,
          Math.hypot(i, j) / Math.max(1, most),
        );
    if (stride > 1) {
      const { xPx, yPx } = best;
      for (let i = -1; i <= 1; i++)
        for (let j = -1; j <= 1; j++) look(xPx + i * stepPx, yPx + j * stepPx, 0);
    }
    return best;
  }
}

interface Known {
  scale: number;
  sd: number;
}

/** Two that know of one size, each by how sure it is. */
function together(a: Known, b: Known): Known {
  const [p, q] = [1 / a.sd ** 2, 1 / b.sd ** 2];
  return { scale: (p * a.scale + q * b.scale) / (p + q), sd: 1 / Math.sqrt(p + q) };
}

/** The plate's face, ring by ring: the middle brightness about each, whatever way it is turned. */
function faceOf(
  frame: GreyFrame,
  at: { xPx: number; yPx: number; scale: number },
  radii: Float64Array,
): Float64Array {
  const rays = radii.length / FACE_ANGLES;
  return Float64Array.from({ length: FACE_RINGS }, (_, ring) => {
    const share = (0.15 + (0.78 * ring) / (FACE_RINGS - 1)) * at.scale;
    const values: number[] = [];
    for (let k = 0; k < FACE_ANGLES; k++) {
      const angle = (2 * Math.PI * k) / FACE_ANGLES;
      const r = share * (radii[Math.round(k * rays)] as number);
      const value = brightnessAt(frame, at.xPx + r * Math.cos(angle), at.yPx + r * Math.sin(angle));
      if (!Number.isNaN(value)) values.push(value);
    }
    values.sort((a, b) => a - b);
    return values[values.length >> 1] ?? Number.NaN;
  });
}

/** Mean difference of two faces, the change of light over all rings taken out. */
function faceDifference(before: Float64Array, now: Float64Array): number {
  const differences: number[] = [];
  for (let i = 0; i < before.length; i++) {
    const difference = (now[i] as number) - (before[i] as number);
    if (!Number.isNaN(difference)) differences.push(difference);
  }
  if (differences.length < FACE_RINGS / 2) return Number.POSITIVE_INFINITY;
  const middle = [...differences].sort((a, b) => a - b)[differences.length >> 1] as number;
  const shape =
    differences.reduce((sum, value) => sum + Math.abs(value - middle), 0) / differences.length;
  // Light over all of it changes slowly; a body before the plate changes it at once.
  return shape + Math.max(0, Math.abs(middle) - 25);
}
