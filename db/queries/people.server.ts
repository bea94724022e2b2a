import { and, asc, eq, inArray, isNull, sql } from "drizzle-orm";
import type { MassUnit } from "../../core/units/mass";
import type { Database } from "../connection.server";
import { athlete, membership, type Role, rack, rackDevice, room, team } from "../schema";
import { user } from "../schema/auth";
import type { TeamTransaction } from "../team.server";

export interface Member {
  teamId: string;
  teamName: string;
  role: Role;
  name: string;
  athleteId: string | undefined;
}

/**
 * The teams that let a person in, in the order of joining. Runs as the sign-in role.
 * @param userId whose
 */
export async function membershipsOf(signIn: Database, userId: string): Promise<Member[]> {
  const rows = await signIn
    .select({
      teamId: membership.teamId,
      teamName: team.name,
      role: membership.role,
      name: membership.name,
      athleteId: membership.athleteId,
    })
    .from(membership)
    .innerJoin(team, eq(team.id, membership.teamId))
    .where(
      and(
        eq(membership.userId, userId),
        isNull(membership.suspendedAt),
        isNull(membership.removedAt),
      ),
    )
    .orderBy(asc(membership.createdAt));
  return rows.map((row) => ({ ...row, athleteId: row.athleteId ?? undefined }));
}

/** Teams of a name, whoever belongs to them. Runs as the sign-in role. */
export function teamsByName(signIn: Database, name: string) {
  return signIn
    .select({ id: team.id, name: team.name })
    .from(team)
    .where(sql`lower(${team.name}) = lower(${name})`);
}

/** Every team that a person belongs to, suspended there or not. Runs as the sign-in role. */
export function standingsOf(signIn: Database, userIds: readonly string[]) {
  return signIn
    .select({
      userId: membership.userId,
      teamId: membership.teamId,
      role: membership.role,
      suspended: sql<boolean>`${membership.suspendedAt} IS NOT NULL`,
    })
    .from(membership)
    .where(and(inArray(membership.userId, [...userIds]), isNull(membership.removedAt)));
}

/** Takes sign-ins away that belong to no team any more. Runs as the sign-in role. */
export async function removeSignIns(signIn: Database, userIds: readonly string[]): Promise<void> {
  for (const id of userIds) {
    const [member] = await signIn
      .select({ id: membership.id })
      .from(membership)
      .where(eq(membership.userId, id))
      .limit(1);
    if (!member) await signIn.delete(user).where(eq(user.id, id));
  }
}

/** The names of those who write into the log, by the log's own name for them. */
export async function authorNames(tx: TeamTransaction): Promise<Record<string, string>> {
  const people = await tx
    .select({ id: membership.userId, name: membership.name })
    .from(membership)
    .where(eq(membership.teamId, tx.teamId));
  const tablets = await tx
    .select({ id: rackDevice.id, number: rack.number, room: room.name })
    .from(rackDevice)
    .innerJoin(rack, and(eq(rack.teamId, rackDevice.teamId), eq(rack.id, rackDevice.rackId)))
    .innerJoin(room, and(eq(room.teamId, rackDevice.teamId), eq(room.id, rackDevice.roomId)));
  return Object.fromEntries([
    ...people.map((one) => [one.id, one.name]),
    ...tablets.map((one) => [`rack:${one.id}`, `tablet of rack ${one.number}, ${one.room}`]),
  ]);
}

/**
 * The team's name, and the unit in which a person reads loads: their own
 * choice, else what they lift in, else the team's.
 */
export async function frameOf(
  tx: TeamTransaction,
  userId: string | undefined,
  athleteId?: string | undefined,
): Promise<{ team: string; unit: MassUnit }> {
  const [row] = await tx
    .select({ team: team.name, ofTeam: team.unit, own: membership.unit, lifts: athlete.unit })
    .from(team)
    .leftJoin(membership, and(eq(membership.teamId, team.id), eq(membership.userId, userId ?? "")))
    .leftJoin(
      athlete,
      athleteId === undefined
        ? sql`false`
        : and(eq(athlete.teamId, team.id), eq(athlete.id, athleteId)),
    );
  return { team: row?.team ?? "", unit: row?.own ?? row?.lifts ?? row?.ofTeam ?? "kg" };
}

export async function keepUnit(tx: TeamTransaction, userId: string, unit: MassUnit) {
  await tx
    .update(membership)
    .set({ unit })
    .where(and(eq(membership.teamId, tx.teamId), eq(membership.userId, userId)));
}
