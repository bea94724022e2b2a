import { isGone, type Rule } from "../rule";

/** Work without a rest, unless its time or its group sets one. */
export const noRest: Rule = {
  code: "no-rest",
  of: "slot",
  level: "refused",
  from: "Arithmetic",
  find: (at) => {
    const { slot, name } = at;
    return !isGone(at) &&
      slot.recipe.rest.mostS <= 0 &&
      slot.recipe.timed === undefined &&
      slot.group === ""
      ? { text: `${name}: no rest is set.` }
      : undefined;
  },
};
