import { and, asc, eq, isNotNull, isNull, sql } from "drizzle-orm";
import { athlete, room, squad, team } from "../schema";
import type { TeamTransaction } from "../team.server";

export async function readTeam(tx: TeamTransaction) {
  const [row] = await tx.select().from(team);
  return row;
}

export function listSquads(tx: TeamTransaction) {
  return tx.select().from(squad).orderBy(asc(squad.name));
}

export function listRooms(tx: TeamTransaction) {
  return tx.select().from(room).orderBy(asc(room.name));
}

/** Who trains here: of a squad or of the team, by name. Who was archived is on no list. */
export function listAthletes(tx: TeamTransaction, squadId?: string) {
  return tx
    .select()
    .from(athlete)
    .where(and(isNull(athlete.archivedAt), squadId ? eq(athlete.squadId, squadId) : undefined))
    .orderBy(asc(athlete.name));
}

/** Everybody who ever trained here, for what is exported and looked back on. */
export function listEverybody(tx: TeamTransaction) {
  return tx.select().from(athlete).orderBy(asc(athlete.name));
}

/** Who was archived and not erased. */
export function listArchived(tx: TeamTransaction) {
  return tx
    .select()
    .from(athlete)
    .where(and(isNotNull(athlete.archivedAt), isNull(athlete.erasedAt)))
    .orderBy(asc(athlete.name));
}

/** People of the same name, however it is spaced and capitalised. */
export function namesakes(tx: TeamTransaction, name: string) {
  const plain = name.trim().replace(/\s+/g, " ").toLowerCase();
  return tx
    .select({
      id: athlete.id,
      name: athlete.name,
      squadId: athlete.squadId,
      archivedAt: athlete.archivedAt,
    })
    .from(athlete)
    .where(sql`lower(regexp_replace(trim(${athlete.name}), '\\s+', ' ', 'g')) = ${plain}`);
}

/** Archives an athlete or brings one back; false where that was so already or cannot be. */
export async function setArchived(
  tx: TeamTransaction,
  id: string,
  at: Date | null,
): Promise<boolean> {
  const rows = await tx
    .update(athlete)
    .set({ archivedAt: at })
    .where(
      and(
        eq(athlete.id, id),
        isNull(athlete.erasedAt),
        at === null ? isNotNull(athlete.archivedAt) : isNull(athlete.archivedAt),
      ),
    )
    .returning({ id: athlete.id });
  return rows.length === 1;
}

/**
 * Erases a person: names, notes and reasons are gone for good, the log and its numbers stay.
 * @returns the sign-ins that were theirs alone; undefined where there is nobody to erase
 */
export async function eraseAthlete(
  tx: TeamTransaction,
  id: string,
  by: { name: string; at: Date },
): Promise<string[] | undefined> {
  const [row] = await tx.execute<{ users: string[] | null }>(
    sql`SELECT erase_athlete(${id}::uuid, ${by.name}, ${by.at.toISOString()}::timestamptz) AS users`,
  );
  return row?.users ?? undefined;
}

export async function athleteById(tx: TeamTransaction, id: string) {
  const [row] = await tx.select().from(athlete).where(eq(athlete.id, id));
  return row;
}
