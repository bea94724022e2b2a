import { countsReps, meanIntensity } from "../intensity";
import { firstWeek, type Rule } from "../rule";

/** More than the working max. */
export const overMax: Rule = {
  code: "over-max",
  of: "slot",
  level: "warning",
  from: "Arithmetic",
  find: ({ slot: { recipe }, name, working }) =>
    firstWeek(working, ({ week, own }) =>
      countsReps(recipe) && meanIntensity(recipe, own)?.overMax
        ? `${name}, week ${week}: over 100 % of the working max.`
        : undefined,
    ),
};
