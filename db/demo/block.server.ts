import { seededRandom } from "../../core/numeric/random";
import { type Block, emptyBlock, type SectionKind, type Slot } from "../../core/plan/block";
import type { Recipe } from "../../core/recipe/recipe";
import { addDays, type LocalDate } from "../../core/units/time";
import { SHIPPED_RECIPES } from "../library/recipes";
import { schoolIdByName } from "../queries/plan-library.server";
import { insertPlan } from "../queries/plans.server";
import * as schema from "../schema";
import type { TeamTransaction } from "../team.server";
import { uuidFrom } from "./uuid";

const SEED = 20260314;
const COACH = "Callum Reyk";

type Row = [
  day: "d1" | "d2",
  section: SectionKind,
  what: string,
  recipe: string,
  over?: Partial<Recipe>,
  group?: string,
  then?: string[],
];

/** The kayak squad's spring: two days, cycles of three, four and ten weeks side by side. */
const ROWS: Row[] = [
  [
    "d1",
    "primer",
    "Box jump",
    "Loaded jumps, contacts counted",
    { start: 0, basis: "eye", rest: { leastS: 60, mostS: 60 } },
  ],
  ["d1", "main", "Bench press, straight bar", "Ladder, three grips, flat end"],
  [
    "d1",
    "second",
    "Back squat, straight bar",
    "Squat doubles, up five a week",
    { resistancePercent: 0 },
  ],
  [
    "d1",
    "accessories",
    "Bench pull",
    "Three sets of twelve, load follows",
    { start: 40, steps: [{ id: "s1", sets: 3, reps: 8, repsTo: 10, add: 0 }] },
    "A",
    ["Chest-supported row"],
  ],
  [
    "d1",
    "accessories",
    "Side plank",
    "Three sets of twelve, load follows",
    { basis: "eye", start: 0, sides: "left-right" },
    "A",
  ],
  ["d2", "power", "Sprint 20 m", "Sprints, 5 × 20 m"],
  ["d2", "main", "Back squat, straight bar", "Up to a top triple"],
  ["d2", "second", "Bench press, wide grip", "Sets up, reps down"],
  [
    "d2",
    "accessories",
    "Pull-up",
    "A set more a week",
    { basis: "eye", start: 0, steps: [{ id: "s1", sets: 3, reps: 5, repsTo: 8, add: 0 }] },
  ],
];

/** One block of several slots; the waves that run are made with the training. */
export async function loadBlock(tx: TeamTransaction, now: Date, today: LocalDate): Promise<void> {
  const uuid = uuidFrom(seededRandom(SEED));
  const variants = await tx.select().from(schema.liftVariant);
  const exercises = await tx.select().from(schema.exercise);
  const squad = (await tx.select().from(schema.squad)).find((one) => one.name === "Sprint kayak");
  if (!squad) throw new Error("The demo has a kayak squad.");
  const exercise = (name: string): string => {
    const found = exercises.find((one) => one.name === name);
    if (!found) throw new Error(`The demo's block names ${name}.`);
    return found.id;
  };
  const block: Block = {
    ...emptyBlock({
      name: "Spring block",
      startDate: addDays(today, 20),
      weeks: 8,
      schoolId: await schoolIdByName(tx, "Percent waves, short rest"),
      template: "power-first",
    }),
    days: { d1: { name: "Day 1", offset: 0 }, d2: { name: "Day 2", offset: 3 } },
    marks: { m1: { week: 5, kind: "deload", words: "deload" } },
  };
  ROWS.forEach(([dayId, section, what, recipeName, over, group, then], i) => {
    const variant = variants.find((one) => one.name === what);
    const shipped = SHIPPED_RECIPES.find((one) => one.recipe.name === recipeName);
    if (!shipped) throw new Error(`The demo's block names ${recipeName}.`);
    const slot: Slot = {
      dayId,
      section,
      order: i + 1,
      work: variant
        ? { kind: "lift", variantId: variant.id }
        : { kind: "exercise", exerciseIds: [what, ...(then ?? [])].map(exercise), hands: 1 },
      recipe: { ...shipped.recipe, ...over },
      fromWeek: 1,
      repeat: true,
      session: 1,
      group: group ?? "",
    };
    if (slot.recipe.resistancePercent === 0) delete slot.recipe.resistancePercent;
    block.slots[`s${i + 1}`] = slot;
  });
  const planId = uuid();
  await insertPlan(tx, {
    id: planId,
    name: block.name,
    squadId: squad.id,
    roomId: squad.roomId,
    startDate: block.startDate,
    block,
    metric: "MCV",
    rounding: "nearest",
    updatedBy: COACH,
    updatedAt: now,
  });
}
