import { recipeWeeks } from "../../recipe/recipe";
import { isGone, type Rule } from "../rule";

/** A wave that is longer than the weeks left for it. */
export const waveTooLong: Rule = {
  code: "wave-too-long",
  of: "slot",
  level: "warning",
  from: "Arithmetic",
  find: (at, { block }) => {
    const { slot, name } = at;
    const length = recipeWeeks(slot.recipe).length;
    const ownWeeks = Object.values(block.marks).filter((mark) => mark.week >= slot.fromWeek);
    const left = block.weeks - slot.fromWeek + 1 - ownWeeks.length;
    return !isGone(at) && slot.fromWeek <= block.weeks && !slot.repeat && length > left
      ? {
          text: `${name}: a wave of ${length} weeks in the ${left} that are left. Lengthen the block or begin earlier; the rest is cut.`,
        }
      : undefined;
  },
};
