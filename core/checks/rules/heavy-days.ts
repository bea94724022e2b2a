import type { Rule } from "../rule";
import { heavySlot } from "../slots";

/** More heavy days a week for a pattern than the school has. */
export const heavyDays: Rule = {
  code: "heavy-days",
  of: "block",
  level: "warning",
  from: "the school",
  find: ({ days }, { school }) => {
    const heavy = days.flatMap((day) =>
      day.slots.flatMap(({ slot, work }) =>
        work && heavySlot(slot) ? [{ pattern: work.pattern, dayId: day.id }] : [],
      ),
    );
    return [...new Set(heavy.map((one) => one.pattern))].flatMap((pattern) => {
      const on = new Set(heavy.filter((one) => one.pattern === pattern).map((one) => one.dayId));
      return on.size <= school.heavyDays
        ? []
        : [
            {
              part: pattern,
              text: `${on.size} heavy days a week for one pattern (${pattern.replace("-", " ")}): that asks for training age, good recovery, or a speed guard.`,
            },
          ];
    });
  },
};
