import { and, asc, eq } from "drizzle-orm";
import type { LoadingGear } from "../../core/barload/gear";
import { bar, rack, room } from "../schema";
import type { TeamTransaction } from "../team.server";

export interface RackGear {
  rackId: string;
  roomId: string;
  number: number;
  gear: LoadingGear;
}

export async function racksOf(tx: TeamTransaction, roomId?: string): Promise<RackGear[]> {
  const rows = await tx
    .select({ rack, bar })
    .from(rack)
    .innerJoin(bar, and(eq(bar.teamId, rack.teamId), eq(bar.id, rack.barId)))
    .where(roomId ? eq(rack.roomId, roomId) : undefined)
    .orderBy(asc(rack.roomId), asc(rack.number));
  return rows.map((row) => ({
    rackId: row.rack.id,
    roomId: row.rack.roomId,
    number: row.rack.number,
    gear: {
      bar: {
        id: row.bar.id,
        name: row.bar.name,
        mass: row.bar.mass,
        rated: row.bar.rated,
        sleeveMm: row.bar.sleeveMm,
      },
      collar: row.bar.collar,
      plates: row.rack.plates,
    },
  }));
}

export async function roomById(tx: TeamTransaction, id: string) {
  const [row] = await tx.select().from(room).where(eq(room.id, id));
  return row;
}
