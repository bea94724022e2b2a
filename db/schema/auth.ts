/** Sign-in: people, their sessions and passwords. A schema of its own, which only the sign-in
 * role may read; nothing here belongs to a team. */
import {
  bigint,
  boolean,
  index,
  integer,
  pgSchema,
  text,
  timestamp,
  uuid,
} from "drizzle-orm/pg-core";

export const authSchema = pgSchema("auth");

const moment = (name: string) => timestamp(name, { withTimezone: true });

export const user = authSchema.table("user", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  email: text("email").notNull().unique(),
  emailVerified: boolean("email_verified").notNull().default(false),
  image: text("image"),
  createdAt: moment("created_at").notNull().defaultNow(),
  updatedAt: moment("updated_at").notNull().defaultNow(),
});

export const session = authSchema.table("session", {
  id: text("id").primaryKey(),
  expiresAt: moment("expires_at").notNull(),
  token: text("token").notNull().unique(),
  createdAt: moment("created_at").notNull().defaultNow(),
  updatedAt: moment("updated_at").notNull().defaultNow(),
  ipAddress: text("ip_address"),
  userAgent: text("user_agent"),
  userId: text("user_id")
    .notNull()
    .references(() => user.id, { onDelete: "cascade" }),
});

export const account = authSchema.table("account", {
  id: text("id").primaryKey(),
  accountId: text("account_id").notNull(),
  providerId: text("provider_id").notNull(),
  userId: text("user_id")
    .notNull()
    .references(() => user.id, { onDelete: "cascade" }),
  accessToken: text("access_token"),
  refreshToken: text("refresh_token"),
  idToken: text("id_token"),
  accessTokenExpiresAt: moment("access_token_expires_at"),
  refreshTokenExpiresAt: moment("refresh_token_expires_at"),
  scope: text("scope"),
  password: text("password"),
  createdAt: moment("created_at").notNull().defaultNow(),
  updatedAt: moment("updated_at").notNull().defaultNow(),
});

export const verification = authSchema.table("verification", {
  id: text("id").primaryKey(),
  identifier: text("identifier").notNull(),
  value: text("value").notNull(),
  expiresAt: moment("expires_at").notNull(),
  createdAt: moment("created_at").notNull().defaultNow(),
  updatedAt: moment("updated_at").notNull().defaultNow(),
});

export const rateLimit = authSchema.table("rate_limit", {
  id: text("id").primaryKey(),
  key: text("key").notNull().unique(),
  count: integer("count").notNull(),
  lastRequest: bigint("last_request", { mode: "number" }).notNull(),
});

export const RESET_BY = ["team", "mail", "terminal"] as const;

/** A link that sets a new password, once. Only the hash of its secret is kept. */
export const passwordReset = authSchema.table("password_reset", {
  id: uuid("id").primaryKey(),
  userId: text("user_id")
    .notNull()
    .references(() => user.id, { onDelete: "cascade" }),
  tokenHash: text("token_hash").notNull().unique(),
  /** Who gave it out: somebody of a team, the person's own mail, the server's terminal. */
  by: text("by", { enum: RESET_BY }).notNull(),
  /** By somebody of a team: which, and who. It ends when that right has ended. */
  teamId: uuid("team_id"),
  givenBy: text("given_by").notNull().default(""),
  expiresAt: moment("expires_at").notNull(),
  createdAt: moment("created_at").notNull(),
  usedAt: moment("used_at"),
});

export const INSTALLATIONS = ["demo", "own"] as const;

/** What this database is for: one row. The demo's data and a real team's never share one. */
export const installation = authSchema.table("installation", {
  only: boolean("only").primaryKey().default(true),
  kind: text("kind", { enum: INSTALLATIONS }).notNull(),
  madeAt: moment("made_at").notNull(),
});

/** A backup that was tried: which file it came to, or why it did not. */
export const backupRun = authSchema.table(
  "backup_run",
  {
    id: uuid("id").primaryKey(),
    startedAt: moment("started_at").notNull(),
    endedAt: moment("ended_at").notNull(),
    good: boolean("good").notNull(),
    file: text("file").notNull(),
    bytes: bigint("bytes", { mode: "number" }).notNull().default(0),
    rows: bigint("rows", { mode: "number" }).notNull().default(0),
    /** Why it failed. */
    words: text("words").notNull().default(""),
  },
  (t) => [index("backup_run_newest").on(t.good, t.endedAt)],
);
