import {
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
import type { Recipe } from "../../core/wave/recipe";
import { liftVariant } from "./maxes";
import { athlete, room, squad, team } from "./team";

/** A wave for a squad: the recipe, the lift it is for, where and from when it is done. */
export const plan = pgTable(
  "plan",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    name: text("name").notNull(),
    squadId: uuid("squad_id").notNull(),
    variantId: uuid("variant_id").notNull(),
    roomId: uuid("room_id").notNull(),
    /** Date of the first session; the others follow week by week. */
    startDate: date("start_date").notNull(),
    recipe: jsonb("recipe").$type<Recipe>().notNull(),
    metric: text("metric", { enum: ["MCV", "MPV", "PV"] }).notNull(),
    rounding: text("rounding", { enum: ["nearest", "down"] }).notNull(),
    /** Raised by every edit; an edit names the version it was made on. */
    version: integer("version").notNull().default(1),
    updatedBy: text("updated_by").notNull(),
    updatedAt: timestamp("updated_at", { withTimezone: true }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.squadId], foreignColumns: [squad.teamId, squad.id] }),
    foreignKey({ columns: [t.teamId, t.roomId], foreignColumns: [room.teamId, room.id] }),
    foreignKey({
      columns: [t.teamId, t.variantId],
      foreignColumns: [liftVariant.teamId, liftVariant.id],
    }),
  ],
);

/** A coach's own load for one set of one athlete; hangs on the stable set key. */
export const planOverride = pgTable(
  "plan_override",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    planId: uuid("plan_id").notNull(),
    athleteId: uuid("athlete_id").notNull(),
    setKey: text("set_key").notNull(),
    loadKg: doublePrecision("load_kg").notNull(),
    setBy: text("set_by").notNull(),
    setAt: timestamp("set_at", { withTimezone: true }).notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.planId, t.athleteId, t.setKey),
    foreignKey({ columns: [t.teamId, t.planId], foreignColumns: [plan.teamId, plan.id] }),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);
