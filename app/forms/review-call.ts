import { z } from "zod";
import { MassField } from "./maxes";

const REASON = z.string().trim().max(300).default("");

/** A coach's word on a call. */
export const DecideForm = z
  .object({
    intent: z.literal("decide"),
    /** Whose calls are looked at: a squad, or an athlete who trains alone. */
    groupId: z.uuid(),
    about: z.string().min(1).max(400),
    decision: z.enum(["taken", "changed", "declined"]),
    reason: REASON,
    /** Another base, where the call is about one. */
    load: z
      .string()
      .default("")
      .transform((text, context) => {
        if (text.trim() === "") return undefined;
        const read = MassField.safeParse(text);
        if (read.success) return read.data;
        context.addIssue({ code: "custom", message: read.error.issues[0]?.message ?? "" });
        return z.NEVER;
      }),
    /** Another rest, s. */
    addS: z
      .string()
      .default("")
      .transform((text, context) => {
        if (text.trim() === "") return undefined;
        const seconds = Number(text);
        if (Number.isInteger(seconds) && seconds >= 1 && seconds <= 900) return seconds;
        context.addIssue({ code: "custom", message: "Whole seconds from 1 to 900." });
        return z.NEVER;
      }),
    /** Another floor, m/s. */
    floorMps: z
      .string()
      .default("")
      .transform((text, context) => {
        if (text.trim() === "") return undefined;
        const mps = Number(text.replace(",", "."));
        if (mps >= 0.05 && mps <= 4) return Math.round(1000 * mps) / 1000;
        context.addIssue({ code: "custom", message: "A speed from 0.05 to 4 m/s." });
        return z.NEVER;
      }),
  })
  .refine((form) => form.decision !== "declined" || form.reason.length >= 3, {
    path: ["reason"],
    message: "Write why not, in a few words.",
  });

/** Takes a decision back. */
export const TakeBackForm = z.object({ intent: z.literal("take-back"), callId: z.uuid() });

export const ReviewCallForm = z.discriminatedUnion("intent", [DecideForm, TakeBackForm]);
