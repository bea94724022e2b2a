import { describe, expect, it } from "vitest";
import { readGearItem } from "../../core/gear/fields";
import type { GearKind } from "../../core/gear/kinds";
import {
  ItemForm,
  type RoomDocument,
  RoomForm,
  rackNumbers,
  readRoomFile,
  roomAsCsv,
  roomAsJson,
} from "./gear";

const item = (kind: GearKind, name: string, fields: Record<string, string>) => {
  const read = readGearItem({ kind, name, count: "2", fields });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.item;
};

const ROOM: RoomDocument = {
  name: "Old boathouse",
  zone: "Europe/Oslo",
  items: [
    item("bar", "Bar, straight", {
      shape: "straight",
      mass: "45 lb",
      rated: "300",
      collar: "2.5",
      sleeve: "415",
    }),
    item("rack", "1", {
      bar: "Bar, straight",
      plates: "45lb x2 20x2 1.25",
      bolted: "yes",
      hooks: "90 100",
    }),
    item("band", "=SUM band", { rest: "0.5", readings: "0.6 4, 0.9 11" }),
    item("box", "Pin box", { heights: "30 35" }),
  ],
};

describe("a room as a file", () => {
  it("comes back whole from JSON", () => {
    expect(readRoomFile(roomAsJson(ROOM))).toEqual({ ok: true, room: ROOM });
  });

  it("comes back whole from a table, with semicolons too; a formula is made harmless", () => {
    const csv = roomAsCsv(ROOM);
    expect(csv).toContain("'=SUM band");
    expect(readRoomFile(csv)).toEqual({ ok: true, room: { items: ROOM.items } });
    const excel = "\uFEFFkind;name;count;heights\r\nbox;Low box;1;30 35\r\n;;;\r\n";
    expect(readRoomFile(excel)).toMatchObject({ ok: true, room: { items: [{ name: "Low box" }] } });
  });

  it.each([
    ['{ "format": "sprezza-room", ', [{ line: 0, text: /does not end well/ }]],
    ['{"format":"other"}', [{ line: 0, text: /format/ }]],
    ["Squats;Monday", [{ line: 1, text: /names the columns/ }]],
    [
      "kind,name,colour\nbox,Low,red",
      [
        { line: 1, text: /"colour" is no column/ },
        { line: 2, text: /heights/ },
      ],
    ],
    [
      "kind,name,count,heights\nsofa,Old,1,40\nbox,Low,1,400",
      [
        { line: 2, text: /"sofa" is no kind/ },
        { line: 3, text: /Was it 400 mm/ },
      ],
    ],
  ])("names the faults of %s", (text, faults) => {
    const read = readRoomFile(text);
    if (read.ok) throw new Error("It should have faults.");
    for (const [i, fault] of faults.entries()) {
      expect(read.problems[i]?.line).toBe(fault.line);
      expect(read.problems[i]?.text).toMatch(fault.text);
    }
  });
});

describe("the forms", () => {
  it("one form describes several racks", () => {
    expect(rackNumbers("1-4, 6")).toEqual([1, 2, 3, 4, 6]);
    expect(rackNumbers("2 2")).toEqual([2]);
    for (const text of ["", "left", "4-1", "0"]) expect(rackNumbers(text)).toBeUndefined();
  });

  it("a piece's form holds the fields of its kind only", () => {
    const parsed = ItemForm.parse({
      kind: "mat",
      name: "Thin",
      count: "3",
      thickness: "12 mm",
      rated: "9",
    });
    expect(parsed).toEqual({
      id: "",
      written: { kind: "mat", name: "Thin", count: "3", fields: { thickness: "12 mm" } },
    });
  });

  it("a room has a name and a real zone", () => {
    expect(RoomForm.safeParse({ name: "Hall", zone: "Europe/Oslo" }).success).toBe(true);
    for (const bad of [
      { name: "H", zone: "UTC" },
      { name: "Hall", zone: "Sprint/Lake" },
    ]) {
      expect(RoomForm.safeParse(bad).success).toBe(false);
    }
  });
});
