import type { Rule } from "../rule";

/** A pairing whose complex is gone. */
export const pairingGone: Rule = {
  code: "pairing-gone",
  of: "pairing",
  level: "warning",
  from: "Arithmetic",
  find: ({ complexId, dayName }, { complexOf }) =>
    complexOf(complexId)
      ? undefined
      : {
          text: `${dayName}: its complex is not in the library any more. Take it off, or choose another.`,
        },
};
