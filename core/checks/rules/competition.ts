import type { Rule } from "../rule";

/** A week near a competition without a factor for its loads. */
export const competition: Rule = {
  code: "competition",
  of: "block",
  level: "note",
  from: "Cautions",
  find: (_, { competitionWeeks }) =>
    competitionWeeks
      .filter((one) => !one.factorSet)
      .map(({ week, words }) => ({
        part: String(week),
        week,
        text: `Week ${week}: ${words}. Your factor for loads this near is not set; the loads stay as the recipe says.`,
      })),
};
