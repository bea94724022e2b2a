import {
  foreignKey,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import type { PlateStock } from "../../core/barload/gear";
import type { Mass } from "../../core/units/mass";
import { room, team } from "./team";

export const bar = pgTable(
  "bar",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    roomId: uuid("room_id").notNull(),
    name: text("name").notNull(),
    mass: jsonb("mass").$type<Mass>().notNull(),
    rated: jsonb("rated").$type<Mass>().notNull(),
    collar: jsonb("collar").$type<Mass>().notNull(),
    sleeveMm: integer("sleeve_mm").notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({ columns: [t.teamId, t.roomId], foreignColumns: [room.teamId, room.id] }),
  ],
);

/** A rack with its bar and the plates that stand at it. */
export const rack = pgTable(
  "rack",
  {
    teamId: uuid("team_id")
      .notNull()
      .references(() => team.id),
    id: uuid("id").notNull(),
    roomId: uuid("room_id").notNull(),
    number: integer("number").notNull(),
    barId: uuid("bar_id").notNull(),
    plates: jsonb("plates").$type<PlateStock[]>().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.roomId, t.number),
    foreignKey({ columns: [t.teamId, t.roomId], foreignColumns: [room.teamId, room.id] }),
    foreignKey({ columns: [t.teamId, t.barId], foreignColumns: [bar.teamId, bar.id] }),
  ],
);
