import { names, type Rule, refusedFor } from "../rule";

/** Bands or chains for somebody for whom they are refused by default. */
export const resistanceRefused: Rule = {
  code: "resistance-refused",
  of: "slot",
  level: "refused",
  from: "Cautions",
  find: ({ slot, name, variantId, lift }, _, { athletes }) => {
    const hangs = variantId !== undefined && (slot.recipe.resistancePercent ?? 0) > 0;
    const refused = hangs ? refusedFor(athletes, "bands-chains", lift?.lift) : [];
    return refused.length === 0
      ? undefined
      : {
          of: refused,
          text: `${name}: bands and chains are refused by default for ${names(refused)}.`,
        };
  },
};
