import type { Rule } from "../rule";

/** Another block of the squad in the same weeks; a warning where it trains the same lifts. */
export const overlap: Rule = {
  code: "overlap",
  of: "block",
  level: "note",
  from: "Arithmetic",
  find: (_, { overlaps }) =>
    overlaps.map(({ name, from, to, lifts }) => ({
      part: name,
      level: lifts.length > 0 ? ("warning" as const) : ("note" as const),
      text: `${name} of the same squad runs from ${from} to ${to}, within this block${lifts.length > 0 ? `, and trains ${lifts.join(", ")} too` : ""}. Move the start, or put one of them away.`,
    })),
};
