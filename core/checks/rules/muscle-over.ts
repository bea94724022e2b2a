import type { Muscle } from "../../exercise/exercise";
import { markOf } from "../../plan/block";
import { weekSum } from "../../plan/week-sums";
import type { Rule } from "../rule";

/** Weekly hard sets of a muscle over the school's range; speed sets stand apart. */
export const muscleOver: Rule = {
  code: "muscle",
  of: "block",
  level: "warning",
  from: "the school",
  find: ({ block }, { school, settings, workOf }) => {
    const most = new Map<Muscle, number>();
    for (let week = 1; week <= block.weeks; week++) {
      if (markOf(block, week) !== undefined) continue;
      for (const row of weekSum({ block, week, settings, workOf }).muscles)
        most.set(row.muscle, Math.max(row.hard, most.get(row.muscle) ?? 0));
    }
    return [...most]
      .filter(([, hard]) => hard > school.hardSets.most)
      .map(([muscle, hard]) => ({
        part: muscle,
        text: `${hard} hard sets a week for the ${muscle}, over ${school.hardSets.most}; speed sets not counted.`,
      }));
  },
};
