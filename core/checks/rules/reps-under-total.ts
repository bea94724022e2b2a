import { firstOutsideTotals } from "../intensity";
import type { Rule } from "../rule";

/** Reps of a week under those of their zone. */
export const repsUnderTotal: Rule = {
  code: "reps-under-total",
  of: "slot",
  level: "note",
  from: "Prilepin totals",
  find: (at, { school }) =>
    firstOutsideTotals(at, school, ({ reps, least, meanPercent }) =>
      reps < least
        ? `${reps} reps at ${meanPercent.toFixed(0)} %, under the ${least} of this zone.`
        : undefined,
    ),
};
