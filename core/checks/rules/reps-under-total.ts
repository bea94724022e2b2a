import { zoneOf } from "../intensity";
import { firstWeek, type Rule } from "../rule";

/** Reps of a week under those of their zone. */
export const repsUnderTotal: Rule = {
  code: "reps-under-total",
  of: "slot",
  level: "note",
  from: "Prilepin totals",
  find: ({ slot: { recipe }, name, working }, { school }) =>
    !school.totals
      ? undefined
      : firstWeek(working, ({ week, own }) => {
          const zone = zoneOf(recipe, own);
          if (!zone) return undefined;
          const { reps, meanPercent } = zone;
          return reps < zone.least
            ? `${name}, week ${week}: ${reps} reps at ${meanPercent.toFixed(0)} %, under the ${zone.least} of this zone.`
            : undefined;
        }),
};
