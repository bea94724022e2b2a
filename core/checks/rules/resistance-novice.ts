import { isNovice, names, type Rule } from "../rule";

/** Bands or chains for those new to the bar. */
export const resistanceNovice: Rule = {
  code: "resistance-novice",
  of: "slot",
  level: "warning",
  from: "the school",
  find: ({ slot, name, variantId }, { school }, { athletes }) => {
    const hangs = variantId !== undefined && (slot.recipe.resistancePercent ?? 0) > 0;
    const novices = athletes.filter(isNovice);
    return hangs && novices.length > 0 && school.resistance !== "always"
      ? {
          text: `${name}: bands and chains are for the experienced; ${names(novices)} trained under a year.`,
        }
      : undefined;
  },
};
