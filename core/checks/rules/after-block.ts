import { isGone, type Rule } from "../rule";

/** A slot that begins after the block has ended. */
export const afterBlock: Rule = {
  code: "after-block",
  of: "slot",
  level: "refused",
  from: "Arithmetic",
  find: (at, { block }) => {
    const { slot, name } = at;
    return !isGone(at) && slot.fromWeek > block.weeks
      ? { text: `${name} begins in week ${slot.fromWeek}: the block has ${block.weeks}.` }
      : undefined;
  },
};
