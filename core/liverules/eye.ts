/** How fast a set looked to the coach: above what was wanted, on it, or slow. */
export const EYES = ["fast", "on", "slow"] as const;
export type Eye = (typeof EYES)[number];

export const EYE_WORDS: Record<Eye, string> = { fast: "fast", on: "on speed", slow: "slow" };
