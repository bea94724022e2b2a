import type { Rule } from "../rule";

/** A rest too short for power. */
export const powerRest: Rule = {
  code: "power-rest",
  of: "slot",
  level: "warning",
  from: "the school",
  find: ({ slot: { recipe, group }, name, working }, { school }) =>
    working.length > 0 &&
    recipe.aim === "power" &&
    recipe.rest.leastS < school.powerRestS &&
    !recipe.timed &&
    group === ""
      ? {
          text: `${name}: ${recipe.rest.leastS} s of rest; power wants ${school.powerRestS} s and more, or output falls.`,
        }
      : undefined,
};
