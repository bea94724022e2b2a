import { styleById } from "../../boxsquat/styles";
import type { Rule } from "../rule";
import { onBox } from "../slots";

/** A style that stops, without a smallest stop. */
export const boxStop: Rule = {
  code: "box-stop",
  of: "slot",
  level: "note",
  from: "Coach-set values",
  find: (at) =>
    onBox(at) && styleById(at.slot.box?.styleId)?.stops && at.slot.box?.smallestStopS === undefined
      ? { text: `${at.name}: the smallest stop is not set, so bounces are not flagged.` }
      : undefined,
};
