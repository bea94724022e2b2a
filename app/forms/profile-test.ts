import { z } from "zod";
import { MOST_LOAD_KG, MOST_VELOCITY_MPS } from "../../core/reading/rep-rows";
import { DateField } from "./maxes";

const rep = z.object({
  loadKg: z.number().positive().max(MOST_LOAD_KG),
  velocityMps: z.number().positive().max(MOST_VELOCITY_MPS),
  forceN: z.number().positive().max(20_000).optional(),
  powerW: z.number().positive().max(20_000).optional(),
  excluded: z.string().trim().min(1).max(200).optional(),
});

/** A finished profile test, as the test's page sends it. */
export const ProfileTestForm = z.object({
  athleteId: z.uuid("Choose the athlete first."),
  variantId: z.uuid(),
  date: DateField,
  metric: z.enum(["MCV", "MPV", "PV"]),
  source: z.enum(["simulated", "typed", "sensor", "video", "mixed", "mixed, with video"]),
  processing: z.string().max(40),
  addedKg: z.number().min(0).max(300),
  note: z.string().trim().max(300),
  override: z.string().trim().max(300),
  reps: z.array(rep).min(1, "No rep yet.").max(200),
});
