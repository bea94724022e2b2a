import { staveMinutes } from "../../plan/day-clock";
import type { Rule } from "../rule";

/** A day whose stave is longer than the minutes that it has. */
export const dayTooLong: Rule = {
  code: "day-too-long",
  of: "day",
  level: "warning",
  from: "Arithmetic",
  find: ({ id, name }, { block, settings }) => {
    const has = block.days[id]?.lengthMin;
    if (has === undefined) return undefined;
    for (let week = 1; week <= block.weeks; week++) {
      const minutes = staveMinutes(block, id, week, settings);
      if (minutes > has)
        return {
          week,
          text: `${name}, week ${week}: ${minutes} min, and it has ${has}. Take something out, shorten rests, or give it more time.`,
        };
    }
    return undefined;
  },
};
