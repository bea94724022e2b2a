import { sql } from "drizzle-orm";
import {
  check,
  foreignKey,
  index,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uuid,
} from "drizzle-orm/pg-core";
import { entered, teamKey } from "./keys";
import { athlete, ROLES } from "./team";

const moment = (name: string) => timestamp(name, { withTimezone: true });

/** A link that makes one person a member, once. Only the hash of its secret is kept. */
export const invitation = pgTable(
  "invitation",
  {
    ...teamKey(),
    name: text("name").notNull(),
    role: text("role", { enum: ROLES }).notNull(),
    /** For the role athlete: whose card it opens. */
    athleteId: uuid("athlete_id"),
    /** Where it was sent, or the address that it is for; empty where the link was handed over. */
    email: text("email").notNull().default(""),
    /** Of the link's secret; null while nobody was given a link yet (who came with an archive). */
    tokenHash: text("token_hash"),
    expiresAt: moment("expires_at").notNull(),
    usedAt: moment("used_at"),
    withdrawnAt: moment("withdrawn_at"),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    unique().on(t.tokenHash),
    index("invitation_athlete").on(t.teamId, t.athleteId),
    check("invitation_of_athlete", sql`(role = 'athlete') = (athlete_id IS NOT NULL)`),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);

export const MEMBERSHIP_CHANGES = [
  "team-made",
  "invited",
  "withdrawn",
  "joined",
  "role",
  "renamed",
  "suspended",
  "let-in",
  "removed",
  "left",
  "reset-link",
  "password-set",
] as const;
export type MembershipChange = (typeof MEMBERSHIP_CHANGES)[number];

/** Every change of who belongs to a team, for its owner. Never changed. */
export const membershipChange = pgTable(
  "membership_change",
  {
    ...teamKey(),
    kind: text("kind", { enum: MEMBERSHIP_CHANGES }).notNull(),
    /** Whom it is about, as the team wrote the name then. */
    name: text("name").notNull(),
    /** What changed, in words: "coach, was assistant". */
    detail: text("detail").notNull().default(""),
    /** An athlete's: so that an erased person's name goes from here too. */
    athleteId: uuid("athlete_id"),
    ...entered(),
  },
  (t) => [
    primaryKey({ columns: [t.teamId, t.id] }),
    index("membership_change_at").on(t.teamId, t.enteredAt),
    index("membership_change_athlete").on(t.teamId, t.athleteId),
    foreignKey({ columns: [t.teamId, t.athleteId], foreignColumns: [athlete.teamId, athlete.id] }),
  ],
);
