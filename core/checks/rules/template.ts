import { TEMPLATE_NAMES } from "../../plan/block";
import type { Rule } from "../rule";

/** A day's order that is not the school's. */
export const template: Rule = {
  code: "template",
  of: "block",
  level: "note",
  from: "the school",
  find: ({ block }, { school }) =>
    block.template === school.order
      ? undefined
      : {
          text: `The block's order is ${TEMPLATE_NAMES[block.template]}, the school's ${TEMPLATE_NAMES[school.order]}.`,
        },
};
