import type { Rule } from "../rule";
import { heavySlot, speedSlot } from "../slots";

/** Hours between heavy and speed work of one pattern, the turn of the week included. */
export const spacing: Rule = {
  code: "spacing",
  of: "block",
  level: "warning",
  from: "the school",
  find: ({ block, days }, { school }) => {
    const placed = days.flatMap((day) => day.slots.map((at) => ({ ...at, day })));
    return placed
      .filter((one) => heavySlot(one.slot))
      .flatMap((heavy) =>
        placed
          .filter(
            (speed) =>
              speedSlot(speed.slot) &&
              speed.work !== undefined &&
              speed.work.pattern === heavy.work?.pattern &&
              speed.day.id !== heavy.day.id,
          )
          .flatMap((speed) => {
            const apart = Math.abs(speed.day.offset - heavy.day.offset);
            // The week after begins before this one's turn is forgotten.
            const days = block.weeks > 1 ? Math.min(apart, 7 - apart) : apart;
            return days * 24 >= school.heavySpeedHours
              ? []
              : [
                  {
                    part: `${heavy.slot.id}/${speed.slot.id}`,
                    text: `${heavy.name} (${heavy.day.name}) and ${speed.name} (${speed.day.name}) are ${days * 24} h apart; ${school.heavySpeedHours} h between heavy and speed work for a pattern.`,
                    slotId: speed.slot.id,
                  },
                ];
          }),
      );
  },
};
