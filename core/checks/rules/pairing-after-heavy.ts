import { SECTION_NAMES, slotsOf } from "../../plan/block";
import type { Rule } from "../rule";
import { powerFirst } from "../slots";

/** A pairing after heavy work, where the template puts it there. */
export const pairingAfterHeavy: Rule = {
  code: "pairing-after-heavy",
  of: "pairing",
  level: "note",
  from: "the school",
  find: (pairing, { block, complexOf }) => {
    const complex = complexOf(pairing.complexId);
    const heavy = slotsOf(block, pairing.dayId).some(
      (slot) => slot.section === "main" && slot.recipe.aim === "strength",
    );
    return complex && heavy && !powerFirst(block)
      ? {
          text: `${pairing.dayName}, ${complex.name}: this template puts ${SECTION_NAMES.main.toLowerCase()} before it, so the pairing is done tired. Its output says whether it still pays.`,
        }
      : undefined;
  },
};
