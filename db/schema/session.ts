import { sql } from "drizzle-orm";
import {
  bigint,
  check,
  date,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uniqueIndex,
  uuid,
} from "drizzle-orm/pg-core";
import type { EntryBody } from "../../core/floor/entries";
import type { FrozenSession } from "../../core/floor/frozen";
import type { LocalDate } from "../../core/units/time";
import type { SimulatedLifter } from "../../device/lifter";
import { rack } from "./gear";
import { entered, teamKey } from "./keys";
import { liftVariant } from "./maxes";
import { plan } from "./plan";
import { athlete, room, team } from "./team";

/**
 * A day on the floor: one or more slots at stations. Starting it freezes plan, room, prescriptions
 * and the core's version. A pairing that no plan asked for has neither plan nor room.
 */
export const trainingSession = pgTable(
  "training_session",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    planId: uuid("plan_id"),
    week: integer("week"),
    /** The first of its slots; `parts` has them all. */
    slotId: text("slot_id").notNull().default("main"),
    /** Local date in the room's zone. */
    date: date("date").$type<LocalDate>().notNull(),
    roomId: uuid("room_id"),
    status: text("status", { enum: ["running", "ended"] }).notNull(),
    frozen: jsonb("frozen").$type<FrozenSession>().notNull(),
    /** What lists ask of it, so that none of them opens a hundred kilobytes for a name. */
    title: text("title").generatedAlwaysAs(sql`frozen->>'title'`),
    zone: text("zone").generatedAlwaysAs(sql`frozen->>'zone'`),
    /** The plans' slots that it is made of, `{planId, week, slotId}` each; empty in older ones. */
    parts: jsonb("parts")
      .$type<Array<{ planId: string; week: number; slotId: string }>>()
      .generatedAlwaysAs(sql`jsonb_path_query_array(frozen, '$.slots[*].from')`),
    /** The lifts that are lifted in it. */
    lifts: jsonb("lifts")
      .$type<string[]>()
      .generatedAlwaysAs(sql`jsonb_path_query_array(frozen, '$.slots[*].lift')`),
    /** Sequence number of the last entry; allotted in the inserting transaction. */
    lastSeq: bigint("last_seq", { mode: "number" }).notNull().default(0),
    startedAt: timestamp("started_at", { withTimezone: true }).notNull(),
    endedAt: timestamp("ended_at", { withTimezone: true }),
    startedBy: text("started_by").notNull(),
    /** Who trains it alone, on a phone of their own; null where a coach put it on the floor. */
    ownOf: uuid("own_of"),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    // The squad does a plan's day once, and each athlete once more alone.
    uniqueIndex("training_session_of_squad")
      .on(t.teamId, t.planId, t.week, t.slotId)
      .where(sql`own_of IS NULL`),
    uniqueIndex("training_session_alone")
      .on(t.teamId, t.ownOf, t.planId, t.week, t.slotId)
      .where(sql`own_of IS NOT NULL`),
    index("training_session_by_date").on(t.teamId, t.date),
    foreignKey({ columns: [t.teamId, t.planId], foreignColumns: [plan.teamId, plan.id] }),
    foreignKey({ columns: [t.teamId, t.roomId], foreignColumns: [room.teamId, room.id] }),
    foreignKey({ columns: [t.teamId, t.ownOf], foreignColumns: [athlete.teamId, athlete.id] }),
    check("ended_has_a_moment", sql`(${t.status} = 'ended') = (${t.endedAt} IS NOT NULL)`),
  ],
);

/**
 * What a session shows of a person, beside the frozen session: who is erased loses this row, and
 * the session stays as it was lifted.
 */
export const sessionPerson = pgTable(
  "session_person",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    sessionId: uuid("session_id").notNull(),
    athleteId: uuid("athlete_id").notNull(),
    name: text("name").notNull(),
    instructions: text("instructions").array().notNull(),
    /** Lines of the set-up by slot; in `setup` where a session was one slot. */
    setups: jsonb("setups").$type<Record<string, string[]>>(),
    setup: text("setup").array(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.sessionId, t.athleteId] }),
    index("session_person_of_athlete").on(t.teamId, t.athleteId),
    foreignKey({
      columns: [t.teamId, t.sessionId],
      foreignColumns: [trainingSession.teamId, trainingSession.id],
    }),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);

/** The append-only log. No row is ever changed: rights and a trigger both forbid it. */
export const logEntry = pgTable(
  "log_entry",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    sessionId: uuid("session_id").notNull(),
    seq: bigint("seq", { mode: "number" }).notNull(),
    deviceId: uuid("device_id").notNull(),
    bootId: uuid("boot_id").notNull(),
    deviceSeq: integer("device_seq").notNull(),
    monoMs: doublePrecision("mono_ms").notNull(),
    wallTime: timestamp("wall_time", { withTimezone: true, mode: "string" }).notNull(),
    receivedAt: timestamp("received_at", { withTimezone: true }).notNull(),
    supersedes: uuid("supersedes").array().notNull(),
    schemaVersion: integer("schema_version").notNull(),
    kind: text("kind").notNull(),
    body: jsonb("body").$type<EntryBody>().notNull(),
    /** Whom the body speaks of; a column, for under row security no index looks into a body. */
    athleteId: uuid("athlete_id").generatedAlwaysAs(
      sql`CASE WHEN body->>'athleteId' ~ '^[0-9a-f-]{36}$' THEN (body->>'athleteId')::uuid END`,
    ),
    /** Person or rack device that sent it. */
    author: text("author").notNull(),
    /** When it was made, by device, boot and monotonic time; absent in older entries. */
    madeAt: timestamp("made_at", { withTimezone: true }),
    /** Why it counts only by the coach's word. */
    doubt: text("doubt", { enum: ["time-unknown", "revoked-tablet"] }),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.sessionId, t.seq),
    index("log_entry_corrections").on(t.teamId, t.sessionId).where(sql`supersedes <> '{}'`),
    index("log_entry_sets_of_athlete")
      .on(t.teamId, t.athleteId)
      .where(sql`kind IN ('set-done', 'fault')`),
    foreignKey({
      columns: [t.teamId, t.sessionId],
      foreignColumns: [trainingSession.teamId, trainingSession.id],
    }),
  ],
);

/** What a person wrote with an entry, beside the log: it can be erased, the entry stays. */
export const entryWords = pgTable(
  "entry_words",
  {
    ...teamKey(),
    /** Why a correction was made. */
    why: text("why"),
    /** Why a call was declined or changed, or a pairing stopped. */
    reason: text("reason"),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.id], foreignColumns: [logEntry.teamId, logEntry.id] }),
  ],
);

/** When a session was ended or opened again, by whom and why. */
export const sessionChange = pgTable(
  "session_change",
  {
    ...teamKey(),
    sessionId: uuid("session_id").notNull(),
    change: text("change", { enum: ["ended", "reopened"] }).notNull(),
    reason: text("reason").notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("session_change_of_session").on(t.teamId, t.sessionId),
    foreignKey({
      columns: [t.teamId, t.sessionId],
      foreignColumns: [trainingSession.teamId, trainingSession.id],
    }),
  ],
);

/** What the server has learnt of a device's clocks, one row for each start of its page. */
export const deviceClock = pgTable(
  "device_clock",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    bootId: uuid("id").notNull(),
    deviceId: uuid("device_id").notNull(),
    /** The server's clock less the page's monotonic clock, ms; the least that was seen. */
    monoOffsetMs: doublePrecision("mono_offset_ms").notNull(),
    /** The server's clock less the device's wall clock, ms, when it was seen last. */
    wallOffsetMs: doublePrecision("wall_offset_ms").notNull(),
    learntAt: timestamp("learnt_at", { withTimezone: true }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.bootId] }),
    index("device_clock_newest").on(t.teamId, t.deviceId, t.learntAt),
  ],
);

/** A tablet fixed at a rack: a principal of its own, with the scope of one room. */
export const rackDevice = pgTable(
  "rack_device",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    roomId: uuid("room_id").notNull(),
    rackId: uuid("rack_id").notNull(),
    /** What it is: a tablet shows and logs, a sensor only sends frames. */
    kind: text("kind", { enum: ["tablet", "sensor"] })
      .notNull()
      .default("tablet"),
    name: text("name").notNull(),
    /** SHA-256 of the token; the token itself is only on the device. */
    tokenHash: text("token_hash").notNull(),
    pairedAt: timestamp("paired_at", { withTimezone: true }).notNull(),
    revokedAt: timestamp("revoked_at", { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.tokenHash),
    foreignKey({ columns: [t.teamId, t.rackId], foreignColumns: [rack.teamId, rack.id] }),
    foreignKey({ columns: [t.teamId, t.roomId], foreignColumns: [room.teamId, room.id] }),
  ],
);

/** An open pairing: single use, five minutes, five tries. */
export const devicePairing = pgTable(
  "device_pairing",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    rackId: uuid("rack_id").notNull(),
    roomId: uuid("room_id").notNull(),
    /** The open half of the code finds the pairing, the secret half opens it. */
    handle: text("handle").notNull().unique(),
    secretHash: text("secret_hash").notNull(),
    triesLeft: integer("tries_left").notNull(),
    expiresAt: timestamp("expires_at", { withTimezone: true }).notNull(),
    createdBy: text("created_by").notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.rackId], foreignColumns: [rack.teamId, rack.id] }),
    check("tries_not_negative", sql`${t.triesLeft} >= 0`),
  ],
);

/** The hidden truth of a simulated lifter, for the stand-in sensor. Demo teams only. */
export const simulatedLifter = pgTable(
  "simulated_lifter",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    athleteId: uuid("athlete_id").notNull(),
    variantId: uuid("variant_id").notNull(),
    truth: jsonb("truth").$type<SimulatedLifter>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.athleteId, t.variantId),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({
      columns: [t.teamId, t.variantId],
      foreignColumns: [liftVariant.teamId, liftVariant.id],
    }),
  ],
);
