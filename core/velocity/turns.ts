/** Turning points of a height curve: the alternating tops and bottoms that are further apart
 * than `hysteresisM`. The first and the last sample close the list. */
export interface Turn {
  kind: "top" | "bottom";
  index: number;
}

export function findTurns(heights: Float64Array, hysteresisM: number): Turn[] {
  const n = heights.length;
  if (n === 0) return [];
  const turns: Turn[] = [];
  let high = 0;
  let low = 0;
  let direction = 0;
  for (let i = 1; i < n; i++) {
    const h = heights[i] as number;
    if (h > (heights[high] as number)) high = i;
    if (h < (heights[low] as number)) low = i;
    if (direction >= 0 && h < (heights[high] as number) - hysteresisM) {
      turns.push({ kind: "top", index: high });
      direction = -1;
      low = i;
      high = i;
    } else if (direction <= 0 && h > (heights[low] as number) + hysteresisM) {
      turns.push({ kind: "bottom", index: low });
      direction = 1;
      low = i;
      high = i;
    }
  }
  if (direction > 0) turns.push({ kind: "top", index: high });
  if (direction < 0) turns.push({ kind: "bottom", index: low });
  return turns;
}
