import { z } from "zod";
import { ATHLETE_COLUMNS } from "../../core/maxes/athlete-rows";
import { GOALS, SEASON_PHASES } from "../../core/maxes/season";
import { jsonField } from "./primitives/json-field";

/** What the pages that take or change many athletes at once send. */

/** Longer lists come in parts. */
export const MOST_LIST_TEXT = 1_500_000;

export const AthleteListForm = z.object({
  intent: z.enum(["check", "keep", "keep-good"]),
  text: z
    .string()
    .refine((text) => text.trim() !== "", "Paste the list first: a name a line, or a table.")
    .refine(
      (text) => text.length <= MOST_LIST_TEXT,
      "This is over 1.5 million characters. Take the list in parts.",
    ),
  fileName: z.string().trim().max(200).default(""),
  /** Squad of lines that name none; empty: they train alone, in the room below. */
  squadId: z.union([z.literal(""), z.uuid()]).default(""),
  roomId: z.union([z.literal(""), z.uuid()]).default(""),
  mapping: jsonField(z.partialRecord(z.enum(ATHLETE_COLUMNS), z.number().int().min(0).max(200))),
  /** By line: an athlete's id, or "new". */
  choices: jsonField(z.record(z.string().regex(/^\d+$/), z.string().max(40))),
});
export type AthleteListInput = z.output<typeof AthleteListForm>;

/** One change for many athletes: `keep` leaves a field as it is. */
export const ManyForm = z.object({
  athleteIds: z
    .string()
    .transform((text) => text.split(",").filter((one) => one !== ""))
    .pipe(z.array(z.uuid()).min(1, "Mark athletes first.").max(5000)),
  squadId: z.union([z.literal("keep"), z.literal("alone"), z.uuid()]),
  alsoIn: z.union([z.literal("keep"), z.uuid()]).default("keep"),
  roomId: z.union([z.literal("keep"), z.literal("squad"), z.uuid()]),
  seasonPhase: z.union([z.literal("keep"), z.literal("none"), z.enum(SEASON_PHASES)]),
  goal: z.union([z.literal("keep"), z.literal("none"), z.enum(GOALS)]),
});
export type ManyInput = z.output<typeof ManyForm>;
