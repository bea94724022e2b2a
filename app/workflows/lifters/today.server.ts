import type { LocalDate } from "../../../core/units/time";
import { listRooms, listSquads } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate } from "../../platform/clock.server";

/**
 * The day of a moment where the team is: for what belongs to no room, its first room's zone.
 * A day read off the moment itself would be Greenwich's.
 */
export async function teamDay(tx: TeamTransaction): Promise<(at: Date) => LocalDate> {
  const zone = (await listRooms(tx))[0]?.zone ?? "UTC";
  return (at) => localDate(zone, at);
}

/** The squads and rooms of a team, and what day it is where an athlete trains. */
export async function readPlaces(tx: TeamTransaction) {
  const squads = await listSquads(tx);
  const rooms = await listRooms(tx);
  const roomOf = (person: { squadId: string; roomId: string | null }) => {
    const squad = squads.find((one) => one.id === person.squadId);
    return rooms.find((one) => one.id === (person.roomId ?? squad?.roomId));
  };
  // The day of what belongs to nobody: where the team's first room is.
  const zone = rooms[0]?.zone ?? "UTC";
  return {
    squads,
    rooms,
    zone,
    today: localDate(zone),
    roomOf,
    todayOf: (person: { squadId: string; roomId: string | null }) =>
      localDate(roomOf(person)?.zone ?? "UTC"),
    dayOf: (person: { squadId: string; roomId: string | null }) => (at: Date) =>
      localDate(roomOf(person)?.zone ?? "UTC", at),
  };
}
