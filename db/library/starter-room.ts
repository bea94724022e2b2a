import { readGearItem } from "../../core/gear/fields";
import type { GearItem, GearKind } from "../../core/gear/kinds";
import type { MassUnit } from "../../core/units/mass";
import { invariant } from "../invariant";

/** The name under which a new team finds its first room. */
export const STARTER_ROOM_NAME = "Weight room";

/** Pieces as they are written on the gear page: kind, name, how many, its fields. */
type Row = [kind: GearKind, name: string, count: number, fields: Record<string, string>];

const TIPS = "Sit across its middle: it tips at the end.";
const RACKS = ["1", "2", "3", "4"];

/** Usual bars and plates of a weight room: a drawing to be corrected, not a measurement. */
const PIECES: Record<MassUnit, Row[]> = {
  kg: [
    [
      "bar",
      "Straight bar",
      1,
      { shape: "straight", mass: "20 kg", rated: "300 kg", collar: "0 kg", sleeve: "415" },
    ],
    ...RACKS.map(
      (number): Row => [
        "rack",
        number,
        1,
        { bar: "Straight bar", plates: "25x2 20x2 15 10x2 5x2 2.5x2 1.25" },
      ],
    ),
    ["box", "Pin box", 1, { heights: "30 35 40 45" }],
    ["mat", "Rubber mat", 4, { thickness: "2" }],
    ["seat", "Flat bench", 2, { heights: "43", limit: "150 kg", caution: TIPS }],
    ...[10, 15, 20, 25, 30].map(
      (kg): Row => ["weight", `Dumbbells of ${kg}`, 2, { what: "dumbbell", mass: `${kg} kg` }],
    ),
    ...[12, 16, 24].map(
      (kg): Row => ["weight", `Kettlebells of ${kg}`, 1, { what: "kettlebell", mass: `${kg} kg` }],
    ),
  ],
  lb: [
    [
      "bar",
      "Straight bar",
      1,
      { shape: "straight", mass: "45 lb", rated: "700 lb", collar: "0 lb", sleeve: "415" },
    ],
    ...RACKS.map(
      (number): Row => [
        "rack",
        number,
        1,
        { bar: "Straight bar", plates: "45lb x2 35lb 25lb x2 10lb x2 5lb x2 2.5lb" },
      ],
    ),
    ["box", "Pin box", 1, { heights: "12in 14in 16in 18in" }],
    ["mat", "Rubber mat", 4, { thickness: "0.75in" }],
    ["seat", "Flat bench", 2, { heights: "17in", limit: "330 lb", caution: TIPS }],
    ...[20, 30, 40, 50, 60].map(
      (lb): Row => ["weight", `Dumbbells of ${lb} lb`, 2, { what: "dumbbell", mass: `${lb} lb` }],
    ),
    ...[26, 35, 53].map(
      (lb): Row => [
        "weight",
        `Kettlebells of ${lb} lb`,
        1,
        { what: "kettlebell", mass: `${lb} lb` },
      ],
    ),
  ],
};

/** What stands in a new team's room until somebody has looked: bars first, then racks. */
export function starterRoom(unit: MassUnit): GearItem[] {
  return PIECES[unit].map(([kind, name, count, fields]) => {
    const read = readGearItem({ kind, name, count: String(count), fields });
    invariant(read.ok, `a shipped piece can be read: ${name}`);
    return read.item;
  });
}
