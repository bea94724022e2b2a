import { zoneOf } from "../intensity";
import { firstWeek, type Rule } from "../rule";

/** Reps of a week over those of their zone. */
export const repsOverTotal: Rule = {
  code: "reps-over-total",
  of: "slot",
  level: "warning",
  from: "Prilepin totals",
  find: ({ slot: { recipe }, name, working }, { school }) =>
    !school.totals
      ? undefined
      : firstWeek(working, ({ week, own }) => {
          const zone = zoneOf(recipe, own);
          if (!zone) return undefined;
          const { reps, meanPercent } = zone;
          return reps > zone.most
            ? `${name}, week ${week}: ${reps} reps at ${meanPercent.toFixed(0)} % on average, over the ${zone.most} of this zone.`
            : undefined;
        }),
};
