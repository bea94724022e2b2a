import { firstOutsideTotals } from "../intensity";
import type { Rule } from "../rule";

/** Reps of a week over those of their zone. */
export const repsOverTotal: Rule = {
  code: "reps-over-total",
  of: "slot",
  level: "warning",
  from: "Prilepin totals",
  find: (at, { school }) =>
    firstOutsideTotals(at, school, ({ reps, most, meanPercent }) =>
      reps > most
        ? `${reps} reps at ${meanPercent.toFixed(0)} % on average, over the ${most} of this zone.`
        : undefined,
    ),
};
