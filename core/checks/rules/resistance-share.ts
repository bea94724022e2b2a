import type { Rule } from "../rule";

/** More or less in bands and chains than the school hangs. */
export const resistanceShare: Rule = {
  code: "resistance-share",
  of: "slot",
  level: "note",
  from: "the school",
  find: ({ slot: { recipe }, name }, { school }) => {
    const asked = recipe.resistancePercent ?? 0;
    const { leastPercent, mostPercent } = school.resistanceShare;
    return asked > 0 && (asked < leastPercent || asked > mostPercent)
      ? {
          text: `${name}: ${asked} % in bands or chains; this school hangs ${leastPercent} to ${mostPercent} %.`,
        }
      : undefined;
  },
};
