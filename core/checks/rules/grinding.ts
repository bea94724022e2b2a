import type { Rule } from "../rule";

/** Fewer reps in reserve than power work keeps. */
export const grinding: Rule = {
  code: "grinding",
  of: "slot",
  level: "warning",
  from: "the school",
  find: ({ slot: { recipe }, name }) =>
    recipe.basis === "reserve" &&
    recipe.leastReserve !== undefined &&
    recipe.start < recipe.leastReserve
      ? {
          text: `${name}: ${recipe.start} reps in reserve, under the ${recipe.leastReserve} that power work keeps. It will grind.`,
        }
      : undefined,
};
