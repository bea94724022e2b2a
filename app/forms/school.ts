import { z } from "zod";
import { BOX_STYLES } from "../../core/boxsquat/styles";
import {
  BOX_PLACES,
  BREATHING,
  ENDINGS,
  RESISTANCE_USE,
  type School,
  SPEED_WORK,
} from "../../core/checks/school";
import { TEMPLATES } from "../../core/plan/block";
import { BASIS_KINDS, type BasisKind } from "../../core/recipe/basis";
import { readDecimal } from "../../core/units/decimal";

const number = (low: number, high: number) =>
  z.string().transform((text, context) => {
    const reading = readDecimal(text);
    if (!reading.ok || reading.value < low || reading.value > high) {
      context.addIssue({ code: "custom", message: `A number from ${low} to ${high}.` });
      return z.NEVER;
    }
    return reading.value;
  });
const optional = (low: number, high: number) =>
  z
    .string()
    .default("")
    .transform((text, context) => {
      if (text.trim() === "") return undefined;
      const reading = readDecimal(text);
      if (!reading.ok || reading.value < low || reading.value > high) {
        context.addIssue({ code: "custom", message: `A number from ${low} to ${high}.` });
        return z.NEVER;
      }
      return reading.value;
    });

/** A school's rules as its form sends them. */
export const SchoolForm = z
  .object({
    id: z.union([z.literal(""), z.uuid()]).default(""),
    name: z.string().trim().min(3, "Name the school.").max(80),
    assumes: z.string().trim().min(5, "Say what it takes for granted.").max(300),
    loadBy: z.enum(BASIS_KINDS as [BasisKind, ...BasisKind[]]),
    restLeast: number(0, 1800),
    restMost: number(0, 1800),
    speedReps: number(1, 12),
    powerReps: number(1, 12),
    powerRestS: number(0, 900),
    order: z.enum(TEMPLATES),
    speedWork: z.enum(SPEED_WORK),
    convention: z.enum(["bar", "lockout", "mean"]),
    totals: z.enum(["yes", "no"]),
    reuseGapWaves: number(0, 12),
    deloadAfterWeeks: number(1, 52),
    heavySpeedHours: number(0, 168),
    strongFrom: number(1, 5),
    strongEveryWeeks: number(1, 8),
    heavyDays: number(0, 7),
    hardLeast: number(0, 60),
    hardMost: number(0, 60),
    lossSpeed: optional(1, 60),
    lossPower: optional(1, 60),
    lossStrength: optional(1, 60),
    lossGrowth: optional(1, 60),
    resistance: z.enum(RESISTANCE_USE),
    ending: z.enum(ENDINGS),
    box: z.enum(BOX_PLACES),
    boxStyles: z.preprocess(
      (text) =>
        String(text ?? "")
          .split(",")
          .filter(Boolean),
      z
        .array(z.enum(BOX_STYLES.map((one) => one.id) as [string, ...string[]]))
        .min(1, "Choose a style."),
    ),
    relaxAndFire: z.enum(["yes", "no"]),
    rockingDrill: z.enum(["yes", "no"]),
    breathing: z.enum(BREATHING),
    shareLeast: number(0, 60),
    shareMost: number(0, 60),
  })
  .refine((form) => form.restLeast <= form.restMost, {
    path: ["restMost"],
    message: "The shorter rest comes first.",
  })
  .refine((form) => form.shareLeast <= form.shareMost, {
    path: ["shareMost"],
    message: "The smaller share comes first.",
  })
  .transform((form): { id: string; school: School } => {
    const { id, restLeast, restMost, totals, hardLeast, hardMost, ...rest } = form;
    const { shareLeast, shareMost, relaxAndFire, rockingDrill, ...more } = rest;
    const { lossSpeed, lossPower, lossStrength, lossGrowth, ...school } = more;
    const loss = {
      speed: lossSpeed,
      power: lossPower,
      strength: lossStrength,
      growth: lossGrowth,
    };
    return {
      id,
      school: {
        ...school,
        relaxAndFire: relaxAndFire === "yes",
        rockingDrill: rockingDrill === "yes",
        resistanceShare: { leastPercent: shareLeast, mostPercent: shareMost },
        rest: { leastS: restLeast, mostS: restMost },
        totals: totals === "yes",
        hardSets: { least: hardLeast, most: hardMost },
        loss: Object.fromEntries(
          Object.entries(loss).filter((entry): entry is [string, number] => entry[1] !== undefined),
        ),
      },
    };
  });
