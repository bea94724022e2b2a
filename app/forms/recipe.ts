import { z } from "zod";
import { AIMS, type Recipe } from "../../core/wave/recipe";

/** A recipe as the form and the database know it. */
const points = z.number().min(-100).max(100);
const percent = z.number().min(1).max(120);
const sets = z.number().int().min(1).max(30);
const reps = z.number().int().min(1).max(30);
const speed = z.number().min(0.05).max(4);

export const RecipeSchema = z
  .object({
    name: z.string().trim().min(1, "Give the recipe a name.").max(80),
    aim: z.enum(AIMS),
    school: z.string().max(80),
    startPercent: percent,
    steps: z
      .array(z.object({ id: z.string().min(1).max(40), sets, reps, addPoints: points }))
      .min(1, "A recipe needs at least one step.")
      .max(12),
    weeks: z
      .array(
        z.object({
          id: z.string().min(1).max(40),
          addPoints: points,
          flat: z.object({ sets, reps, percent }).optional(),
        }),
      )
      .min(1, "A recipe needs at least one week.")
      .max(16),
    convention: z.enum(["bar", "lockout", "mean"]),
    rest: z
      .object({
        leastS: z.number().int().min(0).max(1800),
        mostS: z.number().int().min(0).max(1800),
      })
      .refine((rest) => rest.leastS <= rest.mostS, "The shorter rest comes first."),
    cycle: z.array(z.string().trim().min(1).max(40)).max(8),
    target: z
      .object({ lowMps: speed, highMps: speed })
      .refine((range) => range.lowMps < range.highMps, "The lower speed comes first.")
      .optional(),
    lead: z.enum(["percent", "velocity"]),
    stop: z.object({
      lossPercent: z.number().min(1).max(60).optional(),
      lossFrom: z.enum(["best", "first"]),
      floorMps: speed.optional(),
    }),
  })
  .superRefine((recipe, context) => {
    const ids = [...recipe.steps, ...recipe.weeks].map((one) => one.id);
    if (new Set(ids).size !== ids.length) {
      context.addIssue({ code: "custom", message: "Two steps or weeks carry the same id." });
    }
  }) satisfies z.ZodType<Recipe>;

export type FieldProblems = Record<string, string>;

/** The first problem of each field, by its path: "steps.0.reps". */
export function fieldProblems(error: z.ZodError): FieldProblems {
  const problems: FieldProblems = {};
  for (const issue of error.issues) problems[issue.path.join(".") || "form"] ??= issue.message;
  return problems;
}

/**
 * A recipe from the form's flat fields: `steps.0.sets`, `weeks.2.flat.percent`. Numbers may have
 * a decimal comma; an empty optional field is left out.
 */
export function recipeFromForm(form: FormData) {
  const text = (name: string) => String(form.get(name) ?? "").trim();
  const number = (name: string) => numberOf(text(name));
  const optional = (name: string) => (text(name) === "" ? undefined : number(name));
  const indices = (prefix: string) =>
    [
      ...new Set(
        [...form.keys()].flatMap((key) => {
          const match = new RegExp(`^${prefix}\\.(\\d+)\\.`).exec(key);
          return match ? [Number(match[1])] : [];
        }),
      ),
    ].sort((a, b) => a - b);
  const low = optional("target.lowMps");
  const high = optional("target.highMps");
  return RecipeSchema.safeParse({
    name: text("name"),
    aim: text("aim"),
    school: text("school"),
    startPercent: number("startPercent"),
    steps: indices("steps").map((i) => ({
      id: text(`steps.${i}.id`),
      sets: number(`steps.${i}.sets`),
      reps: number(`steps.${i}.reps`),
      addPoints: number(`steps.${i}.addPoints`),
    })),
    weeks: indices("weeks").map((i) => ({
      id: text(`weeks.${i}.id`),
      addPoints: number(`weeks.${i}.addPoints`),
      flat:
        text(`weeks.${i}.shape`) === "flat"
          ? {
              sets: number(`weeks.${i}.flat.sets`),
              reps: number(`weeks.${i}.flat.reps`),
              percent: number(`weeks.${i}.flat.percent`),
            }
          : undefined,
    })),
    convention: text("convention"),
    rest: { leastS: number("rest.leastS"), mostS: number("rest.mostS") },
    cycle: text("cycle") === "" ? [] : text("cycle").split(/\s*,\s*/),
    target: low === undefined && high === undefined ? undefined : { lowMps: low, highMps: high },
    lead: text("lead"),
    stop: {
      lossPercent: optional("stop.lossPercent"),
      lossFrom: text("stop.lossFrom"),
      floorMps: optional("stop.floorMps"),
    },
  });
}

function numberOf(text: string): number {
  return text === "" ? Number.NaN : Number(text.replace(",", "."));
}
