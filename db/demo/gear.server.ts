import { eq } from "drizzle-orm";
import { readGearItem } from "../../core/gear/fields";
import type { GearKind } from "../../core/gear/kinds";
import { seededRandom } from "../../core/numeric/random";
import { heightsFromStature } from "../../core/resistance/heights";
import { addDays, type LocalDate } from "../../core/units/time";
import { addInspection, itemsOf, saveItem } from "../queries/gear.server";
import { keepSetup } from "../queries/person.server";
import * as schema from "../schema";
import type { TeamTransaction } from "../team.server";
import { uuidFrom } from "./uuid";

const SEED = 20260312;
const COACH = "Callum Reyk";

type Row = [kind: GearKind, name: string, count: number, fields: Record<string, string>];

/** A simulated sensor at every rack: nobody needs a device to see the demo. */
const sensors = (racks: number): Row[] =>
  Array.from({ length: racks }, (_, i) => [
    "sensor",
    `Simulated sensor ${i + 1}`,
    1,
    { by: "simulated", rate: "100", rack: String(i + 1) },
  ]);

/** What stands in the demo's rooms besides bars and plates. */
const PIECES: Record<"Boathouse" | "Dojo gym", Row[]> = {
  Boathouse: [
    [
      "band",
      "Narrow band",
      4,
      {
        rest: "0.55",
        readings: "0.6 1.5, 0.8 5.5, 1.0 9, 1.2 12.5, 1.45 17.5",
        label: "7 to 16 kg",
        retire: "2027-02-01",
      },
    ],
    [
      "band",
      "Middle band",
      3,
      { rest: "0.55", readings: "0.6 3, 0.8 9.5, 1.0 15, 1.2 21, 1.45 29", retire: "2026-11-01" },
    ],
    ["band", "Wide band", 2, { rest: "0.55", label: "23 to 54 kg" }],
    ["chain", "Harbour chain", 4, { density: "6", length: "1.5", leader: "0.2" }],
    ["chain", "Light chain", 4, { density: "2.4", length: "1.6", leader: "0.2" }],
    ["box", "Pin box", 6, { heights: "28 32 36 40 44" }],
    ["box", "Low box", 2, { heights: "30" }],
    ["mat", "Thin mat", 6, { thickness: "1.2" }],
    ["mat", "Thick mat", 4, { thickness: "2.5" }],
    [
      "seat",
      "Flat bench",
      4,
      { heights: "43", limit: "80 kg", caution: "Sit across its middle: it tips at the end." },
    ],
    ["block", "Pulling blocks", 2, { height: "38" }],
    ["jump", "Jump box, low", 3, { what: "jump box", height: "40" }],
    ["jump", "Hurdles", 8, { what: "hurdle", height: "30" }],
    ["jump", "Throwing ball", 6, { what: "throwing ball", mass: "4 kg" }],
    ["jump", "Weight vest", 4, { what: "vest", mass: "8 kg" }],
    ["station", "Throwing wall", 1, { type: "wall" }],
    ["station", "Jump strip", 1, { type: "strip" }],
    ["station", "Dumbbell corner", 1, { type: "corner" }],
    ...sensors(6),
    ...[5, 7.5, 10, 12.5, 15, 17.5, 20, 22.5, 25, 27.5, 30, 35, 40].map(
      (kg): Row => ["weight", `Dumbbells of ${kg}`, 2, { what: "dumbbell", mass: `${kg} kg` }],
    ),
    ...[8, 12, 16, 20, 24, 32].map(
      (kg): Row => ["weight", `Kettlebells of ${kg}`, 2, { what: "kettlebell", mass: `${kg} kg` }],
    ),
  ],
  "Dojo gym": [
    [
      "band",
      "Red-tagged band",
      2,
      { rest: "0.5", readings: "0.6 4, 0.9 11, 1.2 18", retire: "2026-02-15" },
    ],
    ["box", "Stacking box", 2, { heights: "35 40 45" }],
    ["mat", "Tatami offcut", 6, { thickness: "4" }],
    ["jump", "Throwing ball", 4, { what: "throwing ball", mass: "6 lb" }],
    ["station", "Tatami", 1, { type: "open floor" }],
    ...sensors(3),
    ["store", "By the mirror", 1, { plates: "2.5lbx2 1.25lbx1" }],
  ],
};

/** Bolts, anchors and hook heights of the Boathouse's racks. */
const RACKS = { bolted: true, anchor: { amount: 120, unit: "kg" as const }, pegM: 0.05 };

export async function loadGear(tx: TeamTransaction, now: Date, today: LocalDate): Promise<void> {
  const uuid = uuidFrom(seededRandom(SEED));
  const entered = { enteredBy: COACH, enteredAt: now };
  const rooms = await tx.select().from(schema.room);
  for (const room of rooms) {
    for (const [kind, name, count, fields] of PIECES[room.name as keyof typeof PIECES]) {
      const read = readGearItem({ kind, name, count: String(count), fields });
      if (!read.ok) throw new Error(`Demo gear ${name}: ${JSON.stringify(read.problems)}`);
      await saveItem(tx, { id: uuid(), roomId: room.id, item: read.item, ...entered });
    }
    if (room.name === "Boathouse") {
      await tx
        .update(schema.rack)
        .set({
          ...RACKS,
          hooksCm: [90, 95, 100, 105, 110, 130, 140, 150],
          safetiesCm: [40, 50, 60, 70, 80, 90],
        })
        .where(eq(schema.rack.roomId, room.id));
    }
    for (const item of await itemsOf(tx, room.id)) {
      if (item.kind !== "band") continue;
      for (const [days, finding, note] of [
        [40, "sound", ""],
        [9, "worn", "edge roughened near the loop"],
      ] as const) {
        await addInspection(tx, {
          id: uuid(),
          pieceId: item.id,
          date: addDays(today, -days),
          finding,
          note,
          ...entered,
        });
      }
    }
  }
  await loadHeights(tx, now);
}

/** Bar heights of squats, and the trial seats from which box heights come, for most athletes. */
async function loadHeights(tx: TeamTransaction, now: Date): Promise<void> {
  const random = seededRandom(SEED + 1);
  const uuid = uuidFrom(random);
  const squats = (await tx.select().from(schema.liftVariant)).filter((one) =>
    ["squat", "box-squat"].includes(one.lift),
  );
  const people = await tx.select().from(schema.athlete).orderBy(schema.athlete.name);
  for (const [i, person] of people.entries()) {
    const heights =
      person.statureCm === null ? undefined : heightsFromStature("squat", person.statureCm);
    // Every fourth was never measured: there the application estimates, and says so.
    if (!heights || i % 4 === 3) continue;
    const off = () => Math.round(3 * random.normal()) / 100;
    for (const variant of squats) {
      await keepSetup(tx, {
        id: uuid(),
        athleteId: person.id,
        variantId: variant.id,
        hook: String(8 + Math.floor(3 * random.uniform())),
        safety: String(4 + Math.floor(2 * random.uniform())),
        stance: "a foot past the shoulders",
        bottomM: Number((heights.bottomM - 0.06 + off()).toFixed(2)),
        lockoutM: Number((heights.lockoutM + off()).toFixed(2)),
        boxSeatCm: variant.lift === "box-squat" ? 40 : null,
        boxCreaseCm: variant.lift === "box-squat" ? Math.round(random.normal() * 4) / 2 : null,
        enteredBy: COACH,
        enteredAt: now,
      });
    }
  }
}
