import type { CoachValues } from "../settings/coach-values";

const SQUATS = ["powerSquatFromPercent", "powerSquatToPercent"] as const;
const PRESSES = ["powerPressFromPercent", "powerPressToPercent"] as const;
/** Which of the coach's bands a lift goes by; the rest have none. */
const BAND_OF: Readonly<Record<string, readonly [from: string, to: string]>> = {
  squat: SQUATS,
  "box-squat": SQUATS,
  bench: PRESSES,
  press: PRESSES,
};

export interface PowerBand {
  lowPercent: number;
  highPercent: number;
}

/**
 * Where a group's power usually peaks, % of the 1RM: the coach's to set, both ends or none. It
 * stands beside an athlete's own peak and decides nothing. DOMAIN 6.
 */
export function usualPowerBand(lift: string, values: CoachValues): PowerBand | undefined {
  const keys = Object.hasOwn(BAND_OF, lift) ? BAND_OF[lift] : undefined;
  const from = keys && values[keys[0]];
  const to = keys && values[keys[1]];
  if (from === undefined || to === undefined) return undefined;
  if (![from, to].every((percent) => percent >= 0 && percent <= 100)) return undefined;
  return { lowPercent: Math.min(from, to), highPercent: Math.max(from, to) };
}

/** The band in words, labelled as a group's: "group's usual 45 to 60 %". */
export const bandWords = (band: PowerBand): string =>
  `group's usual ${band.lowPercent} to ${band.highPercent} %`;
