import { TEMPLATE_NAMES, TEMPLATE_ORDER } from "../../plan/block";
import type { Rule } from "../rule";
import { heavySlot, speedSlot } from "../slots";

/** Fast work after heavy, or among the accessories. */
export const order: Rule = {
  code: "order",
  of: "slot",
  level: "warning",
  from: "the school",
  find: ({ slot, name, dayName }, { block }, { days }) => {
    const order = TEMPLATE_ORDER[block.template];
    const at = order.indexOf(slot.section);
    const sameDay = days.find((day) => day.id === slot.dayId)?.slots ?? [];
    const fastAfter = sameDay.some(
      (one) => speedSlot(one.slot) && order.indexOf(one.slot.section) > at,
    );
    if (heavySlot(slot) && at > order.indexOf("main") && slot.section !== "second" && fastAfter)
      return {
        text: `${dayName}: ${name} is heavy and stands before speed work in ${TEMPLATE_NAMES[block.template]}.`,
      };
    return slot.section === "accessories" && speedSlot(slot)
      ? {
          text: `${dayName}: ${name} is fast work among the accessories, when the day's strength is spent. Move it up.`,
        }
      : undefined;
  },
};
