import { SPINE_CAUTION, styleById } from "../../boxsquat/styles";
import type { Rule } from "../rule";
import { boxStyleWords } from "../school";
import { onBox } from "../slots";

/** Rocking back on the box. */
export const boxRock: Rule = {
  code: "box-rock",
  of: "slot",
  level: "refused",
  from: "Cautions",
  find: (at, { school }) =>
    onBox(at) && styleById(at.slot.box?.styleId)?.rocks
      ? {
          text: `${at.name}: rocking back is never done under a bar. ${
            school.rockingDrill
              ? "This school allows it as a hip drill: put it on as an exercise without load."
              : `It is off by default. Instead: ${boxStyleWords(school)}.`
          } ${SPINE_CAUTION}`,
        }
      : undefined,
};
