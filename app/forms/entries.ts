import { z } from "zod";
import { ENTRY_SCHEMA_VERSION, type EntryBody, type LogEntry } from "../../core/floor/entries";
import { STOP_RULES } from "../../core/liverules/rep";
import { isClean } from "../../core/units/text";
import { EARLIEST_YEAR, LATEST_YEAR } from "../../core/units/time";
import { isKey } from "./primitives/key";

/** The shape of a log entry as it comes over the wire. */

/** What a whole number of the database holds. */
const MOST_INTEGER = 2 ** 31 - 1;

/** A text that is stored as it came, or refused: the log keeps what was sent, to the letter. */
const kept = (most: number) =>
  z.string().max(most).refine(isClean, "Characters that cannot be kept: NUL or half of one.");

const isMoment = (text: string) => {
  const year = new Date(text).getUTCFullYear();
  return year >= EARLIEST_YEAR && year <= LATEST_YEAR;
};

const address = {
  athleteId: z.uuid(),
  slotId: kept(60).min(1).refine(isKey),
  setKey: kept(80).min(1).refine(isKey),
};
/** No bar moves at over 5 m/s on average. */
const velocity = z.number().positive().max(5);

const action = z.discriminatedUnion("type", [
  z.object({
    type: z.literal("load"),
    deltaKg: z.number().min(-500).max(500),
    toKg: z.number().min(0).max(1000),
  }),
  z.object({ type: z.literal("rest"), addS: z.number().min(0).max(900) }),
  z.object({ type: z.literal("end-exercise") }),
  z.object({ type: z.literal("none") }),
]);

const body = z.discriminatedUnion("kind", [
  z.object({
    kind: z.literal("rep"),
    ...address,
    rep: z.number().int().min(1).max(100),
    mcvMps: velocity.optional(),
    mpvMps: velocity.optional(),
    pvMps: z.number().positive().max(10).optional(),
    rangeM: z.number().positive().max(3).optional(),
    pauseS: z.number().min(0).max(120).optional(),
    loweringMps: z.number().min(0).max(10).optional(),
    contactMps: z.number().min(0).max(10).optional(),
    toPeakS: z.number().min(0).max(20).optional(),
    short: z.boolean().optional(),
    outcome: z.enum(["counted", "failed"]),
    source: z.enum(["sensor", "simulated", "typed", "eye", "video"]),
    processing: kept(40).optional(),
  }),
  z.object({
    kind: z.literal("set-done"),
    ...address,
    loadKg: z.number().positive().max(1000),
    endedBy: z.enum([...STOP_RULES, "hand"]),
    cut: z.boolean(),
  }),
  z.object({
    kind: z.literal("fault"),
    ...address,
    fault: kept(60).min(1),
    cut: z.boolean(),
  }),
  z.object({
    kind: z.literal("call"),
    ...address,
    call: z.enum(["lighten", "more-rest", "end-exercise", "add-load", "more-intent"]),
    decision: z.enum(["take", "change", "decline"]),
    action,
    reason: kept(400),
  }),
  z.object({ kind: z.literal("void") }),
]) satisfies z.ZodType<EntryBody>;

export const EntrySchema = z.object({
  id: z.uuid(),
  deviceId: z.uuid(),
  bootId: z.uuid(),
  deviceSeq: z.number().int().min(0).max(MOST_INTEGER),
  monoMs: z.number().min(0).max(Number.MAX_SAFE_INTEGER),
  wallTime: z.iso
    .datetime({ offset: true })
    .refine(isMoment, `A moment between ${EARLIEST_YEAR} and ${LATEST_YEAR}.`),
  supersedes: z.array(z.uuid()).max(200),
  schemaVersion: z.number().int().min(1).max(ENTRY_SCHEMA_VERSION),
  body,
}) satisfies z.ZodType<Omit<LogEntry, "seq">>;

export const MOST_ENTRIES = 500;

/** A batch: every entry is checked on its own, so that one bad entry blocks no other. */
export const BatchSchema = z.object({ entries: z.array(z.unknown()).min(1).max(MOST_ENTRIES) });

export type EntryAnswer =
  | { id: string; status: "stored"; seq: number }
  | { id: string; status: "refused"; reason: string };
