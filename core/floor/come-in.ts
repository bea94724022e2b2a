import type { EntryBody } from "./entries";
import type { FrozenSession } from "./frozen";
import type { FloorState } from "./state";
import { stationsOf } from "./stations";

/**
 * Somebody who was not here comes in: to this station for its slot, in the day's other slots to
 * the station with the fewest people.
 *
 * @returns an entry for each slot that the athlete was planned in
 */
export function comeIn(
  session: FrozenSession,
  floor: FloorState,
  athleteId: string,
  here: { slotId: string; stationId: string },
): EntryBody[] {
  const stations = stationsOf(session, floor);
  return session.slots.flatMap((slot): EntryBody[] => {
    if (slot.kind === "pairing") return [];
    if (!slot.absent?.some((one) => one.athleteId === athleteId)) return [];
    const fewest = stations
      .flatMap(({ station, work }) =>
        work.flatMap((one) =>
          one.slot.slotId === slot.slotId ? [{ id: station.id, athletes: one.athletes }] : [],
        ),
      )
      .sort((a, b) => a.athletes - b.athletes)[0]?.id;
    const stationId =
      slot.slotId === here.slotId ? here.stationId : (fewest ?? slot.groups[0]?.stationId);
    return stationId === undefined
      ? []
      : [{ kind: "move", athleteId, slotId: slot.slotId, stationId }];
  });
}
