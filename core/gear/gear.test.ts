import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { loadBar } from "../barload/load";
import { massKg } from "../units/mass";
import {
  plateThicknessMm,
  readGearItem,
  readPlates,
  writeGearField,
  writeGearItem,
} from "./fields";
import { GEAR, GEAR_KINDS, type GearKind, type ItemOf } from "./kinds";
import { checkRoom, racksOfItems, resistanceStock, seatStock } from "./room";

/** Each kind as a coach would write it. */
const WRITTEN: Record<GearKind, { name: string; fields: Record<string, string> }> = {
  bar: {
    name: "Straight bar",
    fields: { shape: "straight", mass: "45 lb", rated: "700 lb", collar: "0", sleeve: "41.5 cm" },
  },
  rack: {
    name: "3",
    fields: {
      bar: "Straight bar",
      plates: "45lb x2 10 x3 2,5x2@9",
      bolted: "yes",
      anchor: "120 kg",
      hooks: "90 100 110",
    },
  },
  store: { name: "By the wall", fields: { plates: "2.5x2 1.25x3@12/160" } },
  band: {
    name: "Narrow",
    fields: { rest: "55 cm", readings: "0.6 1.5, 1.0 9", retire: "2027-02-01" },
  },
  chain: { name: "Harbour", fields: { density: "6", length: "150 cm", leader: "0.2" } },
  box: { name: "Pin box", fields: { heights: "36 30 12in" } },
  mat: { name: "Thin", fields: { thickness: "12 mm" } },
  seat: { name: "Bench", fields: { heights: "43", limit: "80", caution: "Tips at its end." } },
  block: { name: "Blocks", fields: { height: "15 in" } },
  weight: { name: "Pair of 20", fields: { what: "dumbbell", mass: "20 kg", height: "17 in" } },
  jump: { name: "Ball", fields: { what: "throwing ball", mass: "6 lb" } },
  station: { name: "Throwing wall", fields: { type: "wall" } },
  sensor: { name: "Cord", fields: { by: "cord", rate: "100 Hz", rack: "1" } },
};

const item = <Kind extends GearKind>(
  kind: Kind,
  fields: Record<string, string> = {},
  name = WRITTEN[kind].name,
) => {
  const read = readGearItem({
    kind,
    name,
    count: "2",
    fields: { ...WRITTEN[kind].fields, ...fields },
  });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.item as ItemOf<Kind>;
};

describe("a piece of gear as it is written", () => {
  it.each(GEAR_KINDS)("a %s reads back as it was written out", (kind) => {
    const first = item(kind);
    const again = readGearItem(writeGearItem(first));
    // Who reads pounds keeps it unchanged as well.
    expect(readGearItem(writeGearItem(first, "lb"), "lb")).toEqual(again);
    expect(again).toEqual({ ok: true, item: first });
  });

  it("takes either unit in every mass and length, and keeps the mass as written", () => {
    expect(item("bar").values).toMatchObject({
      mass: { amount: 45, unit: "lb" },
      collar: { amount: 0, unit: "kg" },
      sleeve: 415,
    });
    expect(item("box").values.heights).toEqual([30, 30.48, 36]);
    expect(item("mat").values.thickness).toBe(1.2);
    expect(item("block").values.height).toBe(38.1);
  });

  it("takes any unit in a band's readings and a list of lengths, with or without a blank", () => {
    const readings = (text: string) => item("band", { readings: text }).values.readings;
    const kilograms = readings("0.7 4, 1.0 13");
    expect(readings("0.7m 4kg, 1.0 m 13 kg")).toEqual(kilograms);
    expect(readings("70 cm 4, 100cm 13 kg")).toEqual(kilograms);
    expect(readings("28 in 9 lb 40in 28lb")).toMatchObject([
      { lengthM: 0.7112, tensionKg: expect.closeTo(4.08, 2) },
      { lengthM: 1.016, tensionKg: expect.closeTo(12.7, 2) },
    ]);
    expect(item("box", { heights: "17.5 in 44 cm" }).values.heights).toEqual([44, 44.45]);
  });

  it.each([
    ["band", "rest", "41", /Was it 41 cm\? Then write 41 cm\./],
    ["band", "readings", "1.0 9", /two lengths or more/],
    ["band", "readings", "1.0 9 1.2 7", /pulls harder the longer/],
    ["band", "readings", "1.0 9 41 20", /centimetres or feet/],
    ["band", "readings", "1.0 9 1.2", /has no pull beside it/],
    ["band", "retire", "soon", /A date/],
    ["chain", "length", "-1", /out of reach/],
    ["bar", "mass", "-20", /not under 0/],
    ["bar", "rated", "20 lb", /more than it weighs/],
    ["bar", "shape", "bendy", /one of straight/],
    ["rack", "plates", "250x2", /heaviest is 50 kg; pairs go after the x/],
    ["rack", "plates", "25x200", /at most 60 pairs/],
    ["rack", "plates", "0x2", /weighs something/],
    ["rack", "plates", "many", /write 25x2/],
    ["box", "heights", "450", /Was it 450 mm\?/],
    ["seat", "caution", "", /write something/],
    ["sensor", "rate", "fast", /not a number/],
  ] as const)("%s with %s %s is refused with a way on", (kind, field, text, words) => {
    const read = readGearItem({
      kind,
      name: WRITTEN[kind].name,
      count: "1",
      fields: { ...WRITTEN[kind].fields, [field]: text },
    });
    expect(read.ok ? "" : read.problems[field]).toMatch(words);
  });

  it("needs a name, a rack a number, and a whole number of pieces", () => {
    const read = (kind: GearKind, name: string, count: string) =>
      readGearItem({ kind, name, count, fields: WRITTEN[kind].fields });
    expect(read("mat", " ", "1")).toMatchObject({ problems: { name: expect.any(String) } });
    expect(read("rack", "left", "1")).toMatchObject({ problems: { name: /number/ } });
    for (const count of ["0", "1.5", "61", "some"]) {
      expect(read("mat", "Thin", count)).toMatchObject({ problems: { count: /whole number/ } });
    }
  });

  it("says how far a plate is across, and that is no length for a plate", () => {
    const read = readPlates("25x2@45/450 10 / 325mm 2.5x2/190 2.5/200", "kg");
    if (!read.ok) throw new Error(read.text);
    expect(read.plates.map((one) => one.diameterMm)).toEqual([450, 325, 200]);
    expect(read.plates.map((one) => one.thicknessMm)).toEqual([45, 26, 16]);
    const spec = GEAR.rack.fields.find((field) => field.name === "plates");
    if (!spec) throw new Error("A rack has plates.");
    const again = readPlates(writeGearField(spec, read.plates, "lb"), "lb");
    expect(again).toEqual(read);
    for (const text of ["25/45", "25/4500"])
      expect(readPlates(text, "kg")).toMatchObject({ ok: false, text: /80 to 600 mm across/ });
  });

  it("plates of one mass add up, whatever the order", () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            kg: fc.constantFrom(25, 20, 10, 2.5, 1.25),
            pairs: fc.integer({ min: 1, max: 4 }),
          }),
          { minLength: 1, maxLength: 8 },
        ),
        (rows) => {
          const read = readPlates(rows.map((row) => `${row.kg}x${row.pairs}`).join(" "), "kg");
          if (!read.ok) throw new Error(read.text);
          const sum = read.plates.reduce((all, one) => all + one.pairs * massKg(one.mass), 0);
          expect(sum).toBeCloseTo(
            rows.reduce((all, row) => all + row.pairs * row.kg, 0),
            9,
          );
          for (const one of read.plates) expect(one.thicknessMm).toBe(plateThicknessMm(one.mass));
        },
      ),
    );
  });

  it("every kind says what it is, and every start value can be read", () => {
    for (const kind of GEAR_KINDS) {
      const fields = Object.fromEntries(
        GEAR[kind].fields.map((field) => [
          field.name,
          field.start ?? WRITTEN[kind].fields[field.name] ?? "",
        ]),
      );
      expect(readGearItem({ kind, name: WRITTEN[kind].name, count: "1", fields })).toMatchObject({
        ok: true,
      });
    }
  });
});

describe("a room", () => {
  const items = [
    item("bar"),
    item("rack"),
    item("band"),
    item("band", { retire: "2026-01-01" }, "Old"),
    item("band", { readings: "", label: "10 to 20 kg" }, "Unmeasured"),
    item("chain"),
    item("box"),
    item("mat"),
    item("seat"),
  ];

  it("gives racks that load: pound bar, mixed plates", () => {
    const [rack] = racksOfItems(items);
    expect(rack).toMatchObject({ number: 3, bolted: true, anchorKg: 120, pegM: 0.05 });
    const loading = rack && loadBar(rack.gear, 45 * 0.45359237 + 20);
    expect(loading).toMatchObject({ ok: true });
    if (loading?.ok) {
      expect(loading.side.plates).toEqual([{ amount: 10, unit: "kg" }]);
    }
  });

  it("hangs on a bar only what is measured and not retired, and says why of the rest", () => {
    const stock = resistanceStock(items, 0.05, "2026-03-10");
    expect(stock.usable.map((one) => [one.what.name, one.perSide])).toEqual([
      ["Narrow", 2],
      ["Harbour", 2],
    ]);
    expect(stock.left).toEqual([
      { name: "Old", why: "retired on 2026-01-01" },
      {
        name: "Unmeasured",
        why: "not measured with a hanging scale. The label says 10 to 20 kg: no measurement.",
      },
    ]);
  });

  it("has seats and mats, stand-ins with their limit", () => {
    const { bases, mats } = seatStock(items);
    expect(bases.map((one) => one.name)).toEqual(["Pin box", "Bench"]);
    expect(bases[1]?.substitute).toEqual({ caution: "Tips at its end.", limitKg: 80 });
    expect(mats).toEqual([{ id: "Thin", name: "Thin", thicknessCm: 1.2, count: 2 }]);
  });

  it("says what it lacks", () => {
    expect(checkRoom([], "2026-03-10").map((one) => one.text)).toEqual([
      "No bar yet: loads need one.",
      "No rack yet: sessions need one.",
    ]);
    const texts = checkRoom(
      [
        ...items,
        item("rack", { bar: "Gone", plates: "" }, "4"),
        item("mat"),
        item("seat", { limit: "" }, "Stool"),
      ],
      "2026-03-10",
    ).map((one) => one.text);
    expect(texts).toEqual([
      "Rack 4 names the bar Gone, which is not in this room.",
      "Rack 4 has no plates: only the empty bar can be loaded.",
      "Old is past its retire date: take it out.",
      "Unmeasured has no hanging-scale readings: it is not proposed, and a plan says so.",
      "Stool has no load limit as a seat: it is offered with an empty bar only.",
      "Thin is written twice. Name them apart.",
    ]);
  });
});
