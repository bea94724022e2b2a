/** One picture of a clip as brightness alone. */
export interface GreyFrame {
  /** Brightness 0–255, row by row, `stride` bytes a row. */
  grey: Uint8Array | Uint8ClampedArray;
  widthPx: number;
  heightPx: number;
  stridePx: number;
  /** The picture's own time, s; never one made from a nominal rate. */
  timeS: number;
}

/** Sides of a picture that are read, px: a plate is too small under the first. */
const LEAST_SIDE_PX = 64;
const MOST_SIDE_PX = 8192;

/** Whether a picture's sizes fit its bytes, so that every read below stays inside. */
export function isFrame(frame: GreyFrame): boolean {
  const { grey, widthPx, heightPx, stridePx, timeS } = frame;
  return (
    Number.isInteger(widthPx) &&
    Number.isInteger(heightPx) &&
    Number.isInteger(stridePx) &&
    widthPx >= LEAST_SIDE_PX &&
    heightPx >= LEAST_SIDE_PX &&
    widthPx <= MOST_SIDE_PX &&
    heightPx <= MOST_SIDE_PX &&
    stridePx >= widthPx &&
    grey.length >= stridePx * (heightPx - 1) + widthPx &&
    Number.isFinite(timeS)
  );
}

/**
 * Brightness between pixels, bilinear; outside the picture NaN, so that what is not seen is never
 * taken for a value.
 *
 * @param x px from the left edge's pixel centre, y from the top's
 */
export function brightnessAt(frame: GreyFrame, x: number, y: number): number {
  const { grey, widthPx, heightPx, stridePx } = frame;
  if (!(x >= 0 && y >= 0 && x < widthPx - 1 && y < heightPx - 1)) return Number.NaN;
  const left = x | 0;
  const top = y | 0;
  const fx = x - left;
  const fy = y - top;
  const at = top * stridePx + left;
  const a = grey[at] as number;
  const b = grey[at + 1] as number;
  const c = grey[at + stridePx] as number;
  const d = grey[at + stridePx + 1] as number;
  return a + fx * (b - a) + fy * (c - a + fx * (a - b - c + d));
}
