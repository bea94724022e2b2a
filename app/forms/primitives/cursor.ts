/** What a whole number of the database holds; no log and no plan gets this long. */
export const MOST_CURSOR = 2 ** 31 - 1;

/** The number after which somebody wants to read on; undefined where it is none. */
export function cursorFrom(text: string | null): number | undefined {
  const after = Number(text ?? "0");
  return Number.isInteger(after) && after >= 0 && after <= MOST_CURSOR ? after : undefined;
}
