import { teamDefault } from "../../settings/usual";
import { countsReps, repsOf } from "../intensity";
import { firstWeek, type Rule } from "../rule";

/** A primer that is long enough to tire. */
export const primerReps: Rule = {
  code: "primer-reps",
  of: "slot",
  level: "warning",
  from: "Coach-set values",
  find: ({ slot, name, working }, { coachValues }) => {
    const most = teamDefault(coachValues, "primerMostReps");
    return slot.section !== "primer" || !countsReps(slot.recipe)
      ? undefined
      : firstWeek(working, ({ week, own }) =>
          repsOf(own) > most
            ? `${name}, week ${week}: ${repsOf(own)} reps in the primer, over ${most}. Light, fast and little: it wakes up, and does not tire.`
            : undefined,
        );
  },
};
