import { sql } from "drizzle-orm";
import {
  boolean,
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
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import { CYCLE_DECISIONS } from "../../core/review/box-cycle";
import type { Mass } from "../../core/units/mass";
import type { LocalDate } from "../../core/units/time";
import { entered, teamKey } from "./keys";
import { liftVariant } from "./maxes";
import { plan } from "./plan";
import { athlete, squad } from "./team";

/** A rung passed, or a way back to one: appended, never changed. */
export const ladderMark = pgTable(
  "ladder_mark",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    rungId: text("rung_id").notNull(),
    outcome: text("outcome", { enum: ["passed", "back"] }).notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    note: text("note").notNull().default(""),
    /** The speed weight that was found, as written, and in which variant; both or neither. */
    load: jsonb("load").$type<Mass>(),
    variantId: uuid("variant_id"),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("ladder_mark_of_athlete").on(t.teamId, t.athleteId),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({
      columns: [t.teamId, t.variantId],
      foreignColumns: [liftVariant.teamId, liftVariant.id],
    }),
    check("ladder_mark_found", sql`(${t.load} IS NULL) = (${t.variantId} IS NULL)`),
  ],
);

/** A squad's start on the ladder, and the coach's word to move on earlier; the newest holds. */
export const ladderGroup = pgTable(
  "ladder_group",
  {
    ...teamKey(),
    squadId: uuid("squad_id").notNull(),
    startedOn: date("started_on").$type<LocalDate>().notNull(),
    early: boolean("early").notNull().default(false),
    note: text("note").notNull().default(""),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.squadId], foreignColumns: [squad.teamId, squad.id] }),
  ],
);

/**
 * An athlete's set-up on the box for one variant: the style, where the box stands, the cues, and
 * the rehearsal with the empty bar. Height, hooks and stance are on the athlete's set-up of the
 * lift. A new row is a new set-up: the newest holds, and asks for a rehearsal of its own.
 */
export const boxSetup = pgTable(
  "box_setup",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    variantId: uuid("variant_id").notNull(),
    styleId: text("style_id").notNull(),
    contact: text("contact").notNull(),
    /** Distance from heel to box, cm. */
    distanceCm: doublePrecision("distance_cm"),
    cues: text("cues").notNull().default(""),
    /** A coach's reason where the style is refused or for accessory work only. */
    styleNote: text("style_note").notNull().default(""),
    freeSquatSigned: boolean("free_squat_signed").notNull().default(false),
    rehearsedOn: date("rehearsed_on").$type<LocalDate>(),
    rehearsedBy: text("rehearsed_by"),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({
      columns: [t.teamId, t.variantId],
      foreignColumns: [liftVariant.teamId, liftVariant.id],
    }),
  ],
);

/** A fault written down off the floor; those tagged at a rack are in the session's log. */
export const faultNote = pgTable(
  "fault_note",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    fault: text("fault").notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    percent: doublePrecision("percent"),
    action: text("action").notNull().default("cue"),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("fault_note_of_athlete").on(t.teamId, t.athleteId),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);

/** The team's standard card of cues: every change is a version. */
export const standardCard = pgTable(
  "standard_card",
  {
    ...teamKey(),
    version: integer("version").notNull(),
    cues: text("cues").array().notNull(),
    ...entered(),
  },
  (t) => [primaryKey({ columns: [t.teamId, t.id] }), unique().on(t.teamId, t.version)],
);

/** A coach has read a version and teaches by it. */
export const cardConfirmation = pgTable(
  "card_confirmation",
  {
    ...teamKey(),
    cardId: uuid("card_id").notNull(),
    userId: text("user_id").notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.cardId, t.userId),
    foreignKey({
      columns: [t.teamId, t.cardId],
      foreignColumns: [standardCard.teamId, standardCard.id],
    }),
  ],
);

/** A coach's word on an athlete's cycle on the box, with the evidence it stood on; appended. */
export const cycleReview = pgTable(
  "cycle_review",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    planId: uuid("plan_id").notNull(),
    slotId: text("slot_id").notNull(),
    /** The last week it speaks of. */
    week: integer("week").notNull(),
    decision: text("decision", { enum: CYCLE_DECISIONS }).notNull(),
    note: text("note").notNull().default(""),
    evidence: text("evidence").array().notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("cycle_review_of_athlete").on(t.teamId, t.athleteId),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({ columns: [t.teamId, t.planId], foreignColumns: [plan.teamId, plan.id] }),
  ],
);
