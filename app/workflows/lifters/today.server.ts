import { listRooms, listSquads } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate } from "../../platform/clock.server";

/** The squads and rooms of a team, and what day it is where an athlete trains. */
export async function readPlaces(tx: TeamTransaction) {
  const squads = await listSquads(tx);
  const rooms = await listRooms(tx);
  const roomOf = (person: { squadId: string; roomId: string | null }) => {
    const squad = squads.find((one) => one.id === person.squadId);
    return rooms.find((one) => one.id === (person.roomId ?? squad?.roomId));
  };
  return {
    squads,
    rooms,
    roomOf,
    todayOf: (person: { squadId: string; roomId: string | null }) =>
      localDate(roomOf(person)?.zone ?? "UTC"),
  };
}
