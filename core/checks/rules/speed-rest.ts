import type { Rule } from "../rule";

/** Rest of speed work outside what the school rests. */
export const speedRest: Rule = {
  code: "speed-rest",
  of: "slot",
  level: "note",
  from: "the school",
  find: ({ slot: { recipe, group }, name, working }, { school }) => {
    const { leastS, mostS } = recipe.rest;
    const outside = leastS > school.rest.mostS || mostS < school.rest.leastS;
    return working.length > 0 && recipe.aim === "speed" && !recipe.timed && group === "" && outside
      ? {
          text: `${name}: ${leastS} to ${mostS} s of rest; this school rests ${school.rest.leastS} to ${school.rest.mostS} s in speed work. The fade over the sets shows which holds.`,
        }
      : undefined;
  },
};
