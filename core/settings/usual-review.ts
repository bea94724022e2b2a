import type { CoachValues } from "./coach-values";

/**
 * The usual numbers of reviews that a team may change, apart from those of usual.ts: no rack's tablet needs
 * them. Words, ranges and sources stand in team-defaults.ts.
 */
export const USUAL_REVIEW = {
  riseChancePercent: 95,
  smallestRiseMps: 0.01,
  stallChancePercent: 80,
  fadePercent: 8,
  fadeRestS: 15,
  floorUnderPercent: 15,
  trendWeeks: 12,
  profileDays: 56,
} as const;

export type ReviewKey = keyof typeof USUAL_REVIEW;

/** The team's number, else the usual one. */
export const reviewDefault = (values: CoachValues, key: ReviewKey): number =>
  values[key] ?? USUAL_REVIEW[key];
