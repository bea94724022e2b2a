import { startTransition, useEffect, useState } from "react";

/** A long list's rows that stand in the page as it arrives: more than a screen holds. */
export const FIRST_ROWS = 26;

/**
 * How many of `count` rows to draw: the first screen as the page arrives, all of them as soon as
 * it is live. Large squads would otherwise hold up everybody's first look.
 */
export function useFirstRows(count: number): number {
  const [live, setLive] = useState(false);
  useEffect(() => startTransition(() => setLive(true)), []);
  return live ? count : Math.min(count, FIRST_ROWS);
}
