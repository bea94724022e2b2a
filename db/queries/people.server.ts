import { asc, eq } from "drizzle-orm";
import type { Database } from "../connection.server";
import { membership, type Role } from "../schema";

export interface Member {
  teamId: string;
  role: Role;
  name: string;
  athleteId: string | undefined;
}

/** The team a person works in (the first they joined). Runs as the sign-in role. */
export async function membershipOf(signIn: Database, userId: string): Promise<Member | undefined> {
  const [row] = await signIn
    .select()
    .from(membership)
    .where(eq(membership.userId, userId))
    .orderBy(asc(membership.createdAt))
    .limit(1);
  if (!row) return undefined;
  return {
    teamId: row.teamId,
    role: row.role,
    name: row.name,
    athleteId: row.athleteId ?? undefined,
  };
}
