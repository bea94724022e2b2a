import type { Rule } from "../rule";
import { ENDING_NAMES } from "../school";
import { speedSlot } from "../slots";

/** A speed or power slot that ends its sets by less than the school does. */
export const ending: Rule = {
  code: "ending",
  of: "slot",
  level: "note",
  from: "the school",
  find: ({ slot, name, working, variantId }, { school }) => {
    if (working.length === 0 || variantId === undefined || !speedSlot(slot)) return undefined;
    const { stop } = slot.recipe;
    const missing =
      (school.ending === "loss" && stop.lossPercent === undefined) ||
      (school.ending === "floor" && stop.floorMps === undefined);
    return missing
      ? {
          text: `${name}: this school ends a set by ${ENDING_NAMES[school.ending]}, and the slot has none.`,
        }
      : undefined;
  },
};
