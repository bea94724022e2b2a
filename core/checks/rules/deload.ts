import { markOf, slotWeek } from "../../plan/block";
import type { Rule } from "../rule";

/** Too many weeks without a deload or a test. */
export const deload: Rule = {
  code: "deload",
  of: "block",
  level: "warning",
  from: "the school",
  find: ({ block, slots }, { school, settings }) => {
    let run = 0;
    let longest = 0;
    for (let week = 1; week <= block.weeks; week++) {
      const eased =
        markOf(block, week) !== undefined ||
        slots.some(({ slot }) => {
          const kind = slotWeek(block, slot, week, settings)?.kind;
          return kind === "deload" || kind === "test";
        });
      run = eased ? 0 : run + 1;
      longest = Math.max(longest, run);
    }
    return longest > school.deloadAfterWeeks
      ? {
          text: `${longest} weeks without a deload or a test; one after ${school.deloadAfterWeeks}.`,
        }
      : undefined;
  },
};
