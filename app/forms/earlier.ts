import { z } from "zod";
import { EARLIER_COLUMNS } from "../../core/maxes/earlier-rows";
import { MOST_LIST_TEXT } from "./athlete-list";
import { jsonField } from "./primitives/json-field";

/** What the page of earlier sessions sends. */
export const EarlierForm = z.object({
  intent: z.enum(["check", "keep", "keep-good"]),
  text: z
    .string()
    .refine((text) => text.trim() !== "", "Paste the sheet first: a header, then a line a set.")
    .refine(
      (text) => text.length <= MOST_LIST_TEXT,
      "This is over 1.5 million characters. Take the sheet in parts.",
    ),
  fileName: z.string().trim().max(200).default(""),
  unit: z.enum(["kg", "lb"]),
  mapping: jsonField(z.partialRecord(z.enum(EARLIER_COLUMNS), z.number().int().min(0).max(200))),
  /** Which lift an ambiguous name is: variant ids by its key. */
  lifts: jsonField(z.record(z.string().max(200), z.uuid())),
  slash: z.union([z.literal(""), z.enum(["day-first", "month-first"])]).default(""),
});
export type EarlierInput = z.output<typeof EarlierForm>;
