import { z } from "zod";
import { COMPLEX_AIMS, type Complex, DIRECTIONS, ITEM_KINDS } from "../../core/contrast/complex";
import { OUTPUT_KINDS, type Output } from "../../core/contrast/outputs";
import { PATTERNS } from "../../core/exercise/exercise";
import { LIFTS } from "../../core/profile/threshold";
import { readJson } from "./json";

const number = (low: number, high: number, what: string) =>
  z.coerce
    .number({ error: `${what}: a number.` })
    .min(low, `${what}: at least ${low}.`)
    .max(high, `${what}: at most ${high}.`);

const LoadSchema = z.discriminatedUnion("by", [
  z.object({ by: z.literal("none") }),
  z.object({ by: z.literal("eye") }),
  z.object({ by: z.literal("percent"), percent: number(1, 120, "Share of the max") }),
  z.object({ by: z.literal("peak-power"), percent: number(1, 200, "Share of peak power's load") }),
  z.object({ by: z.literal("body"), percent: number(0, 200, "Share of body mass") }),
  z.object({ by: z.literal("fixed"), kg: number(0, 500, "Load") }),
]);

/** The ways of setting an item's load that the builder offers. */
export const ITEM_LOADS = ["none", "percent", "peak-power", "body", "fixed", "eye"] as const;
export const ITEM_LOAD_NAMES: Record<(typeof ITEM_LOADS)[number], string> = {
  none: "body weight",
  percent: "% of a max",
  "peak-power": "% of peak power's load",
  body: "% of body mass",
  fixed: "kg",
  eye: "by eye",
};

export const ComplexSchema = z.object({
  name: z.string().trim().min(1, "Give it a name.").max(80),
  aim: z.enum(COMPLEX_AIMS),
  school: z.string().trim().max(80),
  purpose: z.string().trim().max(300),
  items: z
    .array(
      z.object({
        id: z.string().min(1).max(60),
        name: z.string().trim().min(1, "Every item has a name.").max(80),
        kind: z.enum(ITEM_KINDS),
        pattern: z.enum(PATTERNS),
        reps: number(1, 400, "Reps").int("Reps: a whole number."),
        load: LoadSchema,
        of: z.enum(LIFTS).optional(),
        gapS: number(0, 1800, "Gap").int("Gap: whole seconds."),
        output: z.enum(OUTPUT_KINDS as [Output, ...Output[]]),
        sides: z.boolean(),
        seek: z.boolean().optional(),
      }),
    )
    .min(1, "Add an item.")
    .max(12, "At most 12 items."),
  rounds: number(1, 20, "Rounds").int("Rounds: a whole number."),
  restS: number(0, 1800, "Rest").int("Rest: whole seconds."),
  patternReason: z.string().trim().max(200),
  direction: z.enum(DIRECTIONS),
  weekStep: number(0, 50, "Points a week"),
  beforeMain: z.boolean(),
});

/** A complex from JSON text, or the first thing that is wrong with it. */
export function complexFromJson(
  text: string,
): { ok: true; complex: Complex } | { ok: false; message: string } {
  const json = readJson(text);
  if (!json.ok) return { ok: false, message: "This could not be read. Load the page again." };
  const parsed = ComplexSchema.safeParse(json.raw);
  return parsed.success
    ? { ok: true, complex: JSON.parse(JSON.stringify(parsed.data)) as Complex }
    : { ok: false, message: parsed.error.issues[0]?.message ?? "Some of it cannot be." };
}
