interface Point {
  xPx: number;
  yPx: number;
}

/**
 * How far the back leans from upright where the bar has just come down: the line from the hip to
 * the shoulder against the plumb line, degrees; the same to either side. A mark to look at, never a
 * verdict: clothes, a turned camera and the finger are in it, some 3° or more.
 *
 * @param up which way is up in the picture
 * @returns 0–180; undefined where the two points are one
 * @example backAngle({ hip: { xPx: 0, yPx: 0 }, shoulder: { xPx: 10, yPx: -10 }, up: { x: 0, y: -1 } }) // 45
 */
export function backAngle(of: {
  hip: Point;
  shoulder: Point;
  up: { x: number; y: number };
}): number | undefined {
  const x = of.shoulder.xPx - of.hip.xPx;
  const y = of.shoulder.yPx - of.hip.yPx;
  const along = x * of.up.x + y * of.up.y;
  const across = Math.abs(x * of.up.y - y * of.up.x);
  if (!(Math.hypot(x, y) > 0 && Math.hypot(of.up.x, of.up.y) > 0)) return undefined;
  const degrees = (Math.atan2(across, along) * 180) / Math.PI;
  return Number.isFinite(degrees) ? degrees : undefined;
}

/** What it changed by over a set: the last marked rep against the first, degrees more forward. */
export function backDrift(angles: ReadonlyArray<number | undefined>): number | undefined {
  const marked = angles.filter((angle) => angle !== undefined);
  const [first] = marked;
  const last = marked.at(-1);
  return marked.length < 2 || first === undefined || last === undefined ? undefined : last - first;
}
