import { SPINE_CAUTION, styleById } from "../../boxsquat/styles";
import type { Rule } from "../rule";
import { onBox } from "../slots";

/** Rocking back on the box. */
export const boxRock: Rule = {
  code: "box-rock",
  of: "slot",
  level: "refused",
  from: "Cautions",
  find: (at) =>
    onBox(at) && styleById(at.slot.box?.styleId)?.rocks
      ? { text: `${at.name}: rocking back is off by default. ${SPINE_CAUTION}` }
      : undefined,
};
