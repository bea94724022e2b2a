import { slotWeek } from "../../plan/block";
import { describeBasis } from "../../recipe/basis";
import type { Rule } from "../rule";
import { onBox } from "../slots";

/** A first week on the box that rises within itself. */
export const boxFirstWeek: Rule = {
  code: "box-first-week",
  of: "slot",
  level: "warning",
  from: "the school",
  find: (at, { block, settings }) => {
    const { slot, name } = at;
    if (!onBox(at)) return undefined;
    const first = slotWeek(block, slot, slot.fromWeek, settings);
    const asks = new Set(first?.sets.map((set) => describeBasis(set.basis, "kg")) ?? []);
    return asks.size > 1 || (slot.recipe.sessionAdd ?? 0) > 0
      ? {
          text: `${name}: week ${slot.fromWeek} rises within itself. The first week of a box cycle is for getting used to it.`,
        }
      : undefined;
  },
};
