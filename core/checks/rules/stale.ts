import { names, type Rule } from "../rule";
import { ofTheMax } from "../slots";

/** A percentage of a max that is old. */
export const stale: Rule = {
  code: "stale",
  of: "slot",
  level: "note",
  from: "Arithmetic",
  find: ({ slot, name, variantId }, _, { athletes }) => {
    if (variantId === undefined || !ofTheMax(slot)) return undefined;
    const stale = athletes.filter((one) => one.staleOf.has(variantId));
    return stale.length === 0
      ? undefined
      : { text: `${name}: the max of ${names(stale)} is stale. Test in week 1, or go by speed.` };
  },
};
