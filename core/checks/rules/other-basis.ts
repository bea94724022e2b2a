import type { Rule } from "../rule";

const words = (basis: string) => basis.replace("-", " ");

/** A main lift whose load is set another way than the school sets it. */
export const otherBasis: Rule = {
  code: "other-basis",
  of: "slot",
  level: "note",
  from: "the school",
  find: ({ slot, name }, { school }) => {
    const { basis } = slot.recipe;
    return basis !== school.loadBy && slot.section === "main" && basis !== "eye"
      ? { text: `${name} goes by ${words(basis)}, the school by ${words(school.loadBy)}.` }
      : undefined;
  },
};
