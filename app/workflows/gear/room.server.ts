import { uuidv7 } from "uuidv7";
import { loadableTable } from "../../../core/barload/loadable";
import { styleById } from "../../../core/boxsquat/styles";
import { readGearItem, readPlates, type WrittenItem } from "../../../core/gear/fields";
import { GEAR, type GearItem, ofKind } from "../../../core/gear/kinds";
import { checkRoom, rackLine, racksOfItems } from "../../../core/gear/room";
import { sharedAfter } from "../../../core/gear/shared-plates";
import { formatMass, grainsToKg, type MassUnit } from "../../../core/units/mass";
import { boxSetups } from "../../../db/queries/box.server";
import {
  addInspection,
  inspectionsOf,
  itemsOf,
  lockRoom,
  putItemAway,
  roomById,
  type StoredItem,
  saveItem,
  savePlates,
  saveRoom,
} from "../../../db/queries/gear.server";
import { setupsOf } from "../../../db/queries/person.server";
import { listAthletes, listRooms } from "../../../db/queries/squads.server";
import { fillRoom } from "../../../db/queries/stock.server";
import type { TeamTransaction } from "../../../db/team.server";
import {
  type RoomFileProblem,
  rackNumbers,
  readRoomFile,
  roomAsCsv,
  roomAsJson,
} from "../../forms/gear";
import { now, localDate as todayOf } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, type Failure, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { drawnSeat, seatOf, seatStockOf } from "../lifters/box-seat.server";
import { readerUnit } from "../lifters/reader-unit.server";
import { readPlaces } from "../lifters/today.server";

const inUse = (items: readonly StoredItem[]) => items.filter((one) => one.awayOn === null);

/** What each rack can build, for the room's page and the list of rooms. */
function buildsOf(items: readonly GearItem[]) {
  return racksOfItems(items).map((rack) => {
    const { totals } = loadableTable(rack.gear);
    return {
      number: rack.number,
      line: rackLine(rack),
      totals: totals.length,
      lightestKg: grainsToKg(totals[0] as number),
      heaviestKg: grainsToKg(totals[totals.length - 1] as number),
    };
  });
}

/** The rooms, what stands in each, and what each lacks. */
export function readRooms(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const rooms = [];
    for (const room of await listRooms(tx)) {
      const items = inUse(await itemsOf(tx, room.id));
      rooms.push({
        id: room.id,
        name: room.name,
        zone: room.zone,
        builds: buildsOf(items),
        kinds: (Object.keys(GEAR) as Array<keyof typeof GEAR>).flatMap((kind) => {
          const own = items.filter((one) => one.kind === kind);
          const pieces = own.reduce((sum, one) => sum + one.count, 0);
          return own.length > 0 ? [{ kind, pieces, many: GEAR[kind].many }] : [];
        }),
        problems: checkRoom(items, todayOf(room.zone)).map((one) => one.text),
      });
    }
    return rooms;
  });
}

/** One room with every piece. */
export function readRoom(principal: Principal, roomId: string) {
  return inTeam(principal, async (tx) => {
    const room = await roomById(tx, roomId);
    if (!room) return failed("no-room", "There is no such room in your team.");
    const items = await itemsOf(tx, roomId);
    const pieces = new Set(items.map((one) => one.id));
    return done({
      id: room.id,
      name: room.name,
      zone: room.zone,
      today: todayOf(room.zone),
      items,
      builds: buildsOf(inUse(items)),
      seats: await seatsIn(tx, room.id),
      problems: checkRoom(inUse(items), todayOf(room.zone)),
      inspections: (await inspectionsOf(tx))
        .filter((one) => pieces.has(one.pieceId))
        .map(({ pieceId, date, finding, note, enteredBy }) => ({
          pieceId,
          date,
          finding,
          note,
          enteredBy,
        })),
    });
  });
}

/** The seat that is built for each who trains in a room, the lowest first. */
async function seatsIn(tx: TeamTransaction, roomId: string) {
  const places = await readPlaces(tx);
  const here = (await listAthletes(tx)).filter((one) => places.roomOf(one)?.id === roomId);
  const ids = here.map((one) => one.id);
  const [stock, setups, boxes] = await Promise.all([
    seatStockOf(tx, roomId),
    setupsOf(tx, ids),
    boxSetups(tx, ids),
  ]);
  return here
    .flatMap((person) => {
      const trial = setups.find((one) => one.athleteId === person.id && one.boxSeatCm !== null);
      const box = boxes.find((one) => one.athleteId === person.id);
      const seat = drawnSeat(seatOf(stock, trial, styleById(box?.styleId)));
      return seat ? [{ athleteId: person.id, name: person.name, ...seat }] : [];
    })
    .sort((a, b) => a.wantedCm - b.wantedCm);
}

async function sameRoomName(tx: TeamTransaction, name: string): Promise<Failure | undefined> {
  const same = (await listRooms(tx)).find((one) => one.name.toLowerCase() === name.toLowerCase());
  return same && failed("same-name", `${same.name} is there already. Use another name.`);
}

/** A new room, empty or with the gear of another. */
export function addRoom(
  principal: Principal,
  input: { name: string; zone: string; from: string },
): Promise<Outcome<{ id: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const same = await sameRoomName(tx, input.name);
    if (same) return same;
    const from = input.from ? inUse(await itemsOf(tx, input.from)) : [];
    const id = uuidv7();
    await saveRoom(tx, { id, name: input.name, zone: input.zone });
    await fillRoom(tx, id, from, { enteredBy: principal.name, enteredAt: now() });
    return done({ id });
  });
}

/** A new room from a file; nothing is taken from a file with a fault. */
export function importRoom(
  principal: Principal,
  input: { name: string; zone: string; text: string },
): Promise<Outcome<{ id: string }> & { problems?: RoomFileProblem[] }> {
  return inTeamOnce(principal, async (tx) => {
    const read = readRoomFile(input.text);
    if (!read.ok) {
      return {
        ...failed(
          "faults",
          `${read.problems.length} faults: nothing was taken. Mend them and read the file again.`,
        ),
        problems: read.problems,
      };
    }
    const name = input.name || read.room.name;
    if (!name) return failed("no-name", "A table does not name its room: write the name here.");
    const same = await sameRoomName(tx, name);
    if (same) return same;
    const { items } = read.room;
    const broken = checkRoom(items, todayOf("UTC")).filter((one) =>
      /not in this room|written twice/.test(one.text),
    );
    if (broken.length > 0) {
      return {
        ...failed("faults", "The pieces do not fit together: nothing was taken."),
        problems: broken.map((one) => ({ line: 0, text: one.text })),
      };
    }
    const id = uuidv7();
    await saveRoom(tx, { id, name, zone: read.room.zone ?? input.zone });
    await fillRoom(tx, id, items, { enteredBy: principal.name, enteredAt: now() });
    return done({ id });
  });
}

export function renameRoom(
  principal: Principal,
  roomId: string,
  input: { name: string; zone: string },
): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    const room = await roomById(tx, roomId);
    if (!room) return failed("no-room", "There is no such room in your team.");
    if (room.name.toLowerCase() !== input.name.toLowerCase()) {
      const same = await sameRoomName(tx, input.name);
      if (same) return same;
    }
    await saveRoom(tx, { id: roomId, name: input.name, zone: input.zone });
    return done(null);
  });
}

export type ItemOutcome = Outcome<{ names: string[] }> & { problems?: Record<string, string> };

/** Adds a piece or changes one. One form describes several racks: "1-4". */
export function keepItem(
  principal: Principal,
  roomId: string,
  input: { id: string; written: WrittenItem },
): Promise<ItemOutcome> {
  return inTeamOnce(principal, async (tx) => {
    const items = await itemsOf(tx, roomId);
    const old = items.find((one) => one.id === input.id);
    if (input.id && !old) return failed("no-piece", "This piece is not in the room any more.");
    const unit: MassUnit = await readerUnit(tx, principal);
    const { written } = input;
    const names =
      written.kind === "rack" && !old
        ? (rackNumbers(written.name)?.map(String) ?? [written.name])
        : [written.name];
    const kept: GearItem[] = [];
    for (const name of names) {
      const read = readGearItem({ ...written, name }, unit);
      if (!read.ok) {
        return { ...failed("fields", "Some of it cannot be."), problems: read.problems };
      }
      kept.push(read.item);
    }
    const [first] = kept;
    const bar =
      first?.kind === "rack"
        ? inUse(items).find((one) => one.kind === "bar" && one.name === first.values.bar)
        : undefined;
    if (first?.kind === "rack" && !bar) {
      return {
        ...failed("no-bar", "That bar is not in this room."),
        problems: { bar: "Choose a bar of this room, or describe the bar first." },
      };
    }
    const store = inUse(items).find((one) => one.kind === "store" && one.id !== input.id);
    if (first?.kind === "store" && store) {
      const text = `${store.name} is there already: a room has one tree that its racks share.`;
      return { ...failed("same-name", text), problems: { name: text } };
    }
    for (const item of kept) {
      const same = items.find(
        (one) =>
          one.id !== input.id &&
          one.kind === item.kind &&
          one.name.toLowerCase() === item.name.toLowerCase() &&
          (one.awayOn === null || one.kind === "rack"),
      );
      if (same) {
        const where =
          same.awayOn === null ? "is in this room already" : "was put away: bring it back";
        const text = `${same.kind === "rack" ? `Rack ${same.name}` : same.name} ${where}.`;
        return { ...failed("same-name", text), problems: { name: text } };
      }
    }
    for (const item of kept) {
      await saveItem(tx, {
        id: input.id || uuidv7(),
        roomId,
        item,
        ...(bar ? { barId: bar.id } : {}),
        enteredBy: principal.name,
        enteredAt: now(),
      });
    }
    return done({ names });
  });
}

/**
 * A rack's plates as they hang now. Where the room has shared plates, what is hung on comes from
 * them and what comes off goes to them: both are kept, or neither.
 */
export function hangPlates(
  principal: Principal,
  roomId: string,
  input: { id: string; plates: string },
): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    if (!(await lockRoom(tx, roomId))) return failed("no-room", "There is no such room.");
    const items = inUse(await itemsOf(tx, roomId));
    const rack = ofKind(items, "rack").find((one) => one.id === input.id);
    if (!rack) return failed("no-piece", "This rack is not in the room any more.");
    const [store] = ofKind(items, "store");
    const read = readPlates(input.plates, await readerUnit(tx, principal));
    if (!read.ok) return failed("plates", read.text);
    if (store) {
      const left = sharedAfter(rack.values.plates, read.plates, store.values.plates);
      if (!left.ok) {
        return failed(
          "too-few",
          `${store.name} has no more pairs of ${formatMass(left.lacks.mass)}. New ones are added there first.`,
        );
      }
      const item = { ...store, values: { plates: left.shared } };
      const by = { enteredBy: principal.name, enteredAt: now() };
      await saveItem(tx, { id: store.id, roomId, item, ...by });
    }
    await savePlates(tx, rack.id, read.plates);
    return done(null);
  });
}

/** Puts a piece away or brings it back. A bar that a rack holds stays until the rack has another. */
export function shelveItem(
  principal: Principal,
  roomId: string,
  input: { id: string; away: boolean },
): Promise<Outcome<null>> {
  return inTeam(principal, async (tx) => {
    const room = await roomById(tx, roomId);
    const items = await itemsOf(tx, roomId);
    const item = items.find((one) => one.id === input.id);
    if (!room || !item) return failed("no-piece", "This piece is not in the room any more.");
    if (input.away && item.kind === "bar") {
      const racks = inUse(items).filter(
        (one) => one.kind === "rack" && one.values.bar === item.name,
      );
      if (racks.length > 0) {
        const which = racks.map((one) => one.name).join(", ");
        return failed(
          "in-use",
          `${item.name} is the bar of rack ${which}. Give ${racks.length > 1 ? "them" : "it"} another bar first.`,
        );
      }
    }
    if (!input.away) {
      const same = inUse(items).find((one) => one.kind === item.kind && one.name === item.name);
      if (same) return failed("same-name", `Another ${item.name} is in use. Rename one of them.`);
    }
    await putItemAway(tx, item, input.away ? todayOf(room.zone) : null);
    return done(null);
  });
}

/** Notes what was seen of a band; a nicked one leaves use at once. */
export function inspectBand(
  principal: Principal,
  roomId: string,
  input: { pieceId: string; finding: "sound" | "worn" | "nicked"; note: string },
): Promise<Outcome<null>> {
  return inTeamOnce(principal, async (tx) => {
    const room = await roomById(tx, roomId);
    const band = (await itemsOf(tx, roomId)).find(
      (one) => one.id === input.pieceId && one.kind === "band",
    );
    if (!room || !band) return failed("no-piece", "This band is not in the room any more.");
    const date = todayOf(room.zone);
    await addInspection(tx, {
      id: uuidv7(),
      ...input,
      date,
      enteredBy: principal.name,
      enteredAt: now(),
    });
    if (input.finding === "nicked") await putItemAway(tx, band, date);
    return done(null);
  });
}

/** A room as a file. */
export function exportRoom(
  principal: Principal,
  roomId: string,
  as: "json" | "csv",
): Promise<Outcome<{ name: string; text: string }>> {
  return inTeam(principal, async (tx) => {
    const room = await roomById(tx, roomId);
    if (!room) return failed("no-room", "There is no such room in your team.");
    const document = { name: room.name, zone: room.zone, items: inUse(await itemsOf(tx, roomId)) };
    return done({
      name: room.name.toLowerCase().replace(/[^a-z0-9]+/g, "-"),
      text: as === "json" ? roomAsJson(document) : roomAsCsv(document),
    });
  });
}
