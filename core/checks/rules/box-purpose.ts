import type { Rule } from "../rule";
import { onBox } from "../slots";

/** A box squat without a purpose or a style. */
export const boxPurpose: Rule = {
  code: "box-purpose",
  of: "slot",
  level: "note",
  from: "the school",
  find: (at) =>
    onBox(at) && !at.slot.box
      ? { text: `${at.name}: no purpose or style is set. Set them under Days and slots.` }
      : undefined,
};
