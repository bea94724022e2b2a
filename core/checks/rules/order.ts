import { TEMPLATE_NAMES } from "../../plan/block";
import type { Rule } from "../rule";
import { heavySlot, speedSlot } from "../slots";

/**
 * Fast work after heavy, or among the accessories: by what the slots aim at and where they stand,
 * whatever their sections are called. A template that puts heavy work first means it so.
 */
export const order: Rule = {
  code: "order",
  of: "slot",
  level: "warning",
  from: "the school",
  find: ({ slot, name, dayName }, { block }, { days }) => {
    if (!speedSlot(slot)) return undefined;
    if (slot.section === "accessories") {
      return {
        text: `${dayName}: ${name} is fast work among the accessories, when the day's strength is spent. Move it up.`,
      };
    }
    if (block.template === "heavy-first" && slot.section === "power") return undefined;
    const sameDay = days.find((day) => day.id === slot.dayId)?.slots ?? [];
    const place = sameDay.findIndex((one) => one.slot.id === slot.id);
    const heavy = sameDay.slice(0, place).find((one) => heavySlot(one.slot));
    return heavy
      ? {
          text: `${dayName}: ${name} is fast work after ${heavy.name}, which is heavy, in ${TEMPLATE_NAMES[block.template]}. Move it up, or take the speed out.`,
        }
      : undefined;
  },
};
