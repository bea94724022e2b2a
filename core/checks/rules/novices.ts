import { isNovice, names, type Rule } from "../rule";

/** Percentages for those new to the bar. */
export const novices: Rule = {
  code: "novices",
  of: "block",
  level: "note",
  from: "the school",
  find: ({ slots, athletes }) => {
    const novices = athletes.filter(isNovice);
    return novices.length > 0 && slots.some(({ slot }) => slot.recipe.basis === "percent")
      ? {
          text: `${names(novices)}: under a year of training, percentages are information only. Ramp by speed or by reserve.`,
        }
      : undefined;
  },
};
