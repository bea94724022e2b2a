import type { LocalDate } from "../units/time";
import type { Text } from "../units/written";

/** What a review may ask a coach to decide. */
export const CALL_KINDS = [
  "hold",
  "lower",
  "test",
  "raise",
  "rest",
  "floor",
  "variation",
  "deload",
  "fault",
  "heavy",
  "speed-weight",
  "sensor",
  "profile",
] as const;
export type CallKind = (typeof CALL_KINDS)[number];

export const CALL_NAMES: Record<CallKind, string> = {
  hold: "Hold the load",
  lower: "Lower the base",
  test: "Test the max",
  raise: "Raise the base",
  rest: "Longer rest",
  floor: "A floor of their own",
  variation: "Change the variation",
  deload: "Deload",
  fault: "A fault that returns",
  heavy: "Heavy work too close",
  "speed-weight": "Speed weight held long enough",
  sensor: "A sensor that drifts",
  profile: "Test the profile",
};

/** What taking a call does. */
export type CallAction =
  /** A new base of a lift, kg: a coach's record that percentages stand on from now on. */
  | { type: "base"; variantId: string; fromKg: number; toKg: number }
  /** More rest for one athlete in one slot of a plan, s. */
  | { type: "rest"; planId: string; slotId: string; addS: number }
  /** A floor for one athlete in one slot of a plan, in place of the slot's, m/s. */
  | { type: "floor"; planId: string; slotId: string; floorMps: number }
  /** A week of its own in a plan. */
  | { type: "week"; planId: string; mark: "deload" | "test"; week: number }
  /** Something to be done at the next training, kept in sight until it is. */
  | { type: "to-do"; what: ToDo; days: number }
  /** Nothing changes, and the word stands. */
  | { type: "keep" };

export const TO_DOS = ["test", "profile", "variation", "look", "sensor", "speed-weight"] as const;
export type ToDo = (typeof TO_DOS)[number];

/** What taking it changed, with what takes it back. */
export type CallEffect =
  | { type: "none" }
  | {
      type: "base";
      variantId: string;
      fromKg: number;
      toKg: number;
      recordId: string;
      before: { recordId: string; factor: number | null } | null;
    }
  | { type: "edit"; planId: string; editId: string; words: string }
  | { type: "to-do"; what: ToDo; until: LocalDate };

/** A day's speed at one load, as a call's evidence draws it. */
export interface EvidenceDay {
  date: LocalDate;
  speedMps: number;
  /** Of the day's reading and form, m/s. */
  sdMps: number;
}

/** What a call stands on, kept with the decision. */
export interface CallEvidence {
  lines: Text[];
  /** Speed at one load over the days, kg. */
  days?: { loadKg: number; days: EvidenceDay[] };
  /** The newest day's sets at one load, m/s. */
  sets?: Array<{ number: number; bestMps: number; cut: boolean }>;
  /** What was so when it was decided: what became of it is told against this. */
  level?: { loadKg: number; speedMps: number; sdMps: number; fadePercent?: number };
}

/** A decision that waits: one line, its evidence, what taking it does. */
export interface ReviewCall {
  kind: CallKind;
  /** Names it for good: decided once, it is not asked again. */
  about: string;
  athleteId: string | undefined;
  squadId: string | undefined;
  planId: string | undefined;
  slotId: string | undefined;
  variantId: string | undefined;
  proposal: Text;
  evidence: CallEvidence;
  action: CallAction;
  /** How sure the evidence is, 0–1: ranks calls of one kind. */
  sure: number;
}

/** A call as a page shows it, with the word that stands on it. */
export type ShownCall = Pick<
  ReviewCall,
  "kind" | "about" | "athleteId" | "proposal" | "evidence" | "action"
> & { decided: ShownDecision | undefined };

/** A decision as a page shows it. */
export interface ShownDecision {
  id: string;
  kind: CallKind;
  decision: "taken" | "changed" | "declined";
  proposal: Text;
  reason: string;
  by: string;
  date: LocalDate;
  effect: CallEffect;
  undone: boolean;
}

/** Calls in the order in which they change most: first what guards somebody, then what moves loads. */
export function rankCalls<T extends Pick<ReviewCall, "kind" | "sure" | "about">>(
  calls: readonly T[],
): T[] {
  return [...calls].sort(
    (a, b) =>
      CALL_KINDS.indexOf(a.kind) - CALL_KINDS.indexOf(b.kind) ||
      b.sure - a.sure ||
      (a.about < b.about ? -1 : 1),
  );
}
