import { z } from "zod";
import { MOST_LOAD_KG, MOST_VELOCITY_MPS, REP_COLUMNS } from "../../core/reading/rep-rows";
import { DateField } from "./maxes";

/** More reps than this come in several files: the whole import is one transaction. */
export const MOST_REPS = 20_000;

const rep = z.object({
  loadKg: z.number().positive().max(MOST_LOAD_KG),
  velocityMps: z.number().positive().max(MOST_VELOCITY_MPS),
  forceN: z.number().positive().max(20_000).optional(),
  powerW: z.number().positive().max(20_000).optional(),
});

/** What the import page sends once a file is read without a fault. */
export const ImportForm = z
  .object({
    kind: z.enum(["reps", "stream"]),
    fileName: z.string().max(200),
    metric: z.enum(["MCV", "MPV", "PV"]),
    processing: z.string().max(40),
    header: z.string().max(2000).optional(),
    mapping: z.partialRecord(z.enum(REP_COLUMNS), z.number().int().min(0).max(500)).optional(),
    tests: z
      .array(
        z.object({
          athleteId: z.uuid(),
          variantId: z.uuid(),
          date: DateField,
          addedKg: z.number().min(0).max(300),
          reps: z.array(rep).min(1),
        }),
      )
      .min(1, "The file holds no test."),
  })
  .refine((form) => form.tests.reduce((sum, test) => sum + test.reps.length, 0) <= MOST_REPS, {
    message: `Over ${MOST_REPS} reps in one file. Split it by squad or by month.`,
    path: ["tests"],
  });
