import { loadableTable } from "../../../core/barload/loadable";
import { grainsToKg } from "../../../core/units/mass";
import { racksOf } from "../../../db/queries/gear.server";
import { listRooms } from "../../../db/queries/squads.server";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";

/** The rooms with their racks, bars and plates, and what each can build. */
export function readGear(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const racks = await racksOf(tx);
    return (await listRooms(tx)).map((room) => ({
      id: room.id,
      name: room.name,
      zone: room.zone,
      racks: racks
        .filter((rack) => rack.roomId === room.id)
        .map((rack) => {
          const { totals } = loadableTable(rack.gear);
          return {
            id: rack.rackId,
            number: rack.number,
            gear: rack.gear,
            lightestKg: grainsToKg(totals[0] as number),
            heaviestKg: grainsToKg(totals[totals.length - 1] as number),
            totals: totals.length,
          };
        }),
    }));
  });
}
