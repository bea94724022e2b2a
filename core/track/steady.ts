import { median } from "../numeric/statistics";
import type { GreyFrame } from "./grey";

/** A piece of the background that ought to stay where it is. */
interface Patch {
  xPx: number;
  yPx: number;
  grey: Float32Array;
  /** Where it was last found, px from its place. */
  dx: number;
  dy: number;
}

/** Side of a piece, px, and how many are looked after. */
const SIDE = 20;
const MOST_PATCHES = 8;
/** Least spread of brightness in a piece, grey levels, both across and down. */
const LEAST_TEXTURE = 3;
/** A piece is looked for this far from where it was last, px. */
const REACH_PX = 4;
/** A piece fits when its mean difference is no larger, grey levels, its own light taken out. */
const MOST_DIFFERENCE = 14;
/** Fewer pieces than this tell nothing of the camera. */
const LEAST_AGREEING = 3;

/** How far the camera has moved by now: px that the whole background is off. */
export interface CameraShift {
  px: number;
  /** Pieces of background that were found again. */
  pieces: number;
}

/**
 * Whether the camera stands still: pieces of the background, away from the plate and its way, are
 * looked for where they were.
 */
export class SteadyCheck {
  readonly #patches: Patch[];

  constructor(frame: GreyFrame, plate: { xPx: number; radiusPx: number }) {
    this.#patches = texturedPatches(frame, plate);
  }

  /** Undefined where too little of the background can be told apart. */
  look(frame: GreyFrame): CameraShift | undefined {
    const found: Patch[] = [];
    for (const patch of this.#patches) if (follow(frame, patch)) found.push(patch);
    if (found.length < LEAST_AGREEING) return undefined;
    const dx = median(found.map((patch) => patch.dx)) ?? 0;
    const dy = median(found.map((patch) => patch.dy)) ?? 0;
    return { px: Math.hypot(dx, dy), pieces: found.length };
  }
}

function texturedPatches(frame: GreyFrame, plate: { xPx: number; radiusPx: number }): Patch[] {
  const candidates: Array<{ xPx: number; yPx: number; texture: number }> = [];
  const step = Math.max(SIDE, Math.floor(Math.min(frame.widthPx, frame.heightPx) / 14));
  const margin = SIDE;
  for (let y = margin; y < frame.heightPx - SIDE - margin; y += step)
    for (let x = margin; x < frame.widthPx - SIDE - margin; x += step) {
      if (Math.abs(x + SIDE / 2 - plate.xPx) < 1.35 * plate.radiusPx) continue;
      const texture = textureOf(frame, x, y);
      if (texture >= LEAST_TEXTURE) candidates.push({ xPx: x, yPx: y, texture });
    }
  candidates.sort((a, b) => b.texture - a.texture);
  // Spread over the picture: what is near a better piece is left out.
  const chosen: typeof candidates = [];
  for (const candidate of candidates) {
    if (chosen.length === MOST_PATCHES) break;
    if (
      chosen.every(
        (other) => Math.hypot(other.xPx - candidate.xPx, other.yPx - candidate.yPx) > 2.5 * step,
      )
    )
      chosen.push(candidate);
  }
  return chosen.map(({ xPx, yPx }) => ({ xPx, yPx, grey: cut(frame, xPx, yPx), dx: 0, dy: 0 }));
}

function cut(frame: GreyFrame, x: number, y: number): Float32Array {
  const out = new Float32Array(SIDE * SIDE);
  for (let j = 0; j < SIDE; j++)
    for (let i = 0; i < SIDE; i++)
      out[j * SIDE + i] = frame.grey[(y + j) * frame.stridePx + x + i] as number;
  return out;
}

/** The smaller of the spreads across and down: an edge alone slides along itself. */
function textureOf(frame: GreyFrame, x: number, y: number): number {
  let across = 0;
  let down = 0;
  for (let j = 0; j < SIDE; j += 2)
    for (let i = 0; i < SIDE; i += 2) {
      const at = (y + j) * frame.stridePx + x + i;
      across += Math.abs((frame.grey[at + 2] as number) - (frame.grey[at] as number));
      down += Math.abs(
        (frame.grey[at + 2 * frame.stridePx] as number) - (frame.grey[at] as number),
      );
    }
  return Math.min(across, down) / (SIDE / 2) ** 2;
}

function follow(frame: GreyFrame, patch: Patch): boolean {
  let best = Number.POSITIVE_INFINITY;
  let [bx, by] = [0, 0];
  for (let dy = patch.dy - REACH_PX; dy <= patch.dy + REACH_PX; dy++)
    for (let dx = patch.dx - REACH_PX; dx <= patch.dx + REACH_PX; dx++) {
      const x = patch.xPx + dx;
      const y = patch.yPx + dy;
      if (x < 0 || y < 0 || x + SIDE > frame.widthPx || y + SIDE > frame.heightPx) continue;
      const difference = differenceAt(frame, patch, x, y, best);
      if (difference < best) {
        best = difference;
        [bx, by] = [dx, dy];
      }
    }
  if (best > MOST_DIFFERENCE) return false;
  patch.dx = bx;
  patch.dy = by;
  return true;
}

function differenceAt(
  frame: GreyFrame,
  patch: Patch,
  x: number,
  y: number,
  enough: number,
): number {
  let light = 0;
  for (let j = 0; j < SIDE; j += 4)
    for (let i = 0; i < SIDE; i += 4)
      light +=
        (frame.grey[(y + j) * frame.stridePx + x + i] as number) -
        (patch.grey[j * SIDE + i] as number);
  light /= (SIDE / 4) ** 2;
  let sum = 0;
  const most = enough * (SIDE / 2) ** 2;
  for (let j = 0; j < SIDE; j += 2) {
    for (let i = 0; i < SIDE; i += 2)
      sum += Math.abs(
        (frame.grey[(y + j) * frame.stridePx + x + i] as number) -
          (patch.grey[j * SIDE + i] as number) -
          light,
      );
    if (sum > most) return Number.POSITIVE_INFINITY;
  }
  return sum / (SIDE / 2) ** 2;
}
