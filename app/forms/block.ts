import { z } from "zod";
import { MOST_OFFSET_CM } from "../../core/boxsquat/slot";
import {
  BOX_STYLES,
  CONTACTS,
  type Contact,
  PURPOSES,
  type Purpose,
  ROLES,
  type Role,
} from "../../core/boxsquat/styles";
import { PLACE_KINDS } from "../../core/gear/kinds";
import { type Block, SECTIONS, TEMPLATES } from "../../core/plan/block";
import type { BlockEdit, Json } from "../../core/plan/edits";
import { readJson } from "./json";
import { dateField } from "./primitives/date";
import { keyField } from "./primitives/key";
import { RecipeSchema } from "./recipe";

const id = keyField(60).regex(/^[\w-]+$/, "Letters, digits and dashes.");
const date = dateField("A date, for example 2026-04-13.");
const week = z.number().int().min(1).max(60);
const name = z.string().trim().min(1, "Give it a name.").max(80);

const Day = z.object({
  name,
  offset: z.number().int().min(0).max(6),
  startAt: z
    .string()
    .regex(/^([01]\d|2[0-3]):[0-5]\d$/, "A time, for example 17:30.")
    .optional(),
  lengthMin: z.number().int().min(5).max(480).optional(),
});

export const SlotSchema = z.object({
  dayId: id,
  section: z.enum(SECTIONS),
  order: z.number().min(-1000).max(1000),
  work: z.discriminatedUnion("kind", [
    z.object({ kind: z.literal("lift"), variantId: z.uuid("Choose a lift.") }),
    z.object({
      kind: z.literal("exercise"),
      exerciseIds: z.array(z.uuid()).min(1, "Choose an exercise.").max(12),
      hands: z.union([z.literal(1), z.literal(2)]),
    }),
  ]),
  recipe: RecipeSchema,
  fromWeek: week,
  repeat: z.boolean(),
  session: z.number().int().min(1).max(7),
  group: z.string().max(2),
  doneAt: z.enum(PLACE_KINDS).optional(),
  schoolId: z.uuid("Choose a school.").optional(),
  box: z
    .object({
      purpose: z.enum(Object.keys(PURPOSES) as [Purpose, ...Purpose[]]),
      role: z.enum(Object.keys(ROLES) as [Role, ...Role[]]),
      styleId: z.enum(BOX_STYLES.map((one) => one.id) as [string, ...string[]]),
      contact: z.enum(Object.keys(CONTACTS) as [Contact, ...Contact[]]),
      smallestStopS: z
        .number("A stop in seconds.")
        .min(0.05, "A stop of at least 0.05 s.")
        .max(2, "A stop of at most 2 s.")
        .optional(),
      offsetCm: z
        .number("An offset in cm.")
        .min(-MOST_OFFSET_CM.under, `At most ${MOST_OFFSET_CM.under} cm under the own height.`)
        .max(MOST_OFFSET_CM.over, `At most ${MOST_OFFSET_CM.over} cm over the own height.`)
        .optional(),
    })
    .optional(),
});

const MOST = 400;

/** A whole block. What edits may make of it is what this lets through. */
export const BlockSchema = z
  .object({
    name,
    startDate: date,
    weeks: week,
    schoolId: z.union([z.literal(""), z.uuid("Choose a school.")]),
    template: z.enum(TEMPLATES),
    days: z.record(id, Day),
    slots: z.record(id, SlotSchema),
    pairings: z
      .record(id, z.object({ dayId: id, complexId: z.uuid("Choose a complex."), fromWeek: week }))
      .optional(),
    marks: z.record(
      id,
      z.object({ week, kind: z.enum(["deload", "test", "off"]), words: z.string().trim().max(80) }),
    ),
    overrides: z.record(
      z.string().max(220),
      z.object({ loadKg: z.number().positive().max(1000), by: z.string().max(80) }),
    ),
    rests: z
      .record(
        z.string().max(220),
        z.object({ addS: z.number().int().min(1).max(900), by: z.string().max(80) }),
      )
      .optional(),
    floors: z
      .record(
        z.string().max(220),
        z.object({ floorMps: z.number().min(0.05).max(4), by: z.string().max(80) }),
      )
      .optional(),
    away: z.record(id, z.object({ athleteId: z.uuid(), from: date, to: date })),
    apart: z.record(z.uuid(), z.literal(true)),
    answered: z.record(
      z.string().max(200),
      z.object({
        reason: z.string().trim().min(3, "Write the reason.").max(300),
        by: z.string().max(80),
        athletes: z.array(z.uuid()).max(500).optional(),
      }),
    ),
  })
  .superRefine((block, context) => {
    for (const [slotId, slot] of Object.entries(block.slots)) {
      if (!block.days[slot.dayId]) {
        context.addIssue({
          code: "custom",
          path: ["slots", slotId, "dayId"],
          message: "This slot's day is not there any more.",
        });
      }
    }
    for (const [pairingId, pairing] of Object.entries(block.pairings ?? {})) {
      if (!block.days[pairing.dayId]) {
        context.addIssue({
          code: "custom",
          path: ["pairings", pairingId, "dayId"],
          message: "This pairing's day is not there any more.",
        });
      }
    }
    const weeks = Object.values(block.marks).map((mark) => mark.week);
    if (new Set(weeks).size !== weeks.length) {
      context.addIssue({ code: "custom", path: ["marks"], message: "A week is marked once." });
    }
    if (weeks.some((one) => one > block.weeks)) {
      context.addIssue({
        code: "custom",
        path: ["marks"],
        message: "A marked week lies after the block's last week.",
      });
    }
    if (Object.values(block.away).some((away) => away.from > away.to)) {
      context.addIssue({ code: "custom", path: ["away"], message: "The first day comes first." });
    }
    if (Object.keys(block.slots).length > MOST) {
      context.addIssue({ code: "custom", path: ["slots"], message: `At most ${MOST} slots.` });
    }
  }) satisfies z.ZodType<Block>;

const JsonValue: z.ZodType<Json> = z.json() as z.ZodType<Json>;

export const EditSchema = z.object({
  words: z.string().trim().min(1).max(160),
  sets: z
    .array(
      z.object({
        path: z.array(keyField(220)).min(1).max(8),
        value: JsonValue.optional(),
      }),
    )
    .min(1, "An edit changes something.")
    .max(800),
}) satisfies z.ZodType<BlockEdit>;

export const NewBlockForm = z.object({
  name,
  groupId: z.uuid("Choose a squad, or an athlete who trains alone."),
  roomId: z.uuid("Choose a room."),
  startDate: date,
  weeks: z.coerce
    .number("A number of weeks.")
    .int()
    .min(1, "At least one week.")
    .max(52, "At most 52 weeks."),
  schoolId: z.uuid("Choose a school."),
});

export const BLOCK_FORMAT = "sprezza-block";
export const RECIPE_FORMAT = "sprezza-recipe";

const BlockFile = z.object({
  format: z.literal(BLOCK_FORMAT),
  version: z.literal(1),
  // A school goes by its name: another team has its own.
  block: z.preprocess(
    (raw) => (typeof raw === "object" && raw !== null ? { ...raw, schoolId: "" } : raw),
    BlockSchema,
  ),
  /** Absent in files from before: there the block itself names it. */
  school: z.string().max(80).optional(),
});

/** The name of a block file's school, wherever it stands. */
const FileSchool = z.object({
  school: z.string().max(80).optional(),
  block: z.object({ school: z.string().max(80).optional() }),
});

const RecipeFile = z.object({
  format: z.literal(RECIPE_FORMAT),
  version: z.literal(1),
  family: z.string().trim().min(1).max(60),
  source: z.string().trim().max(200).default(""),
  recipe: RecipeSchema,
});

export type FileReading<T> = { ok: true; value: T } | { ok: false; problems: string[] };

function readFile<T>(text: string, schema: z.ZodType<T>, what: string): FileReading<T> {
  const file = readJson(text);
  if (!file.ok) return { ok: false, problems: [file.why] };
  const { raw } = file;
  const format = (raw as { format?: unknown } | null)?.format;
  if (typeof format !== "string") {
    return { ok: false, problems: [`This is not a ${what}: it says no format.`] };
  }
  const parsed = schema.safeParse(raw);
  if (parsed.success) return { ok: true, value: parsed.data };
  return {
    ok: false,
    problems: parsed.error.issues
      .slice(0, 20)
      .map((issue) => `${issue.path.join(" › ") || "The file"}: ${issue.message}`),
  };
}

export const readRecipeFile = (text: string) => readFile(text, RecipeFile, "recipe");

export function readBlockFile(text: string): FileReading<{ block: Block; school: string }> {
  const read = readFile(text, BlockFile, "block");
  if (!read.ok) return read;
  const named = FileSchool.safeParse(JSON.parse(text));
  const school = named.success ? (named.data.school ?? named.data.block.school) : undefined;
  return { ok: true, value: { block: read.value.block, school: school ?? "" } };
}

export function recipeAsJson(one: { family: string; source: string; recipe: unknown }): string {
  const { family, source, recipe } = one;
  return `${JSON.stringify({ format: RECIPE_FORMAT, version: 1, family, source, recipe }, null, 2)}\n`;
}

/**
 * A block without its people: own loads and absences stay at home.
 * @param school name of its school, by which another team finds its own
 */
export function blockAsJson(block: Block, school: string): string {
  const { schoolId: _, ...shared } = block;
  // A school's id means nothing to another team: who takes the block in chooses.
  const slots = Object.fromEntries(
    Object.entries(shared.slots).map(([id, { schoolId: _school, ...slot }]) => [id, slot]),
  );
  const own = { ...shared, slots, overrides: {}, away: {}, apart: {}, answered: {} };
  return `${JSON.stringify({ format: BLOCK_FORMAT, version: 1, school, block: own }, null, 2)}\n`;
}
