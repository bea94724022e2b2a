import { seededRandom } from "../../core/numeric/random";
import { type Block, emptyBlock, type SectionKind, type Slot } from "../../core/plan/block";
import type { Recipe } from "../../core/recipe/recipe";
import { addDays, type LocalDate } from "../../core/units/time";
import { SHIPPED_RECIPES } from "../library/recipes";
import { listComplexes } from "../queries/contrast.server";
import { schoolIdByName } from "../queries/plan-library.server";
import { insertPlan } from "../queries/plans.server";
import * as schema from "../schema";
import type { TeamTransaction } from "../team.server";
import { uuidFrom } from "./uuid";

const SEED = 71717;
const COACH = "Callum Reyk";
export const CAMP = "Spring camp";
const ROOM = "Boathouse";
/** What box squats come to of the free squat, where nobody has tested one: coaching practice. */
const BOX_TO_FREE = 0.65;
/** Never sat on a box: at the rack the bar is built up with her. */
const NO_BOX_YET = "Ilse Brandvik";

/** Banded speed squats from the box. */
const BANDED: Recipe = {
  name: "Banded doubles from the box",
  aim: "speed",
  school: "Percent waves, short rest",
  basis: "percent",
  start: 50,
  steps: [{ id: "s1", sets: 6, reps: 2, add: 0 }],
  weeks: [
    { id: "w1", add: 0 },
    { id: "w2", add: 5 },
  ],
  cycle: [],
  convention: "bar",
  resistancePercent: 20,
  rest: { leastS: 45, mostS: 90 },
  lead: "percent",
  stop: { lossPercent: 15, lossFrom: "best" },
};

type Row = [
  id: string,
  section: SectionKind,
  what: string,
  recipe: Recipe | string,
  over?: Partial<Recipe>,
  group?: string,
];

/** The camp's day: throws, a pairing, the box, the bench over three grips, a round. */
const ROWS: Row[] = [
  [
    "throws",
    "primer",
    "Two-hand throw, forwards",
    "Primer: light, fast, little",
    { basis: "eye", start: 0, steps: [{ id: "s1", sets: 2, reps: 5, add: 0 }] },
  ],
  ["box", "main", "Box squat, parallel, straight bar", BANDED],
  [
    "bench",
    "second",
    "Bench press, straight bar",
    "Bench triples, nine over three grips",
    { steps: [{ id: "s1", sets: 6, reps: 3, add: 0 }] },
  ],
  [
    "row",
    "accessories",
    "Chest-supported row",
    "Three sets of twelve, load follows",
    { start: 15, basis: "fixed", steps: [{ id: "s1", sets: 2, reps: 12, add: 0 }] },
    "A",
  ],
  [
    "plank",
    "accessories",
    "Side plank",
    "Three sets of twelve, load follows",
    {
      basis: "eye",
      start: 0,
      sides: "left-right",
      steps: [{ id: "s1", sets: 2, reps: 10, add: 0 }],
    },
    "A",
  ],
];

/** Everybody of the centre together for a day of every kind of work, today and in a week. */
export async function loadCamp(tx: TeamTransaction, now: Date, today: LocalDate): Promise<void> {
  const uuid = uuidFrom(seededRandom(SEED));
  const [variants, exercises, rooms, people] = [
    await tx.select().from(schema.liftVariant),
    await tx.select().from(schema.exercise),
    await tx.select().from(schema.room),
    await tx.select().from(schema.athlete),
  ];
  const room = rooms.find((one) => one.name === ROOM);
  const box = variants.find((one) => one.lift === "box-squat");
  const squat = variants.find((one) => one.lift === "squat" && one.baseKind === "own");
  if (!room || !box || !squat) throw new Error("The demo's camp needs a room and its lifts.");
  const squadId = uuid();
  await tx.insert(schema.squad).values({
    teamId: tx.teamId,
    id: squadId,
    name: CAMP,
    sport: "Canoe sprint and judo",
    roomId: room.id,
    position: 4,
  });
  await tx
    .insert(schema.athleteSquad)
    .values(people.map((one) => ({ teamId: tx.teamId, athleteId: one.id, squadId })));
  await boxMaxes(tx, uuid, { people, boxId: box.id, squatId: squat.id }, now, today);

  const exerciseId = (name: string): string => {
    const found = exercises.find((one) => one.name === name);
    if (!found) throw new Error(`The demo's camp names ${name}.`);
    return found.id;
  };
  const block: Block = {
    ...emptyBlock({
      name: "Camp day",
      startDate: today,
      weeks: 2,
      schoolId: await schoolIdByName(tx, "Percent waves, short rest"),
      template: "power-first",
    }),
    days: { d1: { name: "Day 1", offset: 0 } },
  };
  ROWS.forEach(([id, section, what, recipe, over, group], i) => {
    const variant = variants.find((one) => one.name === what);
    const shipped =
      typeof recipe === "string"
        ? SHIPPED_RECIPES.find((one) => one.recipe.name === recipe)?.recipe
        : recipe;
    if (!shipped) throw new Error(`The demo's camp names ${String(recipe)}.`);
    const slot: Slot = {
      dayId: "d1",
      section,
      order: i + 1,
      work: variant
        ? { kind: "lift", variantId: variant.id }
        : { kind: "exercise", exerciseIds: [exerciseId(what)], hands: 1 },
      recipe: { ...shipped, ...over },
      fromWeek: 1,
      repeat: true,
      session: 1,
      group: group ?? "",
    };
    if (variant === box) {
      slot.box = {
        purpose: "power",
        role: "main",
        styleId: "wide",
        contact: "weight",
        smallestStopS: 0.4,
      };
    }
    block.slots[id] = slot;
  });
  const pairing = (await listComplexes(tx)).find((one) => one.complex.name === "First pairing");
  if (pairing) {
    block.pairings = { p1: { dayId: "d1", complexId: pairing.lineageId, fromWeek: 1 } };
  }
  await insertPlan(tx, {
    id: uuid(),
    name: block.name,
    squadId,
    roomId: room.id,
    startDate: block.startDate,
    block,
    metric: "MCV",
    rounding: "nearest",
    updatedBy: COACH,
    updatedAt: now,
  });
}

/** The coach's word on a box squat for whoever has tested none: a share of the free squat. */
async function boxMaxes(
  tx: TeamTransaction,
  uuid: () => string,
  of: { people: ReadonlyArray<{ id: string; name: string }>; boxId: string; squatId: string },
  now: Date,
  today: LocalDate,
): Promise<void> {
  const records = await tx.select().from(schema.maxRecord);
  for (const { id: athleteId, name } of of.people) {
    const own = records.filter((one) => one.athleteId === athleteId);
    const free = own.find((one) => one.variantId === of.squatId);
    if (!free || name === NO_BOX_YET || own.some((one) => one.variantId === of.boxId)) continue;
    const recordId = uuid();
    await tx.insert(schema.maxRecord).values({
      teamId: tx.teamId,
      id: recordId,
      athleteId,
      variantId: of.boxId,
      load: { amount: 2.5 * Math.round((BOX_TO_FREE * free.load.amount) / 2.5), unit: "kg" },
      date: addDays(today, -5),
      kind: "coach",
      note: "65 % of the free squat until a box squat is tested",
      enteredBy: COACH,
      enteredAt: now,
    });
    await tx.insert(schema.workingMaxChoice).values({
      teamId: tx.teamId,
      id: uuid(),
      athleteId,
      variantId: of.boxId,
      recordId,
      chosenBy: COACH,
      chosenAt: now,
    });
  }
}
