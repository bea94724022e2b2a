import { sql } from "drizzle-orm";
import {
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
import { GOALS, SEASON_PHASES } from "../../core/maxes/season";
import type { LocalDate } from "../../core/units/time";

/** Roles from DESIGN: what each may do stands in app/platform/rights.ts. */
export const ROLES = ["owner", "coach", "assistant", "athlete"] as const;
export type Role = (typeof ROLES)[number];

/** The steps from a new team to its first session. */
export const FIRST_HOUR_STEPS = [
  "school",
  "room",
  "squads",
  "athletes",
  "maxes",
  "plan",
  "tablets",
] as const;
export type FirstHourStep = (typeof FIRST_HOUR_STEPS)[number];
/** `aside`: steps that somebody marked as seen or not wanted; `over`: the page has left. */
export interface FirstHour {
  aside?: FirstHourStep[];
  over?: boolean;
}

export const team = pgTable("team", {
  id: uuid("id").primaryKey(),
  name: text("name").notNull(),
  /** Unit in which the team reads loads; a person may have another. */
  unit: text("unit", { enum: ["kg", "lb"] })
    .notNull()
    .default("kg"),
  /** IANA zone of what belongs to no room. */
  zone: text("zone").notNull().default("UTC"),
  /** The school that new plans start with; a key in the database. */
  schoolId: uuid("school_id"),
  /** What of the first hour was set aside, and whether it is over. */
  firstHour: jsonb("first_hour").$type<FirstHour>().notNull().default({}),
  createdAt: timestamp("created_at", { withTimezone: true }).notNull().defaultNow(),
});

export const room = pgTable(
  "room",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    /** IANA zone, for the local date of sessions. */
    zone: text("zone").notNull(),
  },
  (t) => [primaryKey({ columns: [t.teamId, t.id] })],
);

export const squad = pgTable(
  "squad",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    sport: text("sport").notNull(),
    roomId: uuid("room_id").notNull(),
    /** Where it stands in every list of squads. */
    position: integer("position").notNull().default(0),
    /** Trains no more as a squad: on no list; its plans and sessions are kept. */
    archivedAt: timestamp("archived_at", { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.roomId], foreignColumns: [room.teamId, room.id] }),
  ],
);

export const athlete = pgTable(
  "athlete",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    /** The squad that gives sport and room; none for a client who trains alone. */
    squadId: uuid("squad_id"),
    birthYear: integer("birth_year"),
    /** First date of real barbell training; the training age counts from it. */
    trainingSince: date("training_since").$type<LocalDate>(),
    /** The school that this athlete follows, where it is not the plan's; a key in the database. */
    schoolId: uuid("school_id"),
    unit: text("unit", { enum: ["kg", "lb"] }),
    goal: text("goal", { enum: GOALS }),
    seasonPhase: text("season_phase", { enum: SEASON_PHASES }),
    /** Where it differs from the squad's. */
    sport: text("sport"),
    roomId: uuid("room_id"),
    statureCm: doublePrecision("stature_cm"),
    note: text("note").notNull().default(""),
    /** Trains here no more: on no list, in no new session; everything of theirs is kept. */
    archivedAt: timestamp("archived_at", { withTimezone: true }),
    /** Names, notes and reasons are gone for good; the log and its numbers stay. */
    erasedAt: timestamp("erased_at", { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.squadId], foreignColumns: [squad.teamId, squad.id] }),
    foreignKey({ columns: [t.teamId, t.roomId], foreignColumns: [room.teamId, room.id] }),
  ],
);

/** Squads that an athlete trains with besides the one that gives sport and room. */
export const athleteSquad = pgTable(
  "athlete_squad",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    athleteId: uuid("athlete_id").notNull(),
    squadId: uuid("squad_id").notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.athleteId, t.squadId] }),
    index("athlete_squad_squad").on(t.teamId, t.squadId),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({ columns: [t.teamId, t.squadId], foreignColumns: [squad.teamId, squad.id] }),
  ],
);

/** A person's place in a team. */
export const membership = pgTable(
  "membership",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    userId: text("user_id").notNull(),
    /** As the team writes it; the sign-in's own name stays with the sign-in. */
    name: text("name").notNull(),
    role: text("role", { enum: ROLES }).notNull(),
    /** Unit in which this person reads loads, where it differs from the team's. */
    unit: text("unit", { enum: ["kg", "lb"] }),
    /** For the role athlete: whose card it is. */
    athleteId: uuid("athlete_id"),
    createdAt: timestamp("created_at", { withTimezone: true }).notNull().defaultNow(),
    /** May not sign in to this team until somebody lets them in again. */
    suspendedAt: timestamp("suspended_at", { withTimezone: true }),
    /** Belongs to the team no more; the row stays, for what they logged keeps its author. */
    removedAt: timestamp("removed_at", { withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.userId),
    // One sign-in an athlete's card.
    uniqueIndex("membership_athlete").on(t.teamId, t.athleteId).where(sql`athlete_id IS NOT NULL`),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);
