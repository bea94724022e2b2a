import { z } from "zod";
import { keyField } from "../../forms/primitives/key";

const DayKey = z.object({ planId: z.uuid(), week: z.coerce.number().int().min(1).max(104) });
const MOST_DAYS = 8;

/** Days of plans with their ticked slots, and who is here. */
export const AskedDays = z.object({
  days: z
    .array(DayKey.extend({ slotIds: z.array(keyField(60)).min(1).max(60), ladder: z.boolean() }))
    .min(1)
    .max(MOST_DAYS),
  present: z.array(z.uuid()).max(2000),
});

/** A day's name in the form: plan and week. */
export const dayKey = (day: { planId: string; week: number }) => `${day.planId}/${day.week}`;

/** The days that are ticked, each with its ticked slots. */
export function daysIn(form: Pick<FormData, "getAll">) {
  const slots = form.getAll("slot").map(String);
  const ladders = form.getAll("ladder").map(String);
  return form.getAll("day").map((one) => {
    const key = String(one);
    const [planId, week] = key.split("/");
    return {
      planId,
      week,
      slotIds: slots
        .filter((slot) => slot.startsWith(`${key}/`))
        .map((slot) => slot.slice(key.length + 1)),
      ladder: ladders.includes(key),
    };
  });
}
