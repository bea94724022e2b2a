import { CONVENTION_NAMES } from "../../resistance/setup";
import type { Rule } from "../rule";

/** A percentage that counts bands or chains in another way than the school. */
export const convention: Rule = {
  code: "convention",
  of: "slot",
  level: "note",
  from: "the school",
  find: ({ slot: { recipe }, name }, { school }) =>
    (recipe.resistancePercent ?? 0) > 0 &&
    recipe.basis === "percent" &&
    recipe.convention !== school.convention
      ? {
          text: `${name} counts ${CONVENTION_NAMES[recipe.convention].toLowerCase()}; this school counts ${CONVENTION_NAMES[school.convention].toLowerCase()}. The same number is another load.`,
        }
      : undefined,
};
