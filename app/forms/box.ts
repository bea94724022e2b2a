import { z } from "zod";
import { RUNGS } from "../../core/boxsquat/ladder";
import { BOX_STYLES, CONTACTS, type Contact } from "../../core/boxsquat/styles";

import { optionalLength } from "./athlete";
import { MassField } from "./maxes";
import { dateField } from "./primitives/date";

const ids = <T extends string>(values: readonly T[]) => values as unknown as [T, ...T[]];
const RungId = z.enum(ids(RUNGS.map((one) => one.id)));

/** A rung passed by some athletes, or one athlete's way back. */
export const RungForm = z.object({
  athleteIds: z.array(z.uuid()).min(1, "Choose who it was."),
  rungId: RungId,
  outcome: z.enum(["passed", "back"]),
  note: z.string().trim().max(200),
});

/** The speed weight that one athlete found in a variant: it passes the light doubles. */
export const FoundWeightForm = z.object({
  variantId: z.uuid(),
  load: MassField,
  note: z.string().trim().max(200).default(""),
});

export const GroupForm = z
  .object({
    squadId: z.uuid(),
    startedOn: dateField("A date, for example 2026-03-02."),
    early: z.enum(["yes", "no"]),
    note: z.string().trim().max(200),
  })
  .refine((one) => one.early === "no" || one.note.length >= 3, {
    path: ["note"],
    message: "Moving on earlier takes a reason in a few words.",
  });

export const BoxSetupForm = z.object({
  variantId: z.uuid(),
  styleId: z.enum(ids(BOX_STYLES.map((one) => one.id))),
  contact: z.enum(ids(Object.keys(CONTACTS) as Contact[])),
  distanceCm: optionalLength("cm", 0, 150, "A distance within 150 cm, for example 24 cm."),
  cues: z.string().trim().max(300),
  styleNote: z.string().trim().max(200),
  freeSquatSigned: z.preprocess((raw) => raw === "on", z.boolean()),
});

const cm = (low: number, high: number, message: string) =>
  optionalLength("cm", low, high, message).pipe(z.number(message));

/** A trial: seated on a box of this height, the crease so far over (+) or under (−) the knee. */
export const TrialForm = z.object({
  variantId: z.uuid(),
  boxSeatCm: cm(10, 90, "A seat between 10 and 90 cm."),
  boxCreaseCm: cm(-40, 40, "A difference in cm; minus is under the knee."),
});

export const FaultForm = z.object({
  fault: z.string().min(1).max(80),
  percent: z.preprocess(
    (raw) => (raw === "" ? undefined : Number(String(raw).replace(",", "."))),
    z.number("A share of the max.").min(0).max(130, "A share of the max.").optional(),
  ),
});

export const CardForm = z.object({
  cues: z
    .string()
    .transform((text) =>
      text
        .split("\n")
        .map((line) => line.trim())
        .filter(Boolean),
    )
    .pipe(z.array(z.string().max(120, "A cue has a line.")).min(1, "Write a cue.").max(20)),
});
