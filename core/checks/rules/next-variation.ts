import { recipeWeeks } from "../../recipe/recipe";
import { isGone, type Rule } from "../rule";

/** A wave that ends with another variation: which of the library were not used lately. */
export const nextVariation: Rule = {
  code: "next-variation",
  of: "slot",
  level: "note",
  from: "the school",
  find: (at, { school, before, variationsOf, block }) => {
    const { slot, name, lift, work } = at;
    if (isGone(at) || !lift || slot.recipe.after !== "change-variation" || slot.repeat) {
      return undefined;
    }
    const last = slot.fromWeek + recipeWeeks(slot.recipe).length - 1;
    if (last > block.weeks) return undefined;
    const used = new Set([
      ...(work?.variation ? [work.variation] : []),
      ...before.slice(0, Math.max(0, school.reuseGapWaves - 1)).flat(),
    ]);
    const fresh = variationsOf(lift.lift).filter((one) => !used.has(one));
    return {
      text:
        fresh.length > 0
          ? `${name}: the wave ends in week ${last}, then another variation. Not used in ${school.reuseGapWaves} waves: ${fresh.join(", ")}.`
          : `${name}: the wave ends in week ${last}, then another variation; every one in the library was used in ${school.reuseGapWaves} waves. Add one, or repeat.`,
    };
  },
};
