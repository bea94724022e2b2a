/** Clocks that run down: whose, and what is left, s; under 0 where it is over. */
export interface Countdown {
  id: string;
  leftS: number;
}

/** A clock warns so long before it is over, s. */
export const WARN_LEFT_S = 10;

/**
 * What clocks say between two looks at them: "soon" as one comes under the warning, "now" as one
 * runs out; the later of both where several do. A clock seen for the first time says nothing, for
 * whoever opens a screen has missed nothing.
 */
export function countdownSignal(
  before: ReadonlyMap<string, number>,
  now: readonly Countdown[],
  warnS = WARN_LEFT_S,
): "soon" | "now" | undefined {
  let said: "soon" | "now" | undefined;
  for (const { id, leftS } of now) {
    const was = before.get(id);
    if (was === undefined) continue;
    if (was > 0 && leftS <= 0) return "now";
    if (was > warnS && leftS <= warnS && leftS > 0) said = "soon";
  }
  return said;
}
