import { zoneOf } from "../intensity";
import { firstWeek, type Rule } from "../rule";

/** Sets of strength work longer than their zone has. */
export const repsASet: Rule = {
  code: "reps-a-set",
  of: "slot",
  level: "warning",
  from: "Prilepin totals",
  find: ({ slot: { recipe }, name, working }, { school }) =>
    !school.totals || recipe.aim !== "strength"
      ? undefined
      : firstWeek(working, ({ week, own }) => {
          const zone = zoneOf(recipe, own);
          const long = zone && own.sets.find((set) => set.reps > zone.set.most);
          return zone && long
            ? `${name}, week ${week}: ${long.reps} reps a set at ${zone.meanPercent.toFixed(0)} %; ${zone.set.least} to ${zone.set.most} in this zone.`
            : undefined;
        }),
};
