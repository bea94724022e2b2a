import { z } from "zod";
import {
  ENTRY_SCHEMA_VERSION,
  type EntryBody,
  type EntryDoubt,
  PAIN_PLACES,
} from "../../core/floor/entries";
import { EYES } from "../../core/liverules/eye";
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

/** Version 1 did not say where; it is still read, and taken from tablets that were open before. */
const work = { athleteId: z.uuid(), slotId: kept(60).min(1).refine(isKey) };
const station = { stationId: z.uuid() };
const setKey = { setKey: kept(80).min(1).refine(isKey) };
const place = {
  ...work,
  ...station,
  round: z.number().int().min(1).max(20),
  item: z.number().int().min(0).max(11),
};
/** Why a correction was made. */
const why = { why: kept(400).optional() };
/** No bar moves at over 5 m/s on average. */
const velocity = z.number().positive().max(5);
/** A height, a distance, a time, a speed. */
const output = z.number().positive().max(100_000);

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

const rep = {
  kind: z.literal("rep"),
  rep: z.number().int().min(1).max(100),
  mcvMps: velocity.optional(),
  mpvMps: velocity.optional(),
  pvMps: z.number().positive().max(10).optional(),
  rangeM: z.number().positive().max(3).optional(),
  pauseS: z.number().min(0).max(120).optional(),
  loweringMps: z.number().min(0).max(10).optional(),
  contactMps: z.number().min(0).max(10).optional(),
  toPeakS: z.number().min(0).max(20).optional(),
  rockM: z.number().positive().max(1).optional(),
  short: z.boolean().optional(),
  outcome: z.enum(["counted", "failed"]),
  source: z.enum(["sensor", "simulated", "typed", "eye", "video"]),
  processing: kept(40).optional(),
};
const setDone = {
  kind: z.literal("set-done"),
  loadKg: z.number().positive().max(1000),
  endedBy: z.enum([...STOP_RULES, "hand"]),
  cut: z.boolean(),
  eye: z.enum(EYES).optional(),
};
const fault = { kind: z.literal("fault"), fault: kept(60).min(1), cut: z.boolean() };
const call = {
  kind: z.literal("call"),
  call: z.enum(["lighten", "more-rest", "end-exercise", "add-load", "more-intent", "day-form"]),
  decision: z.enum(["take", "change", "decline"]),
  action,
  reason: kept(400),
};
const ofSet = { ...work, ...station, ...setKey, ...why };
const ofItem = { ...place, ...why };

const body = z.discriminatedUnion("kind", [
  z.object({ ...rep, ...ofSet }),
  z.object({ ...setDone, ...ofSet }),
  z.object({ ...fault, ...ofSet }),
  z.object({ ...call, ...ofSet }),
  z.object({ kind: z.literal("pain"), place: z.enum(PAIN_PLACES).optional(), ...ofSet }),
  z.object({ kind: z.literal("pain-over"), of: z.array(z.uuid()).min(1).max(50), ...ofSet }),
  z.object({ kind: z.literal("set-load"), loadKg: z.number().positive().max(1000), ...ofSet }),
  z.object({ kind: z.literal("later"), ...ofSet }),
  z.object({ kind: z.literal("skip"), ...ofSet }),
  z.object({ kind: z.literal("rehearsed"), ...ofSet }),
  z.object({ kind: z.literal("bounce"), rep: z.number().int().min(1).max(100), ...ofSet }),
  z.object({
    kind: z.literal("work"),
    side: z.enum(["left", "right"]).optional(),
    reps: z.number().int().min(0).max(10_000),
    loadKg: z.number().positive().max(1000).optional(),
    output: output.optional(),
    ...ofSet,
  }),
  z.object({
    kind: z.literal("move"),
    turn: z.number().int().min(0).max(1000).optional(),
    ...work,
    ...station,
    ...why,
  }),
  z.object({ kind: z.literal("off"), ...work, ...station, ...why }),
  z.object({ kind: z.literal("note"), reason: kept(300).min(1), ...why }),
  z.object({ kind: z.literal("pause"), on: z.boolean(), ...why }),
  z.object({ kind: z.literal("item-start"), ...ofItem }),
  z.object({ kind: z.literal("item-done"), ...ofItem }),
  z.object({
    kind: z.literal("item-output"),
    value: output,
    side: z.enum(["left", "right"]).optional(),
    ...ofItem,
  }),
  z.object({ kind: z.literal("item-baseline"), value: output, ...ofItem }),
  z.object({
    kind: z.literal("item-sides"),
    left: z.number().int().min(0).max(400),
    right: z.number().int().min(0).max(400),
    ...ofItem,
  }),
  z.object({ kind: z.literal("item-load"), kg: z.number().positive().max(500), ...ofItem }),
  z.object({ kind: z.literal("pairing-stop"), reason: kept(200), ...ofItem }),
  z.object({ kind: z.literal("void"), ...why }),
  z.object({
    kind: z.literal("admit"),
    of: z.array(z.uuid()).min(1).max(200),
    take: z.boolean(),
    ...why,
  }),
]) satisfies z.ZodType<EntryBody>;

const oldBody = z.discriminatedUnion("kind", [
  z.object({ ...rep, ...work, ...setKey }),
  z.object({ ...setDone, ...work, ...setKey }),
  z.object({ ...fault, ...work, ...setKey }),
  z.object({ ...call, ...work, ...setKey }),
  z.object({ kind: z.literal("void") }),
]);

const envelope = {
  id: z.uuid(),
  deviceId: z.uuid(),
  bootId: z.uuid(),
  deviceSeq: z.number().int().min(0).max(MOST_INTEGER),
  monoMs: z.number().min(0).max(Number.MAX_SAFE_INTEGER),
  wallTime: z.iso
    .datetime({ offset: true })
    .refine(isMoment, `A moment between ${EARLIEST_YEAR} and ${LATEST_YEAR}.`),
  supersedes: z.array(z.uuid()).max(200),
};

export const EntrySchema = z.discriminatedUnion("schemaVersion", [
  z.object({ ...envelope, schemaVersion: z.literal(1), body: oldBody }),
  // Version 2 has the same bodies, fewer of them: from tablets that were open before.
  z.object({ ...envelope, schemaVersion: z.literal(2), body }),
  z.object({ ...envelope, schemaVersion: z.literal(ENTRY_SCHEMA_VERSION), body }),
]);

export const MOST_ENTRIES = 500;

/** The clocks of the page that sends, at the moment of sending. */
export const ClockSchema = z.object({
  deviceId: z.uuid(),
  bootId: z.uuid(),
  monoMs: z.number().min(0).max(Number.MAX_SAFE_INTEGER),
  wallMs: z.number().min(-8.64e15).max(8.64e15),
});
export type SenderClock = z.output<typeof ClockSchema>;

/**
 * A batch: every entry is checked on its own, so that one bad entry blocks no other. An empty one
 * tells the clock alone.
 */
export const BatchSchema = z
  .object({ entries: z.array(z.unknown()).max(MOST_ENTRIES), clock: ClockSchema.optional() })
  .refine((batch) => batch.entries.length > 0 || batch.clock !== undefined);

export type EntryAnswer =
  | { id: string; status: "stored"; seq: number; madeAt?: string; doubt?: EntryDoubt }
  | { id: string; status: "refused"; reason: string };
