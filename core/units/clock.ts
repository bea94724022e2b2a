/** A moment as one device saw it: monotonic time compares only within one start of its page. */
export interface ClockMark {
  deviceId: string;
  /** One start of the device's page. */
  bootId: string;
  /** On that page's monotonic clock, ms. */
  monoMs: number;
  /** The same moment in ms since 1970, as well as it is known. */
  atMs: number;
}

/** Whether the time between two moments was measured by one clock. */
export function isOneClock(a: ClockMark, b: ClockMark): boolean {
  return a.deviceId === b.deviceId && a.bootId === b.bootId;
}

/**
 * Time from one moment to a later one, s, never under 0: by one device's monotonic clock where
 * it saw both, else an estimate by the clocks of two.
 */
export function secondsBetween(
  from: ClockMark,
  to: ClockMark,
): { seconds: number; measured: boolean } {
  const measured = isOneClock(from, to);
  const ms = measured ? to.monoMs - from.monoMs : to.atMs - from.atMs;
  return { seconds: Number.isFinite(ms) ? Math.max(0, ms / 1000) : 0, measured };
}
