import { longestSet } from "../intensity";
import { firstWeek, type Rule } from "../rule";

/** Sets too long for power. */
export const repsForPower: Rule = {
  code: "reps-for-power",
  of: "slot",
  level: "warning",
  from: "the school",
  find: ({ slot: { recipe }, name, working }, { school }) =>
    recipe.aim !== "power" || recipe.counts === "metres"
      ? undefined
      : firstWeek(working, ({ week, own }) => {
          const reps = longestSet(own);
          return reps > school.powerReps
            ? `${name}, week ${week}: ${reps} reps a set; power holds for at most ${school.powerReps}. Beyond it is growth work.`
            : undefined;
        }),
};
