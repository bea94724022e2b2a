import { z } from "zod";
import { CYCLE_DECISIONS } from "../../core/review/box-cycle";
import { keyField } from "./primitives/key";

/** A coach's word on an athlete's cycle on the box. */
export const CycleReviewForm = z.object({
  planId: z.uuid(),
  slotId: keyField(60),
  athleteId: z.uuid(),
  decision: z.enum(CYCLE_DECISIONS),
  note: z.string().trim().max(300),
});
