import { styleById } from "../../boxsquat/styles";
import type { Rule } from "../rule";
import { boxStyleWords } from "../school";
import { onBox } from "../slots";

/** A style on the box that the school does not teach. */
export const boxStyle: Rule = {
  code: "box-style",
  of: "slot",
  level: "note",
  from: "the school",
  find: (at, { school }) => {
    const style = styleById(at.slot.box?.styleId);
    return onBox(at) && style && !style.rocks && !school.boxStyles.includes(style.id)
      ? {
          text: `${at.name}: ${style.name.toLowerCase()} is not this school's style. It offers ${boxStyleWords(school)}.`,
        }
      : undefined;
  },
};
