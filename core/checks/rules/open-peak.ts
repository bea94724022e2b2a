import { BASIS_NAMES } from "../../recipe/basis";
import { names, type Rule } from "../rule";

/** Loads by a peak that the test did not reach: they are a lower bound. */
export const openPeak: Rule = {
  code: "open-peak",
  of: "slot",
  level: "warning",
  from: "Arithmetic",
  find: ({ slot, name }, { heaviest }, { athletes }) => {
    const open = athletes.filter((one) => heaviest[slot.id]?.[one.id]?.peakOpen);
    return open.length === 0
      ? undefined
      : {
          of: open,
          text: `${name} goes by ${BASIS_NAMES[slot.recipe.basis]}, which the test of ${names(open)} did not reach: the load is a lower bound. Test heavier.`,
        };
  },
};
