import {
  foreignKey,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import { EXERCISE_LIMITS, MUSCLES, PATTERNS, SIDES } from "../../core/exercise/exercise";
import { SPEED_CLASSES } from "../../core/exercise/speed-classes";
import { teamKey } from "./keys";

/** The team's exercises: the shipped ones are copied in, and may be changed like their own. */
export const exercise = pgTable(
  "exercise",
  {
    ...teamKey(),
    name: text("name").notNull(),
    pattern: text("pattern", { enum: PATTERNS }).notNull(),
    speedClass: text("speed_class", { enum: SPEED_CLASSES }).notNull(),
    main: text("main", { enum: MUSCLES }).array().notNull(),
    assisting: text("assisting", { enum: MUSCLES }).array().notNull(),
    sides: text("sides", { enum: SIDES }).notNull(),
    gear: text("gear").array().notNull(),
    excludes: text("excludes", { enum: EXERCISE_LIMITS }).array().notNull(),
    /** One short line for who does it; empty where there is none. */
    cue: text("cue").notNull().default(""),
    /** Who changed it last; empty while it is as shipped. */
    changedBy: text("changed_by").notNull().default(""),
    changedAt: timestamp("changed_at", { withTimezone: true }),
    /** Put away: kept for what was done with it, out of the lists. */
    putAwayAt: timestamp("put_away_at", { withTimezone: true }),
  },
  (t) => [primaryKey({ columns: [t.teamId, t.id] }), unique().on(t.teamId, t.name)],
);

/** `easier` is a step down from `exercise`; the harder versions are the same lines read back. */
export const exerciseEasier = pgTable(
  "exercise_easier",
  {
    ...teamKey(),
    exerciseId: uuid("exercise_id").notNull(),
    easierId: uuid("easier_id").notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.teamId, t.exerciseId, t.easierId),
    foreignKey({
      columns: [t.teamId, t.exerciseId],
      foreignColumns: [exercise.teamId, exercise.id],
    }),
    foreignKey({ columns: [t.teamId, t.easierId], foreignColumns: [exercise.teamId, exercise.id] }),
  ],
);
