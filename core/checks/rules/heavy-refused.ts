import { names, type Rule, refusedFor } from "../rule";
import { heavySlot } from "../slots";

/** Heavy work for somebody for whom it is refused by default. */
export const heavyRefused: Rule = {
  code: "heavy-refused",
  of: "slot",
  level: "refused",
  from: "Cautions",
  find: ({ slot, name, variantId }, _, { athletes }) => {
    const refused = variantId !== undefined && heavySlot(slot) ? refusedFor(athletes, "heavy") : [];
    return refused.length === 0
      ? undefined
      : {
          text: `${name}: heavy work is refused by default for ${names(refused)}. Give them another slot, or answer with a reason.`,
        };
  },
};
