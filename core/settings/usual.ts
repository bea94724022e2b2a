import type { CoachValues } from "./coach-values";

/**
 * The usual numbers that a team may change. Each stands once, here; its words, range and source stand
 * in team-defaults.ts, which a rack's tablet does not need.
 */
export const USUAL = {
  changeHands: 2,
  turnSeconds: 6,
  platesSeconds: 3,
  hooksSeconds: 8,
  pinsSeconds: 8,
  matsSeconds: 5,
  boxesSeconds: 15,
  bandsSeconds: 10,
  pairingLossPercent: 10,
  pairingEarlyPercent: 80,
  pairingSamePercent: 3,
  complexGapLeastS: 10,
  complexGapMostS: 30,
  potentiationLeastS: 240,
  pairingSquatPerBody: 1.5,
  pairingTrainingYears: 1,
  pairingRoundRestS: 90,
  lightJumpBodyPercent: 40,
  lightJumpMaxPercent: 40,
  gateSharePercent: 80,
  gateWeeks: 2,
  holdWeeksMost: 3,
  fullDepthPercent: 50,
  depthWeeks: 3,
  boxFreeLeastPercent: 60,
  boxFreeMostPercent: 70,
  bouncesThatCut: 2,
  overheadEveryWeeks: 4,
  primerMostReps: 15,
  fewCutPercent: 10,
} as const;

export type DefaultKey = keyof typeof USUAL;

/** The team's number, else the usual one. */
export const teamDefault = (values: CoachValues, key: DefaultKey): number =>
  values[key] ?? USUAL[key];

/** The usual number itself. */
export const usual = (key: DefaultKey): number => USUAL[key];
