import { countsReps, longestSet } from "../intensity";
import { firstWeek, type Rule } from "../rule";

/** Sets too long for speed. */
export const repsForSpeed: Rule = {
  code: "reps-for-speed",
  of: "slot",
  level: "warning",
  from: "the school",
  find: ({ slot: { recipe }, name, working }, { school }) =>
    recipe.aim !== "speed" || !countsReps(recipe)
      ? undefined
      : firstWeek(working, ({ week, own }) => {
          const reps = longestSet(own);
          return reps > school.speedReps
            ? `${name}, week ${week}: ${reps} reps a set; speed holds for 1 to ${school.speedReps}. More is growth work.`
            : undefined;
        }),
};
