import { and, asc, eq } from "drizzle-orm";
import type { MassUnit } from "../../core/units/mass";
import type { Database } from "../connection.server";
import { membership, type Role, team } from "../schema";
import type { TeamTransaction } from "../team.server";

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

/** The unit in which a person reads loads: their own, else the team's. */
export async function unitOf(tx: TeamTransaction, userId: string | undefined): Promise<MassUnit> {
  const [own] = userId
    ? await tx
        .select({ unit: membership.unit })
        .from(membership)
        .where(and(eq(membership.teamId, tx.teamId), eq(membership.userId, userId)))
    : [];
  if (own?.unit) return own.unit;
  const [row] = await tx.select({ unit: team.unit }).from(team);
  return row?.unit ?? "kg";
}

export async function keepUnit(tx: TeamTransaction, userId: string, unit: MassUnit) {
  await tx
    .update(membership)
    .set({ unit })
    .where(and(eq(membership.teamId, tx.teamId), eq(membership.userId, userId)));
}
