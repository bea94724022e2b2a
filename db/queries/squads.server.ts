import { asc, eq } from "drizzle-orm";
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

export function listAthletes(tx: TeamTransaction, squadId?: string) {
  const all = tx.select().from(athlete);
  return (squadId ? all.where(eq(athlete.squadId, squadId)) : all).orderBy(asc(athlete.name));
}

export async function athleteById(tx: TeamTransaction, id: string) {
  const [row] = await tx.select().from(athlete).where(eq(athlete.id, id));
  return row;
}
