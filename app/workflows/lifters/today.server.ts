import type { LocalDate } from "../../../core/units/time";
import { everySquad, listRooms, readTeam } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate } from "../../platform/clock.server";

/**
 * The day of a moment where the team is: for what belongs to no room, the team's own zone.
 * A day read off the moment itself would be Greenwich's.
 */
export async function teamDay(tx: TeamTransaction): Promise<(at: Date) => LocalDate> {
  const zone = (await readTeam(tx))?.zone ?? "UTC";
  return (at) => localDate(zone, at);
}

/** What tells where somebody trains. */
export interface Trains {
  squadId: string | null;
  roomId: string | null;
}

/** The squads and rooms of a team, and what day it is where an athlete trains. */
export async function readPlaces(tx: TeamTransaction) {
  // A plan of a squad that trains no more keeps its room.
  const [every, rooms, team] = await Promise.all([everySquad(tx), listRooms(tx), readTeam(tx)]);
  const squads = every.filter((one) => one.archivedAt === null);
  const roomOf = (person: Trains) => {
    const squad = every.find((one) => one.id === person.squadId);
    return rooms.find((one) => one.id === (person.roomId ?? squad?.roomId));
  };
  const zone = team?.zone ?? "UTC";
  return {
    squads,
    rooms,
    zone,
    today: localDate(zone),
    roomOf,
    todayOf: (person: Trains) => localDate(roomOf(person)?.zone ?? zone),
    dayOf: (person: Trains) => (at: Date) => localDate(roomOf(person)?.zone ?? zone, at),
  };
}
