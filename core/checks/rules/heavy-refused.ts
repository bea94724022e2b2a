import { names, type Rule, refusedFor } from "../rule";
import { heavySlot } from "../slots";

/** Heavy work for somebody for whom it is refused by default. */
export const heavyRefused: Rule = {
  code: "heavy-refused",
  of: "slot",
  level: "refused",
  from: "Cautions",
  find: ({ slot, name, variantId, lift }, _, { athletes }) => {
    const refused =
      variantId !== undefined && heavySlot(slot) ? refusedFor(athletes, "heavy", lift?.lift) : [];
    return refused.length === 0
      ? undefined
      : {
          of: refused,
          text: `${name}: heavy work is refused by default for ${names(refused)}. Give them another slot, or answer with a reason.`,
        };
  },
};
