import type { RoomPlace } from "../../../core/floor/places";
import { isPlaceKind } from "../../../core/gear/kinds";
import type { LocalDate } from "../../../core/units/time";
import { itemsOf, racksWithHang } from "../../../db/queries/gear.server";
import { frozenById, runningSessions } from "../../../db/queries/sessions.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate } from "../../platform/clock.server";

export type FreeRack = Awaited<ReturnType<typeof racksWithHang>>[number];

/** What a room has for a day: its racks that no running session uses, and its places. */
export interface RoomStations {
  racks: FreeRack[];
  places: RoomPlace[];
  /** Every rack of the room, those in use too. */
  allRacks: FreeRack[];
}

/** Everything of a room, in use or not. */
export async function stationsOfRoom(
  tx: TeamTransaction,
  room: { id: string; zone: string },
): Promise<RoomStations> {
  const today: LocalDate = localDate(room.zone);
  const racks = await racksWithHang(tx, room.id, today);
  const places = (await itemsOf(tx, room.id)).flatMap((item): RoomPlace[] =>
    item.kind === "station" && item.awayOn === null && isPlaceKind(item.values.type)
      ? [{ kind: "place", id: item.id, name: item.name, of: item.values.type }]
      : [],
  );
  return { racks, places, allRacks: racks };
}

/** What of a room no running session uses. */
export async function freeStations(
  tx: TeamTransaction,
  room: { id: string; zone: string },
): Promise<RoomStations> {
  const all = await stationsOfRoom(tx, room);
  const taken = await takenStations(tx, room.id);
  return {
    ...all,
    racks: all.racks.filter((rack) => !taken.has(rack.rackId)),
    // A floor is shared; a wall or strip that another session throws at is not.
    places: all.places.filter((place) => !taken.has(place.id) || place.of === "open floor"),
  };
}

async function takenStations(tx: TeamTransaction, roomId: string): Promise<Set<string>> {
  const running = (await runningSessions(tx)).filter((one) => one.roomId === roomId);
  const frozen = await frozenById(
    tx,
    running.map((one) => one.id),
  );
  return new Set(
    [...frozen.values()].flatMap((session) => session.stations.map((station) => station.id)),
  );
}

/**
 * Racks for days that run at the same time, by how many people each has; the whole room for one.
 * @returns in the days' order
 */
export function sharesOf<Rack>(
  racks: readonly Rack[],
  days: ReadonlyArray<{ athletes: readonly unknown[] }>,
): Rack[][] {
  // With fewer racks than days they share what there is, one after the other.
  if (racks.length < days.length || days.length <= 1) return days.map(() => [...racks]);
  const people = days.reduce((sum, day) => sum + day.athletes.length, 0);
  let from = 0;
  return days.map((day, i) => {
    const left = days.length - i - 1;
    const share = Math.round((racks.length * day.athletes.length) / Math.max(1, people));
    const count =
      left === 0 ? racks.length - from : Math.max(1, Math.min(share, racks.length - from - left));
    const own = racks.slice(from, from + Math.max(0, count));
    from += own.length;
    return own;
  });
}
