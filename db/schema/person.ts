import { sql } from "drizzle-orm";
import {
  boolean,
  check,
  date,
  doublePrecision,
  foreignKey,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import { GUARDED, REASON_KINDS } from "../../core/maxes/limits";
import type { Mass } from "../../core/units/mass";
import type { LocalDate } from "../../core/units/time";
import { entered, teamKey } from "./keys";
import { liftVariant } from "./maxes";
import { athlete, squad } from "./team";

/** Facts about a person that change with time. */
export const bodyMass = pgTable(
  "body_mass",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    mass: jsonb("mass").$type<Mass>().notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.athleteId, t.date),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);

/** A competition of one athlete, or of a whole squad. */
export const competition = pgTable(
  "competition",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id"),
    squadId: uuid("squad_id"),
    name: text("name").notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    check("competition_of_one", sql`(athlete_id IS NULL) <> (squad_id IS NULL)`),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({ columns: [t.teamId, t.squadId], foreignColumns: [squad.teamId, squad.id] }),
  ],
);

/** What an athlete may not do, as cards and racks show it. */
export const athleteLimit = pgTable(
  "athlete_limit",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    instruction: text("instruction").notNull(),
    refuses: text("refuses", { enum: GUARDED }).array().notNull(),
    lift: text("lift"),
    capPercent: doublePrecision("cap_percent"),
    until: date("until").$type<LocalDate>(),
    ...entered(),
    liftedOn: date("lifted_on").$type<LocalDate>(),
    liftedBy: text("lifted_by"),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);

/** Why: owner, coaches and that athlete only. Its own table, so that no join brings it along. */
export const limitReason = pgTable(
  "limit_reason",
  {
    ...teamKey(),
    limitId: uuid("limit_id").notNull(),
    kind: text("kind", { enum: REASON_KINDS }).notNull(),
    reason: text("reason").notNull(),
    guardianConsent: boolean("guardian_consent").notNull().default(false),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({
      columns: [t.teamId, t.limitId],
      foreignColumns: [athleteLimit.teamId, athleteLimit.id],
    }),
  ],
);

/** Every reading of a reason. */
export const reasonRead = pgTable(
  "reason_read",
  {
    ...teamKey(),
    limitId: uuid("limit_id").notNull(),
    readBy: text("read_by").notNull(),
    readAt: timestamp("read_at", { withTimezone: true }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({
      columns: [t.teamId, t.limitId],
      foreignColumns: [athleteLimit.teamId, athleteLimit.id],
    }),
  ],
);

/** Who was erased: their numbers only, so that what is restored from a backup is erased again. */
export const erasure = pgTable(
  "erasure",
  {
    /** The id is the athlete's. */
    ...teamKey(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.id], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);

/** Sleep, eating and soreness of a day, all optional; seen as a reason is. */
export const dayNote = pgTable(
  "day_note",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    sleepH: doublePrecision("sleep_h"),
    /** 1 poor to 5 good; 0 none to 10. */
    eating: integer("eating"),
    soreness: integer("soreness"),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.athleteId, t.date),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);

/** What stays set from one day to the next at a lift: hooks, safeties, grip, stance, start. */
export const athleteSetup = pgTable(
  "athlete_setup",
  {
    ...teamKey(),
    athleteId: uuid("athlete_id").notNull(),
    variantId: uuid("variant_id").notNull(),
    hook: text("hook").notNull().default(""),
    safety: text("safety").notNull().default(""),
    grip: text("grip").notNull().default(""),
    stance: text("stance").notNull().default(""),
    startHeightCm: doublePrecision("start_height_cm"),
    /** Bar height at the bottom and at lockout, measured, m. */
    bottomM: doublePrecision("bottom_m"),
    lockoutM: doublePrecision("lockout_m"),
    /** Trial seat on the box, and how far the crease was over (+) or under (−) the knee, cm. */
    boxSeatCm: doublePrecision("box_seat_cm"),
    boxCreaseCm: doublePrecision("box_crease_cm"),
    note: text("note").notNull().default(""),
    ...entered(),
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
