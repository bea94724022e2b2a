import { names, type Rule } from "../rule";

/** A load above everything that somebody has lifted in the variant. */
export const firstTime: Rule = {
  code: "first-time",
  of: "slot",
  level: "note",
  from: "Arithmetic",
  find: ({ slot, name }, { heaviest }, { athletes }) => {
    const over = athletes.filter((one) => heaviest[slot.id]?.[one.id]?.overBestKg !== undefined);
    return over.length === 0
      ? undefined
      : {
          of: over,
          text: `${name} goes above the lifetime best of ${names(over)}: ask first on the day; stopping there is a note, not a failure.`,
        };
  },
};
