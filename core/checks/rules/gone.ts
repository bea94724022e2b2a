import type { Rule } from "../rule";

/** A lift or an exercise that is not in the library any more. */
export const gone: Rule = {
  code: "gone",
  of: "slot",
  level: "refused",
  from: "Arithmetic",
  find: ({ slot, lift }, input) => {
    if (slot.work.kind === "lift")
      return lift
        ? undefined
        : {
            text: `${slot.recipe.name}: its lift is not in the library any more. Choose another.`,
          };
    const away = slot.work.exerciseIds.filter((id) => !input.workOf(slot, id));
    return away.length === 0
      ? undefined
      : {
          text: `${slot.recipe.name}: ${away.length} of its exercises ${away.length === 1 ? "is" : "are"} not in the library any more. Choose another.`,
        };
  },
};
