import type { Rule } from "../rule";

/** Bands or chains where the school hangs little. */
export const resistanceUse: Rule = {
  code: "resistance-use",
  of: "slot",
  level: "note",
  from: "the school",
  find: ({ slot: { recipe }, name, work }, { school }) =>
    work?.upperBody && (recipe.resistancePercent ?? 0) > 0 && school.resistance === "little"
      ? { text: `${name}: this school hangs little or nothing on upper-body lifts.` }
      : undefined,
};
