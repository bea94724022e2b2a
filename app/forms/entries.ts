import { z } from "zod";
import { ENTRY_SCHEMA_VERSION, type EntryBody, type LogEntry } from "../../core/floor/entries";
import { STOP_RULES } from "../../core/liverules/rep";

/** The shape of a log entry as it comes over the wire. */

const address = {
  athleteId: z.uuid(),
  slotId: z.string().min(1).max(60),
  setKey: z.string().min(1).max(80),
};
/** No bar moves at over 5 m/s on average. */
const velocity = z.number().positive().max(5);

const action = z.discriminatedUnion("type", [
  z.object({ type: z.literal("load"), deltaKg: z.number().min(-500).max(500), toKg: z.number() }),
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
    processing: z.string().max(40).optional(),
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
    fault: z.string().min(1).max(60),
    cut: z.boolean(),
  }),
  z.object({
    kind: z.literal("call"),
    ...address,
    call: z.enum(["lighten", "more-rest", "end-exercise", "add-load", "more-intent"]),
    decision: z.enum(["take", "change", "decline"]),
    action,
    reason: z.string().max(400),
  }),
  z.object({ kind: z.literal("void") }),
]) satisfies z.ZodType<EntryBody>;

export const EntrySchema = z.object({
  id: z.uuid(),
  deviceId: z.uuid(),
  bootId: z.uuid(),
  deviceSeq: z.number().int().min(0),
  monoMs: z.number().min(0),
  wallTime: z.iso.datetime({ offset: true }),
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
