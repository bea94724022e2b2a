import { z } from "zod";
import { GUARDED, REASON_KINDS } from "../../core/maxes/limits";
import { GOALS, SEASON_PHASES } from "../../core/maxes/season";
import { LIFTS } from "../../core/profile/threshold";
import { MOST_VELOCITY_MPS } from "../../core/reading/rep-rows";
import { readDecimal } from "../../core/units/decimal";
import { readLength } from "../../core/units/length";
import { massKg, readMass } from "../../core/units/mass";
import { keepVelocity } from "../../core/units/velocity";
import { DateField, MassField } from "./maxes";

/** What the athlete pages send, and the words for what is wrong with it. */

/** A number as written, within bounds; empty is undefined. */
export function optionalNumber(least: number, most: number, words: string) {
  return z
    .string()
    .default("")
    .transform((text, context) => {
      const reading = readDecimal(text);
      if (!reading.ok && reading.reason === "empty") return undefined;
      if (!reading.ok || reading.value < least || reading.value > most) {
        context.addIssue({ code: "custom", message: words });
        return z.NEVER;
      }
      return reading.value;
    });
}

/** A length as written, in any unit, in the field's; empty is undefined. */
export function optionalLength(unit: "cm" | "m", least: number, most: number, words: string) {
  return z
    .string()
    .default("")
    .transform((text, context) => {
      const reading = readLength(text, unit);
      if (!reading.ok && reading.reason === "empty") return undefined;
      if (!reading.ok || reading.value < least || reading.value > most) {
        context.addIssue({ code: "custom", message: words });
        return z.NEVER;
      }
      return reading.value;
    });
}

/** A mass as written, in any unit, in kilograms; empty is undefined. */
export function optionalMassKg(leastKg: number, mostKg: number, words: string) {
  return z
    .string()
    .default("")
    .transform((text, context) => {
      const reading = readMass(text, "kg");
      if (!reading.ok && reading.reason === "empty") return undefined;
      const kg = reading.ok ? massKg(reading.mass) : Number.NaN;
      if (!(kg >= leastKg && kg <= mostKg)) {
        context.addIssue({ code: "custom", message: words });
        return z.NEVER;
      }
      return kg;
    });
}

/** The same, a whole number. */
export function optionalWhole(least: number, most: number, words: string) {
  return optionalNumber(least, most, words).refine(
    (value) => value === undefined || Number.isInteger(value),
    words,
  );
}

/** The same, not empty. */
export function neededNumber(least: number, most: number, words: string) {
  return optionalNumber(least, most, words).transform((value, context) => {
    if (value === undefined) {
      context.addIssue({ code: "custom", message: words });
      return z.NEVER;
    }
    return value;
  });
}

const optionalDate = z
  .union([z.literal(""), DateField])
  .default("")
  .transform((text) => text || undefined);
const emptyIsNull = <T extends z.ZodType>(inner: T) =>
  z.union([z.literal(""), inner]).transform((value) => (value === "" ? null : value));

export const VelocityField = neededNumber(
  0.01,
  MOST_VELOCITY_MPS,
  `A speed over 0 and up to ${MOST_VELOCITY_MPS} m/s, for example 0.42.`,
).transform(keepVelocity);

const birthYear = optionalWhole(1920, 2025, "A year, for example 2001.").transform(
  (year) => year ?? null,
);

/** Ids under one name arrive as a comma list (see `formObject`). */
export const idList = z
  .string()
  .default("")
  .transform((text) => text.split(",").filter((one) => one !== ""))
  .pipe(z.array(z.uuid()).max(40));

const AthleteFacts = z.object({
  name: z.string().trim().min(1, "A name is needed.").max(80),
  squadId: emptyIsNull(z.uuid()),
  /** Squads besides the first. */
  alsoIn: idList,
  goal: emptyIsNull(z.enum(GOALS)),
  seasonPhase: emptyIsNull(z.enum(SEASON_PHASES)),
  sport: z
    .string()
    .trim()
    .max(60)
    .transform((text) => text || null),
  roomId: emptyIsNull(z.uuid()),
  unit: emptyIsNull(z.enum(["kg", "lb"])),
  schoolId: emptyIsNull(z.uuid()).default(null),
  birthYear,
  statureCm: optionalLength("cm", 90, 250, "A stature between 90 and 250 cm.").transform(
    (value) => value ?? null,
  ),
  trainingSince: optionalDate.transform((value) => value ?? null),
});

/** Who trains alone has no squad's room: one of their own is needed. */
const alone = (facts: { squadId: string | null; roomId: string | null }) =>
  facts.squadId !== null || facts.roomId !== null;
const ALONE_NEEDS_ROOM = {
  message: "An athlete without a squad needs a usual room of their own.",
  path: ["roomId"],
};

export const FactsForm = AthleteFacts.refine(alone, ALONE_NEEDS_ROOM);

/** A new person: the same, and whether somebody of that name is another one. */
export const NewPersonForm = AthleteFacts.extend({
  another: z.literal("yes").optional(),
}).refine(alone, ALONE_NEEDS_ROOM);

/** To erase a person the whole name is typed. */
export const EraseForm = z.object({ typed: z.string().max(120) });

export const BodyMassForm = z.object({ mass: MassField, date: DateField });

export const CompetitionForm = z.object({
  name: z.string().trim().min(1, "Name the competition.").max(80),
  date: DateField,
});

/** Several values under one name arrive as a comma list (see `formObject`). */
const guardedList = z
  .string()
  .default("")
  .transform((text) => text.split(",").filter((one) => one !== ""))
  .pipe(z.array(z.enum(GUARDED)));

export const LimitForm = z.object({
  instruction: z
    .string()
    .trim()
    .min(3, "Write what cards and racks should show.")
    .max(200, "At most 200 characters: cards show it whole."),
  refuses: guardedList,
  lift: emptyIsNull(z.enum(LIFTS)),
  capPercent: optionalNumber(10, 100, "A share of the max between 10 and 100 %."),
  until: optionalDate,
  reasonKind: emptyIsNull(z.enum(REASON_KINDS)),
  reason: z.string().trim().max(1000).default(""),
  guardianConsent: z.literal("yes").optional(),
});

export const DayNoteForm = z
  .object({
    date: DateField,
    sleepH: optionalNumber(0, 24, "Hours between 0 and 24."),
    eating: optionalWhole(1, 5, "1 poor to 5 good, a whole number."),
    soreness: optionalWhole(0, 10, "0 none to 10, a whole number."),
  })
  .refine(
    (note) => note.sleepH !== undefined || note.eating !== undefined || note.soreness !== undefined,
    { message: "Enter at least one of the three.", path: ["sleepH"] },
  );

export const SetupForm = z.object({
  variantId: z.uuid(),
  hook: z.string().trim().max(30),
  safety: z.string().trim().max(30),
  grip: z.string().trim().max(60),
  stance: z.string().trim().max(60),
  startHeightCm: optionalLength("cm", 0, 250, "A height between 0 and 250 cm."),
  bottomM: optionalLength("m", 0, 2.5, "A height in metres, for example 0.85."),
  lockoutM: optionalLength("m", 0, 2.8, "A height in metres, for example 1.4."),
  boxSeatCm: optionalLength("cm", 10, 90, "A seat between 10 and 90 cm."),
  boxCreaseCm: optionalLength("cm", -40, 40, "A difference in cm; minus is under the knee."),
  note: z.string().trim().max(200),
});

export const SingleForm = z.object({
  variantId: z.uuid(),
  load: MassField,
  velocity: VelocityField,
  date: DateField,
});

/** Trials as one line: "41.2 40.8 42", decimals by point or comma, apart by blanks or semicolons. */
export const TrialsField = z.string().transform((text, context) => {
  const parts = text.split(/[\s;]+/).filter((part) => part !== "");
  const values = parts.map((part) => readDecimal(part));
  const wrong = parts.filter((_, i) => !values[i]?.ok);
  if (parts.length === 0 || wrong.length > 0 || parts.length > 12) {
    context.addIssue({
      code: "custom",
      message: wrong[0]
        ? `"${wrong[0]}" is not a number. Write the trials with blanks between, for example 41.2 40.8.`
        : "One to twelve trials with blanks between, for example 41.2 40.8 42.",
    });
    return z.NEVER;
  }
  return values.flatMap((reading) => (reading.ok ? [reading.value] : []));
});

export const ResultForm = z.object({
  testId: z.uuid(),
  date: DateField,
  side: z.enum(["", "left", "right"]).default(""),
  approach: z.literal("yes").optional(),
  loadKg: optionalMassKg(0, 400, "A load between 0 and 400 kg.").transform((value) => value ?? 0),
  trials: TrialsField,
  splits: z
    .string()
    .default("")
    .transform((text) => text.trim())
    .pipe(z.union([z.literal("").transform((): number[] => []), TrialsField])),
  atLeast: z.literal("yes").optional(),
});

export const ReadinessForm = z.object({
  testId: z.uuid(),
  readings: z.string().transform((text, context) => {
    try {
      return z
        .array(
          z.object({
            loadKg: z.number().positive().max(1000),
            velocityMps: z.number().positive().max(MOST_VELOCITY_MPS),
          }),
        )
        .min(1)
        .max(60)
        .parse(JSON.parse(text));
    } catch {
      context.addIssue({ code: "custom", message: "The warm-up speeds could not be read." });
      return z.NEVER;
    }
  }),
  targetMps: VelocityField,
  plannedKg: neededNumber(1, 1000, "A planned load over 0."),
  stepKg: neededNumber(0.1, 50, "The smallest loadable step."),
  decision: z.enum(["take", "change", "decline"]),
  decidedKg: optionalMassKg(1, 1000, "A load over 0."),
  reason: z.string().trim().max(200).default(""),
});

/** One field of one athlete, edited in the squad table. */
export const QuickForm = z.discriminatedUnion("field", [
  z.object({ field: z.literal("bodyMass"), athleteId: z.uuid(), value: MassField }),
  z.object({
    field: z.literal("seasonPhase"),
    athleteId: z.uuid(),
    value: emptyIsNull(z.enum(SEASON_PHASES)),
  }),
  z.object({ field: z.literal("goal"), athleteId: z.uuid(), value: emptyIsNull(z.enum(GOALS)) }),
  z.object({ field: z.literal("birthYear"), athleteId: z.uuid(), value: birthYear }),
]);

/** Form data as an object; a name that comes several times becomes a comma list. */
export function formObject(form: FormData): Record<string, string> {
  const out: Record<string, string> = {};
  for (const name of new Set(form.keys())) out[name] = form.getAll(name).map(String).join(",");
  return out;
}
