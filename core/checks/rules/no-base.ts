import { loadsExercise } from "../../plan/exercise-load";
import type { CheckedAthlete } from "../input";
import { names, type Rule } from "../rule";
import { ofTheMax } from "../slots";

/** A load that stands on something which somebody does not have: a max, a line, a found weight. */
export const noBase: Rule = {
  code: "no-base",
  of: "slot",
  level: "warning",
  from: "Arithmetic",
  find: ({ slot, name, variantId }, { heaviest }, { athletes }) => {
    if (variantId === undefined && !loadsExercise(slot.recipe.basis)) {
      return {
        level: "refused",
        text: `${name} is an exercise: it has no max and no line. Give a fixed load, a share of body mass, or the eye.`,
      };
    }
    const whom = (of: readonly CheckedAthlete[]) =>
      of.length === athletes.length ? "anybody" : names(of);
    if (variantId !== undefined && ofTheMax(slot)) {
      const without = athletes.filter((one) => !one.maxOf.has(variantId));
      return without.length === 0
        ? undefined
        : {
            of: without,
            text: `${name}: no working max for ${whom(without)}. A percentage without a base is no load.`,
          };
    }
    const byReason = new Map<string, CheckedAthlete[]>();
    for (const one of athletes) {
      const reason = heaviest[slot.id]?.[one.id]?.reason;
      if (reason !== undefined) byReason.set(reason, [...(byReason.get(reason) ?? []), one]);
    }
    return [...byReason].map(([reason, of], i) => ({
      part: String(i + 1),
      of,
      text: `${name}: no load for ${whom(of)}. ${reason}`,
    }));
  },
};
