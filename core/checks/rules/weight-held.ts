import { teamDefault } from "../../settings/usual";
import type { Rule } from "../rule";

/** A found speed weight that stays the same for more weeks than it is held. */
export const weightHeld: Rule = {
  code: "weight-held",
  of: "slot",
  level: "warning",
  from: "the school",
  find: ({ slot, name, working }, { coachValues }) => {
    if (slot.recipe.basis !== "found") return undefined;
    const most = teamDefault(coachValues, "holdWeeksMost");
    let run = 0;
    let longest = 0;
    let last: string | undefined;
    for (const { own } of working) {
      const asked = JSON.stringify(own.sets.map((set) => set.basis));
      run = asked === last ? run + 1 : 1;
      last = asked;
      longest = Math.max(longest, run);
    }
    return longest > most
      ? {
          text: `${name} holds the found weight for ${longest} weeks; ${most} at most, then a step or a new one.`,
        }
      : undefined;
  },
};
