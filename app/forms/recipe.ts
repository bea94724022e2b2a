import { z } from "zod";
import { BASIS_KINDS, type BasisKind } from "../../core/recipe/basis";
import { AFTER, AIMS, type Recipe, WEEK_KINDS } from "../../core/recipe/recipe";
import { readDecimal } from "../../core/units/decimal";

/** A recipe as the form, a file and the database know it. */
const number = z.number("A number is needed.");
const add = number.min(-200).max(500);
const value = number.min(0, "Not under 0.").max(1500, "At most 1500.");
const sets = number.int("A whole number.").min(1, "At least 1.").max(30, "At most 30.");
const reps = number.int("A whole number.").min(1, "At least 1.").max(400, "At most 400.");
const speed = number.min(0.05, "From 0.05 m/s.").max(4, "At most 4 m/s.");
const id = z
  .string()
  .min(1)
  .max(40)
  .regex(/^[\w-]+$/, "Letters, digits and dashes.");

const Method = z.object({
  name: z.string().trim().min(1).max(60),
  variantId: z.uuid().optional(),
  pauseS: number.min(0).max(20).optional(),
  resisted: z.boolean().optional(),
  factor: number.min(0.3, "From 0.3.").max(1.2, "At most 1.2."),
});

const Week = z.object({
  id,
  add,
  kind: z.enum(WEEK_KINDS).optional(),
  flat: z.object({ sets, reps, at: value }).optional(),
  method: Method.optional(),
  moreSets: number.int().min(-20).max(20).optional(),
  moreReps: number.int().min(-20).max(20).optional(),
});

export const RecipeSchema = z
  .object({
    name: z.string().trim().min(1, "Give the recipe a name.").max(80),
    aim: z.enum(AIMS),
    school: z.string().max(80),
    basis: z.enum(BASIS_KINDS as [BasisKind, ...BasisKind[]]),
    start: value,
    steps: z
      .array(z.object({ id, sets, reps, repsTo: reps.optional(), add }))
      .min(1, "A recipe needs at least one step.")
      .max(12),
    weeks: z.array(Week).min(1, "A recipe needs at least one week.").max(26),
    repeats: number.int().min(1).max(8).optional(),
    tail: z.array(Week).max(6).optional(),
    sessionAdd: add.optional(),
    convention: z.enum(["bar", "lockout", "mean"]),
    resistancePercent: number.min(0).max(60, "At most 60 %.").optional(),
    hangs: z.enum(["bands", "chains"]).optional(),
    rest: z
      .object({
        leastS: number.int().min(0).max(1800),
        mostS: number.int().min(0).max(1800),
      })
      .refine((rest) => rest.leastS <= rest.mostS, "The shorter rest comes first."),
    cycle: z.array(z.string().trim().min(1).max(40)).max(8),
    tempo: z
      .object({ downS: number.min(0).max(20).optional(), pauseS: number.min(0).max(20).optional() })
      .optional(),
    timed: z
      .object({
        everyS: number.int().min(10, "From 10 s.").max(600, "At most 600 s."),
        minutes: number.min(1, "From 1 minute.").max(60, "At most 60 minutes."),
      })
      .optional(),
    top: z
      .object({
        reps: z.union([z.literal(1), z.literal(2), z.literal(3)], "1, 2 or 3 reps."),
        tries: number.int().min(1).max(6),
      })
      .optional(),
    counts: z.enum(["reps", "metres", "contacts"]).optional(),
    sides: z.enum(["both", "left-right"]).optional(),
    leastReserve: number.min(0).max(10).optional(),
    target: z
      .object({ lowMps: speed, highMps: speed })
      .refine((range) => range.lowMps < range.highMps, "The lower speed comes first.")
      .optional(),
    lead: z.enum(["percent", "velocity"]),
    stop: z.object({
      lossPercent: number.min(1, "From 1 %.").max(60, "At most 60 %.").optional(),
      lossFrom: z.enum(["best", "first"]),
      floorMps: speed.optional(),
    }),
    speedsOf: z.string().max(40).optional(),
    after: z.enum(AFTER).optional(),
  })
  .superRefine((recipe, context) => {
    const ids = [...recipe.steps, ...recipe.weeks, ...(recipe.tail ?? [])].map((one) => one.id);
    if (new Set(ids).size !== ids.length) {
      context.addIssue({ code: "custom", message: "Two steps or weeks carry the same id." });
    }
    if (recipe.basis === "percent" && recipe.start > 120) {
      context.addIssue({ code: "custom", path: ["start"], message: "At most 120 %." });
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
 * A recipe from the form's flat fields: `steps.0.sets`, `weeks.2.flat.at`, `tail.0.kind`. Numbers
 * may have a decimal comma; an empty optional field is left out.
 */
export function recipeFromForm(form: FormData) {
  const text = (name: string) => String(form.get(name) ?? "").trim();
  const num = (name: string) => {
    const reading = readDecimal(text(name));
    return reading.ok ? reading.value : Number.NaN;
  };
  const optional = (name: string) => (text(name) === "" ? undefined : num(name));
  const without = <T extends object>(value: T): T | undefined =>
    Object.values(value).some((one) => one !== undefined) ? value : undefined;
  const indices = (prefix: string) =>
    [
      ...new Set(
        [...form.keys()].flatMap((key) => {
          const match = new RegExp(`^${prefix}\\.(\\d+)\\.`).exec(key);
          return match ? [Number(match[1])] : [];
        }),
      ),
    ].sort((a, b) => a - b);
  const weeksOf = (prefix: string) =>
    indices(prefix).map((i) => {
      const at = `${prefix}.${i}`;
      const shape = text(`${at}.shape`);
      const method = text(`${at}.method.name`);
      return {
        id: text(`${at}.id`),
        add: optional(`${at}.add`) ?? 0,
        kind: shape === "deload" || shape === "test" || shape === "off" ? shape : undefined,
        flat:
          shape === "flat"
            ? {
                sets: num(`${at}.flat.sets`),
                reps: num(`${at}.flat.reps`),
                at: num(`${at}.flat.at`),
              }
            : undefined,
        method: method
          ? {
              name: method,
              variantId: text(`${at}.method.variantId`) || undefined,
              pauseS: optional(`${at}.method.pauseS`),
              resisted: text(`${at}.method.resisted`) === "yes" ? true : undefined,
              factor: optional(`${at}.method.factor`) ?? 1,
            }
          : undefined,
        moreSets: optional(`${at}.moreSets`),
        moreReps: optional(`${at}.moreReps`),
      };
    });
  const tail = weeksOf("tail");
  const low = optional("target.lowMps");
  const high = optional("target.highMps");
  const everyS = optional("timed.everyS");
  const topReps = optional("top.reps");
  return RecipeSchema.safeParse({
    name: text("name"),
    aim: text("aim"),
    school: text("school"),
    basis: text("basis") || "percent",
    start: optional("start") ?? (["eye", "found"].includes(text("basis")) ? 0 : Number.NaN),
    steps: indices("steps").map((i) => ({
      id: text(`steps.${i}.id`),
      sets: num(`steps.${i}.sets`),
      reps: num(`steps.${i}.reps`),
      repsTo: optional(`steps.${i}.repsTo`),
      add: optional(`steps.${i}.add`) ?? 0,
    })),
    weeks: weeksOf("weeks"),
    repeats: optional("repeats"),
    tail: tail.length > 0 ? tail : undefined,
    sessionAdd: optional("sessionAdd"),
    convention: text("convention") || "bar",
    resistancePercent: optional("resistancePercent"),
    hangs: text("hangs") === "either" ? undefined : text("hangs") || undefined,
    rest: { leastS: num("rest.leastS"), mostS: num("rest.mostS") },
    cycle: text("cycle") === "" ? [] : text("cycle").split(/\s*,\s*/),
    tempo: without({ downS: optional("tempo.downS"), pauseS: optional("tempo.pauseS") }),
    timed: everyS === undefined ? undefined : { everyS, minutes: num("timed.minutes") },
    top: topReps === undefined ? undefined : { reps: topReps, tries: optional("top.tries") ?? 3 },
    counts: text("counts") && text("counts") !== "reps" ? text("counts") : undefined,
    sides: text("sides") === "left-right" ? "left-right" : undefined,
    leastReserve: optional("leastReserve"),
    target: low === undefined && high === undefined ? undefined : { lowMps: low, highMps: high },
    lead: text("lead") || "percent",
    stop: {
      lossPercent: optional("stop.lossPercent"),
      lossFrom: text("stop.lossFrom") || "best",
      floorMps: optional("stop.floorMps"),
    },
    after: text("after") || undefined,
  });
}
