import { and, asc, eq, getTableColumns, isNotNull, isNull, or, sql } from "drizzle-orm";
import { athlete, athleteSquad, room, squad, team } from "../schema";
import type { TeamTransaction } from "../team.server";
import { anyOf } from "./any-of.server";

/** What the team is called, and where and in what it counts. */
export async function changeTeam(
  tx: TeamTransaction,
  facts: { name: string; zone: string; unit: "kg" | "lb" },
): Promise<void> {
  await tx.update(team).set(facts).where(eq(team.id, tx.teamId));
}

export async function readTeam(tx: TeamTransaction) {
  const [row] = await tx.select().from(team);
  return row;
}

/** The squads that train, in the team's order. */
export function listSquads(tx: TeamTransaction) {
  return tx
    .select()
    .from(squad)
    .where(isNull(squad.archivedAt))
    .orderBy(asc(squad.position), asc(squad.name));
}

/** Those that train no more too, last. */
export function everySquad(tx: TeamTransaction) {
  return tx
    .select()
    .from(squad)
    .orderBy(sql`${squad.archivedAt} IS NOT NULL`, asc(squad.position), asc(squad.name));
}

export function listRooms(tx: TeamTransaction) {
  return tx.select().from(room).orderBy(asc(room.name));
}

/** Whom a plan or a pairing is for: a squad, or one athlete who trains alone. */
export interface Group {
  squadId: string | null;
  athleteId: string | null;
}

/** An athlete's row, with the squads that they train with besides their first. */
const athleteRow = {
  ...getTableColumns(athlete),
  alsoIn: sql<string[]>`ARRAY(SELECT also.squad_id FROM athlete_squad also
    WHERE also.team_id = ${athlete.teamId} AND also.athlete_id = ${athlete.id})`,
};

/** What tells whose squads somebody trains with. */
export interface InSquads {
  id: string;
  squadId: string | null;
  alsoIn: readonly string[];
}

/** Every squad that somebody trains with, the first first. */
export function squadsOf(person: Pick<InSquads, "squadId" | "alsoIn">): string[] {
  return person.squadId === null ? [...person.alsoIn] : [person.squadId, ...person.alsoIn];
}

/** Whether a plan or pairing is for somebody. */
export function isFor(group: Group, person: InSquads): boolean {
  if (group.athleteId !== null) return group.athleteId === person.id;
  return group.squadId !== null && squadsOf(person).includes(group.squadId);
}

/** The group that an id names: a squad's, or an athlete's who trains alone. */
export async function groupById(
  tx: TeamTransaction,
  id: string,
): Promise<(Group & { name: string; roomId: string | null }) | undefined> {
  const [ofSquad] = await tx.select().from(squad).where(eq(squad.id, id));
  if (ofSquad) return { squadId: id, athleteId: null, name: ofSquad.name, roomId: ofSquad.roomId };
  const [person] = await tx
    .select()
    .from(athlete)
    .where(and(eq(athlete.id, id), isNull(athlete.archivedAt)));
  return person && { squadId: null, athleteId: id, name: person.name, roomId: person.roomId };
}

export interface NamedGroup {
  id: string;
  name: string;
  roomId: string;
}

/** Whom a plan can be for: the squads, then those who train alone, each with their room. */
export async function listGroups(tx: TeamTransaction): Promise<NamedGroup[]> {
  const [squads, rooms, alone] = await Promise.all([listSquads(tx), listRooms(tx), inNoSquad(tx)]);
  return [
    ...squads.map(({ id, name, roomId }) => ({ id, name, roomId })),
    ...alone.flatMap(({ id, name, roomId }) => {
      const usual = roomId ?? rooms[0]?.id;
      return usual ? [{ id, name: `${name}, alone`, roomId: usual }] : [];
    }),
  ];
}

/** Who trains with no squad, by name. */
function inNoSquad(tx: TeamTransaction) {
  return tx
    .select({ id: athlete.id, name: athlete.name, roomId: athlete.roomId })
    .from(athlete)
    .where(
      and(
        isNull(athlete.archivedAt),
        isNull(athlete.squadId),
        sql`NOT EXISTS (SELECT 1 FROM ${athleteSquad} also WHERE also.team_id = ${athlete.teamId}
          AND also.athlete_id = ${athlete.id})`,
      ),
    )
    .orderBy(asc(athlete.name));
}

/** Who trains here: of a group or of the team, by name. Who was archived is on no list. */
export function listAthletes(tx: TeamTransaction, of?: Group | string) {
  const group: Group | undefined = typeof of === "string" ? { squadId: of, athleteId: null } : of;
  return tx
    .select(athleteRow)
    .from(athlete)
    .where(
      and(
        isNull(athlete.archivedAt),
        group?.athleteId ? eq(athlete.id, group.athleteId) : undefined,
        group?.squadId
          ? or(
              eq(athlete.squadId, group.squadId),
              sql`EXISTS (SELECT 1 FROM ${athleteSquad} also WHERE also.team_id = ${athlete.teamId}
                AND also.athlete_id = ${athlete.id} AND also.squad_id = ${group.squadId})`,
            )
          : undefined,
      ),
    )
    .orderBy(asc(athlete.name));
}

/** Names of some athletes by id, those who left too. */
export async function namesOf(
  tx: TeamTransaction,
  ids: readonly string[],
): Promise<Map<string, string>> {
  if (ids.length === 0) return new Map();
  const rows = await tx
    .select({ id: athlete.id, name: athlete.name })
    .from(athlete)
    .where(anyOf(athlete.id, ids));
  return new Map(rows.map((row) => [row.id, row.name]));
}

/** Everybody who ever trained here, for what is exported and looked back on. */
export function listEverybody(tx: TeamTransaction) {
  return tx.select(athleteRow).from(athlete).orderBy(asc(athlete.name));
}

/** Who was archived and not erased. */
export function listArchived(tx: TeamTransaction) {
  return tx
    .select(athleteRow)
    .from(athlete)
    .where(and(isNotNull(athlete.archivedAt), isNull(athlete.erasedAt)))
    .orderBy(asc(athlete.name));
}

/** The squads besides the first that somebody trains with, from now on. */
export async function setAlsoIn(
  tx: TeamTransaction,
  athleteId: string,
  firstId: string | null,
  squadIds: readonly string[],
): Promise<void> {
  await tx.delete(athleteSquad).where(eq(athleteSquad.athleteId, athleteId));
  const others = [...new Set(squadIds)].filter((id) => id !== firstId);
  if (others.length === 0) return;
  await tx
    .insert(athleteSquad)
    .values(others.map((squadId) => ({ teamId: tx.teamId, athleteId, squadId })));
}

/** Squads that some athletes train with besides, each once. */
export async function alsoTrain(
  tx: TeamTransaction,
  rows: ReadonlyArray<{ athleteId: string; squadId: string }>,
): Promise<void> {
  if (rows.length === 0) return;
  await tx
    .insert(athleteSquad)
    .values(rows.map((row) => ({ teamId: tx.teamId, ...row })))
    .onConflictDoNothing();
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
  const [row] = await tx.select(athleteRow).from(athlete).where(eq(athlete.id, id));
  return row;
}

/** Holds the team's squads until the transaction ends: changes of their order come one by one. */
export async function lockSquads(tx: TeamTransaction): Promise<void> {
  await tx.select({ id: squad.id }).from(squad).orderBy(asc(squad.id)).for("update");
}

export async function insertSquad(
  tx: TeamTransaction,
  row: Omit<typeof squad.$inferInsert, "teamId">,
): Promise<void> {
  await tx.insert(squad).values({ teamId: tx.teamId, ...row });
}

export async function updateSquad(
  tx: TeamTransaction,
  id: string,
  change: Partial<Omit<typeof squad.$inferInsert, "teamId" | "id">>,
): Promise<void> {
  await tx.update(squad).set(change).where(eq(squad.id, id));
}
