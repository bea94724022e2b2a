import type { ReviewCall, ShownCall, ShownDecision } from "../../../core/review/calls";
import type { StoredCall } from "../../../db/queries/reviews.server";
import { standsOn } from "./group-calls.server";

/** A call as a page shows it, with the word that stands on it. */
export function callOf(call: ReviewCall, decided: readonly StoredCall[]): ShownCall {
  const stands = standsOn(decided, call.about);
  return {
    kind: call.kind,
    about: call.about,
    athleteId: call.athleteId,
    proposal: call.proposal,
    evidence: call.evidence,
    action: call.action,
    decided: stands && decidedOf(stands),
  };
}

export const decidedOf = (call: StoredCall): ShownDecision => ({
  id: call.id,
  kind: call.kind,
  decision: call.decision,
  proposal: call.proposal,
  reason: call.reason,
  by: call.enteredBy,
  date: call.date,
  effect: call.effect,
  undone: call.undoneAt !== null,
});
