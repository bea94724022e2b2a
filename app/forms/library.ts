import { z } from "zod";
import { EXERCISE_LIMITS, MUSCLES, PATTERNS, SIDES } from "../../core/exercise/exercise";
import { SPEED_CLASSES } from "../../core/exercise/speed-classes";
import { BASE_KINDS } from "../../core/maxes/variants";
import { LIFTS } from "../../core/profile/threshold";
import { SYSTEM_MASSES } from "../../core/velocity/force";
import { optionalNumber } from "./athlete";

/** A comma list of words from a fixed set (several checkboxes, see `formObject`). */
const words = <T extends string>(all: readonly [T, ...T[]]) =>
  z
    .string()
    .default("")
    .transform((text) => [...new Set(text.split(",").filter((one) => one !== ""))])
    .pipe(z.array(z.enum(all)));

const freeList = z
  .string()
  .default("")
  .transform((text) =>
    text.split(",").flatMap((one) => (one.trim() === "" ? [] : [one.trim().slice(0, 40)])),
  );

export const ExerciseForm = z
  .object({
    id: z.union([z.literal(""), z.uuid()]).default(""),
    name: z.string().trim().min(2, "Name the exercise.").max(80),
    pattern: z.enum(PATTERNS),
    speedClass: z.enum(SPEED_CLASSES),
    main: words(MUSCLES),
    assisting: words(MUSCLES),
    sides: z.enum(SIDES),
    gear: freeList,
    excludes: words(EXERCISE_LIMITS),
    cue: z.string().trim().max(80, "A cue of 80 letters at most.").default(""),
    easier: z
      .string()
      .default("")
      .transform((text) => text.split(",").filter((one) => one !== ""))
      .pipe(z.array(z.uuid()).max(6)),
  })
  .refine((one) => one.main.length > 0, {
    message: "Choose at least one main muscle.",
    path: ["main"],
  });

export const VariantForm = z
  .object({
    id: z.union([z.literal(""), z.uuid()]).default(""),
    name: z.string().trim().min(2, "Name the lift.").max(80),
    lift: z.enum(LIFTS),
    bar: z.string().trim().min(1, "Which bar? For example straight.").max(40),
    grip: z.string().trim().max(40),
    stance: z.string().trim().max(40),
    boxStyle: z.string().trim().max(60),
    resistance: z.string().trim().max(60),
    start: z.enum(["top", "bottom"]),
    baseKind: z.enum(BASE_KINDS),
    baseId: z.union([z.literal(""), z.uuid()]).transform((id) => id || null),
    ratio: optionalNumber(0.1, 2, "A ratio between 0.1 and 2, for example 0.7."),
    systemMass: z.enum(SYSTEM_MASSES),
    thresholdMps: optionalNumber(0.05, 1, "A threshold between 0.05 and 1 m/s."),
    caution: z
      .string()
      .trim()
      .min(5, "Say what keeps the lifter safe: spotters, safeties.")
      .max(300),
  })
  .refine((one) => one.baseKind === "own" || one.baseId !== null, {
    message: "Choose the lift that the max is taken from.",
    path: ["baseId"],
  });
