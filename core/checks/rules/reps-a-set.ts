import { firstOutsideTotals } from "../intensity";
import type { Rule } from "../rule";

/** Sets of strength work longer than their zone has. */
export const repsASet: Rule = {
  code: "reps-a-set",
  of: "slot",
  level: "warning",
  from: "Prilepin totals",
  find: (at, { school }) =>
    at.slot.recipe.aim !== "strength"
      ? undefined
      : firstOutsideTotals(at, school, ({ sets, set, meanPercent }) => {
          const long = sets.find((one) => one.reps > set.most);
          return (
            long &&
            `${long.reps} reps a set at ${meanPercent.toFixed(0)} %; ${set.least} to ${set.most} in this zone.`
          );
        }),
};
