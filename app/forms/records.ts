import { z } from "zod";
import { RECORD_COLUMNS } from "../../core/maxes/record-rows";
import { MAX_KINDS } from "../../core/maxes/records";
import { MOST_LIST_TEXT } from "./athlete-list";
import { jsonField } from "./primitives/json-field";

/** What the page that takes records in sends. */
export const RecordsForm = z.object({
  intent: z.enum(["check", "keep", "keep-good"]),
  text: z
    .string()
    .refine((text) => text.trim() !== "", "Paste the sheet first: a header, then a record a line.")
    .refine(
      (text) => text.length <= MOST_LIST_TEXT,
      "This is over 1.5 million characters. Take the sheet in parts.",
    ),
  fileName: z.string().trim().max(200).default(""),
  unit: z.enum(["kg", "lb"]),
  kind: z.enum(MAX_KINDS),
  mapping: jsonField(z.partialRecord(z.enum(RECORD_COLUMNS), z.number().int().min(0).max(200))),
  /** Which lift an ambiguous name is: variant ids by its key. */
  lifts: jsonField(z.record(z.string().max(200), z.uuid())),
});
export type RecordsInput = z.output<typeof RecordsForm>;
