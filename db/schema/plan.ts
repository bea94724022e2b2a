import { sql } from "drizzle-orm";
import {
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
import type { StoredSchool } from "../../core/checks/school";
import type { Block } from "../../core/plan/block";
import type { BlockEdit } from "../../core/plan/edits";
import type { Recipe } from "../../core/recipe/recipe";
import type { LocalDate } from "../../core/units/time";
import { entered, teamKey } from "./keys";
import { athlete, room, squad } from "./team";

/** A block for a squad or one athlete: recipes in slots on days, where and from when they are done. */
export const plan = pgTable(
  "plan",
  {
    ...teamKey(),
    /** Name and start stand in the block too; here for lists. */
    name: text("name").notNull(),
    /** Whom it is for: a squad, or one athlete who trains alone. */
    squadId: uuid("squad_id"),
    athleteId: uuid("athlete_id"),
    roomId: uuid("room_id").notNull(),
    startDate: date("start_date").$type<LocalDate>().notNull(),
    block: jsonb("block").$type<Block>().notNull(),
    metric: text("metric", { enum: ["MCV", "MPV", "PV"] }).notNull(),
    rounding: text("rounding", { enum: ["nearest", "down"] }).notNull(),
    /** Sequence number of the last edit; an edit names the one it was made on. */
    version: integer("version").notNull().default(1),
    updatedBy: text("updated_by").notNull(),
    updatedAt: timestamp("updated_at", { withTimezone: true }).notNull(),
    awayOn: date("away_on").$type<LocalDate>(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    check("plan_for_one", sql`(squad_id IS NULL) <> (athlete_id IS NULL)`),
    index("plan_athlete").on(t.teamId, t.athleteId),
    foreignKey({ columns: [t.teamId, t.squadId], foreignColumns: [squad.teamId, squad.id] }),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
    foreignKey({ columns: [t.teamId, t.roomId], foreignColumns: [room.teamId, room.id] }),
  ],
);

/** Every edit of a block, with what takes it back. Never changed: undo is an edit of its own. */
export const planEdit = pgTable(
  "plan_edit",
  {
    ...teamKey(),
    planId: uuid("plan_id").notNull(),
    seq: integer("seq").notNull(),
    edit: jsonb("edit").$type<BlockEdit>().notNull(),
    inverse: jsonb("inverse").$type<BlockEdit>().notNull(),
    /** The edit that this one takes back (or brings back); its own kind of step. */
    undoes: uuid("undoes"),
    userId: text("user_id").notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.planId, t.seq),
    foreignKey({ columns: [t.teamId, t.planId], foreignColumns: [plan.teamId, plan.id] }),
  ],
);

/** One athlete's loads of a published version: "slot/week/set key" → kg. */
export type PublishedLoads = Record<string, Record<string, number>>;

/** A published version: what athletes see, whatever is edited afterwards. */
export const planVersion = pgTable(
  "plan_version",
  {
    ...teamKey(),
    planId: uuid("plan_id").notNull(),
    number: integer("number").notNull(),
    /** The edit up to which it goes. */
    seq: integer("seq").notNull(),
    block: jsonb("block").$type<Block>().notNull(),
    loads: jsonb("loads").$type<PublishedLoads>().notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.planId, t.number),
    foreignKey({ columns: [t.teamId, t.planId], foreignColumns: [plan.teamId, plan.id] }),
  ],
);

/** A team's recipes; each version is a row, the newest of a lineage is the one offered. */
export const teamRecipe = pgTable(
  "team_recipe",
  {
    ...teamKey(),
    lineageId: uuid("lineage_id").notNull(),
    version: integer("version").notNull(),
    family: text("family").notNull(),
    source: text("source").notNull(),
    recipe: jsonb("recipe").$type<Recipe>().notNull(),
    awayOn: date("away_on").$type<LocalDate>(),
    ...entered(),
  },
  (t) => [primaryKey({ columns: [t.teamId, t.id] }), unique().on(t.teamId, t.lineageId, t.version)],
);

export const teamSchool = pgTable(
  "team_school",
  {
    ...teamKey(),
    school: jsonb("school").$type<StoredSchool>().notNull(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    uniqueIndex("team_school_name").on(t.teamId, sql`(school ->> 'name')`),
  ],
);

/** What only a coach can set. No row: not set. The newest row of a key holds. */
export const coachValue = pgTable(
  "coach_value",
  {
    ...teamKey(),
    key: text("key").notNull(),
    /** Null: taken back to not set. */
    value: doublePrecision("value"),
    /** Of a speed: the processing under which it was set. */
    processing: text("processing"),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("coach_value_by_key").on(t.teamId, t.key, t.enteredAt),
  ],
);

/** A calendar that can be followed without a sign-in: nameless, and revocable. */
export const calendarFeed = pgTable(
  "calendar_feed",
  {
    ...teamKey(),
    planId: uuid("plan_id").notNull(),
    tokenHash: text("token_hash").notNull(),
    revokedAt: timestamp("revoked_at", { withTimezone: true }),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    uniqueIndex("calendar_feed_token").on(t.tokenHash),
    foreignKey({ columns: [t.teamId, t.planId], foreignColumns: [plan.teamId, plan.id] }),
  ],
);
