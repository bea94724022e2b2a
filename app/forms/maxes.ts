import { z } from "zod";
import { MAX_KINDS } from "../../core/maxes/records";
import { type Mass, readMass } from "../../core/units/mass";
import { dateField } from "./primitives/date";

const MASS_WORDS = {
  empty: "Write the load, for example 120 or 225 lb.",
  "not-a-number": "That is not a load. Write 120, 120 kg or 225 lb.",
  "too-many-decimals": "Three decimals at most.",
  negative: "A load is over 0.",
  thousands: "A thousand, or a decimal comma? Write 1250 or 1.25.",
};

/** A load as written: "120", "120 kg", "225 lb". */
export const MassField = z.string().transform((text, context): Mass => {
  const reading = readMass(text, "kg");
  if (!reading.ok) {
    context.addIssue({ code: "custom", message: MASS_WORDS[reading.reason] });
    return z.NEVER;
  }
  if (reading.mass.amount === 0) {
    context.addIssue({ code: "custom", message: "A load is over 0." });
    return z.NEVER;
  }
  if (reading.mass.amount > 1500) {
    context.addIssue({ code: "custom", message: "Over 1500: check the number and its unit." });
    return z.NEVER;
  }
  return reading.mass;
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
