import { z } from "zod";
import { MAX_KINDS } from "../../core/maxes/records";
import type { Mass } from "../../core/units/mass";
import { loadIn } from "./load";
import { dateField } from "./primitives/date";

/** A load as written: "120", "120 kg", "225 lb". */
export const MassField = z.string().transform((text, context): Mass => {
  const load = loadIn(text);
  if (load.ok) return load.mass;
  context.addIssue({ code: "custom", message: load.message });
  return z.NEVER;
});

export const DateField = dateField("Write the date as year-month-day, for example 2026-03-10.");

export const NewRecordForm = z.object({
  variantId: z.uuid(),
  load: MassField,
  date: DateField,
  kind: z.enum(MAX_KINDS),
  note: z.string().max(300).default(""),
  /** The coach has seen the warning and means it. */
  confirmed: z.literal("yes").optional(),
});

export const ChooseMaxForm = z.object({
  variantId: z.uuid(),
  recordId: z.uuid(),
  factor: z
    .string()
    .default("")
    .transform((text, context) => {
      if (text.trim() === "") return undefined;
      const factor = Number(text.replace(",", "."));
      if (!(factor >= 0.5 && factor <= 1.1)) {
        context.addIssue({ code: "custom", message: "A factor lies between 0.5 and 1.1." });
        return z.NEVER;
      }
      return factor;
    }),
});
