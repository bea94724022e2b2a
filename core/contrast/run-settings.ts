import type { CoachValues } from "../settings/coach-values";
import { teamDefault } from "../settings/usual";
import type { RunSettings } from "./run";

/** The team's, else the usual ones. */
export const runSettings = (values: CoachValues): RunSettings => ({
  endAtLossPercent: teamDefault(values, "pairingLossPercent"),
  earlyUnderPercent: teamDefault(values, "pairingEarlyPercent"),
  sameWithinPercent: teamDefault(values, "pairingSamePercent"),
});

export const RUN_DEFAULTS: RunSettings = runSettings({});
