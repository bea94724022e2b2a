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
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import type { PlateStock } from "../../core/barload/loading-gear";
import type { GearValues } from "../../core/gear/fields";
import { GEAR_KINDS, type ValuesOf } from "../../core/gear/kinds";
import type { Mass } from "../../core/units/mass";
import type { LocalDate } from "../../core/units/time";
import { entered, teamKey } from "./keys";
import { room } from "./team";

export const bar = pgTable(
  "bar",
  {
    ...teamKey(),
    roomId: uuid("room_id").notNull(),
    name: text("name").notNull(),
    mass: jsonb("mass").$type<Mass>().notNull(),
    rated: jsonb("rated").$type<Mass>().notNull(),
    collar: jsonb("collar").$type<Mass>().notNull(),
    sleeveMm: integer("sleeve_mm").notNull(),
    shape: text("shape").$type<ValuesOf<"bar">["shape"]>().notNull().default("straight"),
    /** Out of use from this day; what was done with it stays. */
    awayOn: date("away_on").$type<LocalDate>(),
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
    ...teamKey(),
    roomId: uuid("room_id").notNull(),
    number: integer("number").notNull(),
    barId: uuid("bar_id").notNull(),
    plates: jsonb("plates").$type<PlateStock[]>().notNull(),
    bolted: boolean("bolted").notNull().default(false),
    /** What holds a band on each side: a rated point, or the weight on the rack. */
    anchor: jsonb("anchor").$type<Mass>(),
    pegM: doublePrecision("peg_m"),
    hooksCm: doublePrecision("hooks_cm").array().notNull().default([]),
    safetiesCm: doublePrecision("safeties_cm").array().notNull().default([]),
    awayOn: date("away_on").$type<LocalDate>(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.roomId, t.number),
    foreignKey({ columns: [t.teamId, t.roomId], foreignColumns: [room.teamId, room.id] }),
    foreignKey({ columns: [t.teamId, t.barId], foreignColumns: [bar.teamId, bar.id] }),
  ],
);

/** Everything else that stands in a room; what it holds by kind is in core/gear/kinds. */
export const gearPiece = pgTable(
  "gear_piece",
  {
    ...teamKey(),
    roomId: uuid("room_id").notNull(),
    kind: text("kind", { enum: GEAR_KINDS }).notNull(),
    name: text("name").notNull(),
    count: integer("count").notNull(),
    values: jsonb("values").$type<GearValues>().notNull(),
    awayOn: date("away_on").$type<LocalDate>(),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    check("gear_piece_count", sql`count BETWEEN 1 AND 60`),
    check("gear_piece_kind", sql`kind NOT IN ('bar', 'rack')`),
    foreignKey({ columns: [t.teamId, t.roomId], foreignColumns: [room.teamId, room.id] }),
  ],
);

export const FINDINGS = ["sound", "worn", "nicked"] as const;

/** What was seen when a band was looked over; never changed. */
export const bandInspection = pgTable(
  "band_inspection",
  {
    ...teamKey(),
    pieceId: uuid("piece_id").notNull(),
    date: date("date").$type<LocalDate>().notNull(),
    finding: text("finding", { enum: FINDINGS }).notNull(),
    note: text("note").notNull().default(""),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    foreignKey({
      columns: [t.teamId, t.pieceId],
      foreignColumns: [gearPiece.teamId, gearPiece.id],
    }),
  ],
);
