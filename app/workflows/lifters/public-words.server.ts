import { OLDER_ON_BOX_WORDS } from "../../../core/boxsquat/styles";
import { AGE_GROUP_WORDS } from "../../../core/maxes/limits";
import type { Block } from "../../../core/plan/block";
import { mayWrite, type Principal } from "../../platform/rights";

/** Owner and coaches know ages and reasons; others learn that a coach decides. */
export const mayKnowReasons = (principal: Principal): boolean =>
  mayWrite(principal, "/athletes/:athleteId");

const ASK = "Ask a coach first.";

/** What a refusal or a verdict says to this reader: to an assistant it gives no age away. */
export function wordsFor(principal: Principal, text: string): string {
  if (mayKnowReasons(principal)) return text;
  return text.replaceAll(AGE_GROUP_WORDS, ASK).replaceAll(OLDER_ON_BOX_WORDS, ASK);
}

const DONE_ALTHOUGH_REFUSED = "Done although refused: ";

/** A test's note with why a refusal was set aside. */
export const noteWithReason = (note: string, reason: string): string =>
  [note, reason && `${DONE_ALTHOUGH_REFUSED}${reason}`].filter(Boolean).join(" · ");

/** The note as this reader may have it: why a refusal was set aside is the coaches' to know. */
export function noteFor(principal: Principal, note: string): string {
  const at = note.indexOf(DONE_ALTHOUGH_REFUSED);
  if (at < 0 || mayKnowReasons(principal)) return note;
  return `${note.slice(0, at)}Done although refused, by a coach.`;
}

/** A block as this reader may have it: why a refused check stays is the coaches' to know. */
export function blockFor(principal: Principal, block: Block): Block {
  if (mayKnowReasons(principal)) return block;
  const answered = Object.entries(block.answered).map(
    ([key, { reason: _, ...answer }]) =>
      [key, { ...answer, reason: "A coach's decision." }] as const,
  );
  return { ...block, answered: Object.fromEntries(answered) };
}
