import type { Rule } from "../rule";

/** A lift whose kind of bar stands on no rack of the room. */
export const noBar: Rule = {
  code: "no-bar",
  of: "slot",
  level: "refused",
  from: "Arithmetic",
  find: ({ slot, name }, input) => {
    const found = input.noBar.find((one) => one.slotId === slot.id);
    return found && { text: `${name}: ${found.reason}` };
  },
};
