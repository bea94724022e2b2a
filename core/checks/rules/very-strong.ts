import { names, type Rule } from "../rule";
import { heavySlot } from "../slots";

/** Heavy work too often for the very strong. */
export const veryStrong: Rule = {
  code: "very-strong",
  of: "slot",
  level: "warning",
  from: "the school",
  find: ({ slot, name, variantId, weeks }, { school }, { athletes }) => {
    if (variantId === undefined || !heavySlot(slot)) return undefined;
    const strong = athletes.filter((one) => (one.squatPerBody ?? 0) >= school.strongFrom);
    const often = weeks.some(
      ({ week }, i) => i > 0 && week - (weeks[i - 1]?.week ?? 0) < school.strongEveryWeeks,
    );
    return strong.length > 0 && often
      ? {
          text: `${name}: ${names(strong)} squat ${school.strongFrom} × body mass or more; heavy work every ${school.strongEveryWeeks} weeks for them.`,
        }
      : undefined;
  },
};
