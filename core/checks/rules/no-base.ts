import { loadsExercise } from "../../plan/block-loads";
import { names, type Rule } from "../rule";
import { ofTheMax } from "../slots";

/** A percentage of a max that somebody does not have. */
export const noBase: Rule = {
  code: "no-base",
  of: "slot",
  level: "warning",
  from: "Arithmetic",
  find: ({ slot, name, variantId }, _, { athletes }) => {
    if (variantId === undefined) {
      return loadsExercise(slot.recipe.basis)
        ? undefined
        : {
            level: "refused",
            text: `${name} is an exercise: it has no max and no line. Give a fixed load, a share of body mass, or the eye.`,
          };
    }
    if (!ofTheMax(slot)) return undefined;
    const without = athletes.filter((one) => !one.maxOf.has(variantId));
    return without.length === 0
      ? undefined
      : {
          of: without,
          text: `${name}: no working max for ${without.length === athletes.length ? "anybody" : names(without)}. A percentage without a base is no load.`,
        };
  },
};
