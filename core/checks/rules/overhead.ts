import { exerciseIn } from "../../plan/block";
import { teamDefault } from "../../settings/usual";
import type { Rule } from "../rule";

/** Overhead pressing too often. */
export const overhead: Rule = {
  code: "overhead",
  of: "block",
  level: "warning",
  from: "the school",
  find: ({ block, slots }, { workOf, coachValues }) => {
    const everyWeeks = teamDefault(coachValues, "overheadEveryWeeks");
    const presses = slots
      .filter(({ slot }) => slot.section === "accessories")
      .flatMap(({ slot, weeks }) =>
        weeks
          .filter(({ week }) => workOf(slot, exerciseIn(block, slot, week))?.overhead === true)
          .map(({ week }) => week),
      );
    const weeks = [...new Set(presses)].sort((a, b) => a - b);
    const close = weeks.find((week, i) => i > 0 && week - (weeks[i - 1] ?? 0) < everyWeeks);
    return close === undefined
      ? undefined
      : {
          text: `Overhead pressing as an accessory comes again in week ${close}: no more often than every ${everyWeeks} weeks.`,
        };
  },
};
