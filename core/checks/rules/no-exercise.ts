import type { Rule } from "../rule";

/** A slot for exercises that names none. */
export const noExercise: Rule = {
  code: "no-exercise",
  of: "slot",
  level: "refused",
  from: "Arithmetic",
  find: ({ slot }) =>
    slot.work.kind === "exercise" && slot.work.exerciseIds.length === 0
      ? { text: `${slot.recipe.name} names no exercise.` }
      : undefined,
};
