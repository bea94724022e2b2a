import type { Rule } from "../rule";

/** More resistance than this share slows an upper-body lift that it is meant to speed up, %. */
export const UPPER_RESISTANCE_PERCENT = 25;

/** Bands or chains that slow an upper-body lift. */
export const upperResistance: Rule = {
  code: "upper-resistance",
  of: "slot",
  level: "warning",
  from: "the school",
  find: ({ slot: { recipe }, name, work }) =>
    work?.upperBody && (recipe.resistancePercent ?? 0) > UPPER_RESISTANCE_PERCENT
      ? {
          text: `${name}: ${recipe.resistancePercent} % resistance; over ${UPPER_RESISTANCE_PERCENT} % slows an upper-body lift that it is meant to speed up.`,
        }
      : undefined,
};
