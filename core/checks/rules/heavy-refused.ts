import { names, type Rule, refusedFor } from "../rule";
import { HEAVY_PERCENT, heavySlot, reaching, speedSlot } from "../slots";

/** Heavy work for somebody for whom it is refused by default. */
export const heavyRefused: Rule = {
  code: "heavy-refused",
  of: "slot",
  level: "refused",
  from: "Cautions",
  find: ({ slot, name, variantId, lift }, input, { athletes }) => {
    if (variantId === undefined) return undefined;
    // A slot by another basis than percent is heavy for whom it comes to so much.
    const whom = heavySlot(slot)
      ? athletes
      : speedSlot(slot)
        ? []
        : reaching(input, slot.id, athletes, HEAVY_PERCENT);
    const refused = refusedFor(whom, "heavy", lift?.lift);
    return refused.length === 0
      ? undefined
      : {
          of: refused,
          text: `${name}: heavy work is refused by default for ${names(refused)}. Instead: the same lift by speed or with reps in reserve, under 80 %. Or answer with a reason.`,
        };
  },
};
