import { and, asc, desc, eq, isNull } from "drizzle-orm";
import type { LoadingGear, PlateStock } from "../../core/barload/loading-gear";
import type { BarKind } from "../../core/gear/bars";
import type { GearItem, ValuesOf } from "../../core/gear/kinds";
import { DEFAULT_PEG_M, hangStock, type RackHold } from "../../core/gear/room";
import { massKg } from "../../core/units/mass";
import type { LocalDate } from "../../core/units/time";
import { bandInspection, bar, gearPiece, rack, room } from "../schema";
import type { TeamTransaction } from "../team.server";
import { anyOf } from "./any-of.server";

export interface RackGear {
  rackId: string;
  roomId: string;
  number: number;
  gear: LoadingGear;
  bar: BarKind;
  hold: RackHold;
  /** Holes of its uprights, cm. */
  hooksCm: number[];
  safetiesCm: number[];
}

/** The racks in use, each with its bar and plates. */
export async function racksOf(tx: TeamTransaction, roomId?: string): Promise<RackGear[]> {
  const rows = await tx
    .select({ rack, bar })
    .from(rack)
    .innerJoin(bar, and(eq(bar.teamId, rack.teamId), eq(bar.id, rack.barId)))
    .where(and(isNull(rack.awayOn), roomId ? eq(rack.roomId, roomId) : undefined))
    .orderBy(asc(rack.roomId), asc(rack.number));
  return rows.map((row) => ({
    rackId: row.rack.id,
    roomId: row.rack.roomId,
    number: row.rack.number,
    bar: { shape: row.bar.shape, name: row.bar.name },
    hold: {
      bolted: row.rack.bolted,
      anchorKg: row.rack.anchor ? massKg(row.rack.anchor) : undefined,
      pegM: row.rack.pegM ?? DEFAULT_PEG_M,
    },
    hooksCm: row.rack.hooksCm,
    safetiesCm: row.rack.safetiesCm,
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

export async function saveRoom(
  tx: TeamTransaction,
  row: { id: string; name: string; zone: string },
) {
  const { id, ...rest } = row;
  await tx
    .insert(room)
    .values({ teamId: tx.teamId, id, ...rest })
    .onConflictDoUpdate({ target: [room.teamId, room.id], set: rest });
}

/** A piece of a room, with its identity and the day it was put away. */
/** Holds a room's gear until the transaction ends: who changes two pieces of it together. */
export async function lockRoom(tx: TeamTransaction, roomId: string): Promise<boolean> {
  const held = await tx.select({ id: room.id }).from(room).where(eq(room.id, roomId)).for("update");
  return held.length > 0;
}

export type StoredItem = GearItem & { id: string; awayOn: LocalDate | null };

/** An empty list is a fact nobody wrote. */
const written = <T>(list: T[]): T[] | undefined => (list.length > 0 ? list : undefined);

/** Everything in a room, in the order of the kinds; what was put away too. */
export async function itemsOf(tx: TeamTransaction, roomId: string): Promise<StoredItem[]> {
  const bars = await tx.select().from(bar).where(eq(bar.roomId, roomId)).orderBy(asc(bar.name));
  const racks = await tx
    .select()
    .from(rack)
    .where(eq(rack.roomId, roomId))
    .orderBy(asc(rack.number));
  const pieces = await tx
    .select()
    .from(gearPiece)
    .where(eq(gearPiece.roomId, roomId))
    .orderBy(asc(gearPiece.kind), asc(gearPiece.name));
  return [
    ...bars.map((row) => ({
      kind: "bar" as const,
      id: row.id,
      name: row.name,
      count: 1,
      awayOn: row.awayOn,
      values: {
        shape: row.shape,
        mass: row.mass,
        rated: row.rated,
        collar: row.collar,
        sleeve: row.sleeveMm,
      },
    })),
    ...racks.map((row) => ({
      kind: "rack" as const,
      id: row.id,
      name: String(row.number),
      count: 1,
      awayOn: row.awayOn,
      values: {
        bar: bars.find((one) => one.id === row.barId)?.name ?? "",
        plates: row.plates,
        bolted: row.bolted,
        anchor: row.anchor ?? undefined,
        peg: row.pegM ?? undefined,
        hooks: written(row.hooksCm),
        safeties: written(row.safetiesCm),
      },
    })),
    // What was kept was read by its kind's own fields.
    ...pieces.map(
      ({ id, kind, name, count, values, awayOn }) =>
        ({ id, kind, name, count, values, awayOn }) as StoredItem,
    ),
  ];
}

/** Writes a piece, new or changed. A rack names its bar; `barId` is that bar's. */
export async function saveItem(
  tx: TeamTransaction,
  input: {
    id: string;
    roomId: string;
    item: GearItem;
    barId?: string;
    enteredBy: string;
    enteredAt: Date;
  },
) {
  const { id, roomId, item } = input;
  const key = { teamId: tx.teamId, id, roomId };
  if (item.kind === "bar") {
    const { shape, mass, rated, collar, sleeve } = item.values;
    const row = { name: item.name, shape, mass, rated, collar, sleeveMm: Math.round(sleeve) };
    await tx
      .insert(bar)
      .values({ ...key, ...row })
      .onConflictDoUpdate({ target: [bar.teamId, bar.id], set: row });
  } else if (item.kind === "rack") {
    const { plates, bolted, anchor, peg, hooks, safeties } = item.values;
    const row = {
      number: Number(item.name),
      barId: input.barId as string,
      plates,
      bolted,
      anchor: anchor ?? null,
      pegM: peg ?? null,
      hooksCm: hooks ?? [],
      safetiesCm: safeties ?? [],
    };
    await tx
      .insert(rack)
      .values({ ...key, ...row })
      .onConflictDoUpdate({ target: [rack.teamId, rack.id], set: row });
  } else {
    const row = {
      kind: item.kind,
      name: item.name,
      count: item.count,
      values: item.values,
      enteredBy: input.enteredBy,
      enteredAt: input.enteredAt,
    };
    await tx
      .insert(gearPiece)
      .values({ ...key, ...row })
      .onConflictDoUpdate({ target: [gearPiece.teamId, gearPiece.id], set: row });
  }
}

/** A rack's plates alone: whoever hangs a pair on changes nothing else of it. */
export async function savePlates(
  tx: TeamTransaction,
  rackId: string,
  plates: PlateStock[],
): Promise<void> {
  await tx.update(rack).set({ plates }).where(eq(rack.id, rackId));
}

/** Out of use from a day, or back in use. */
export async function putItemAway(
  tx: TeamTransaction,
  item: Pick<StoredItem, "kind" | "id">,
  awayOn: LocalDate | null,
) {
  const table = item.kind === "bar" ? bar : item.kind === "rack" ? rack : gearPiece;
  await tx.update(table).set({ awayOn }).where(eq(table.id, item.id));
}

/** A sensor as it stands at a rack. */
export interface RackSensor {
  id: string;
  name: string;
  by: string;
  rateHz: number;
}

/** Where a sensor stands: a room, and the number of a rack in it. */
export const sensorPlace = (roomId: string, rackNumber: number) => `${roomId}/${rackNumber}`;

/** The sensors that stand at racks, as Gear has them, by `sensorPlace`; the newest of two. */
export async function sensorsAtRacks(
  tx: TeamTransaction,
  roomId?: string,
): Promise<Map<string, RackSensor>> {
  const rows = await tx
    .select()
    .from(gearPiece)
    .where(
      and(
        eq(gearPiece.kind, "sensor"),
        isNull(gearPiece.awayOn),
        roomId ? eq(gearPiece.roomId, roomId) : undefined,
      ),
    )
    .orderBy(asc(gearPiece.enteredAt));
  return new Map(
    rows.flatMap((row): Array<[string, RackSensor]> => {
      const { by, rate, rack: number } = row.values as unknown as ValuesOf<"sensor">;
      if (number === undefined) return [];
      const sensor = { id: row.id, name: row.name, by, rateHz: rate };
      return [[sensorPlace(row.roomId, number), sensor]];
    }),
  );
}

/** The sensor that stands at one rack. */
export async function sensorAtRack(
  tx: TeamTransaction,
  roomId: string,
  rackNumber: number,
): Promise<RackSensor | undefined> {
  return (await sensorsAtRacks(tx, roomId)).get(sensorPlace(roomId, rackNumber));
}

export function inspectionsOf(tx: TeamTransaction) {
  return tx.select().from(bandInspection).orderBy(desc(bandInspection.date));
}

export async function addInspection(
  tx: TeamTransaction,
  row: Omit<typeof bandInspection.$inferInsert, "teamId">,
) {
  await tx.insert(bandInspection).values({ teamId: tx.teamId, ...row });
}

/** The racks of a room with what each can hang on its bar on a day. */
export async function racksWithHang(tx: TeamTransaction, roomId: string, today: LocalDate) {
  const items = (await itemsOf(tx, roomId)).filter((item) => item.awayOn === null);
  return (await racksOf(tx, roomId)).map((rack) => ({
    ...rack,
    hang: hangStock(items, rack.hold, today),
  }));
}

/** Racks of some rooms by id, with the numbers that they are called by. */
export function rackNumbers(tx: TeamTransaction, roomIds: readonly string[]) {
  return tx
    .select({ id: rack.id, number: rack.number })
    .from(rack)
    .where(anyOf(rack.roomId, roomIds));
}
