import { type Recipe, type RecipeWeek, recipeWeeks } from "../recipe/recipe";
import { type Block, type SectionKind, type Slot, slotsOf } from "./block";
import {
  applyEdit,
  type BlockEdit,
  insertWeek,
  type Json,
  type PlaceSet,
  removeWeek,
} from "./edits";

/** Edits that a coach makes by hand on the block board: each is one edit, and one undo. */

/** A place on the board: before another slot of a day's section, or at its end. */
export interface BoardPlace {
  dayId: string;
  section: SectionKind;
  before: string | undefined;
}

const asJson = (value: unknown) => JSON.parse(JSON.stringify(value)) as Json;

/** Orders of a section anew, with one slot put in before another. */
function orders(block: Block, slotId: string, place: BoardPlace): PlaceSet[] {
  const ids = slotsOf(block, place.dayId)
    .filter((one) => one.section === place.section && one.id !== slotId)
    .map((one) => one.id);
  const at = place.before === undefined ? ids.length : ids.indexOf(place.before);
  ids.splice(at < 0 ? ids.length : at, 0, slotId);
  return ids.map((id, i) => ({ path: ["slots", id, "order"], value: i + 1 }));
}

/** A slot to another place, section or day; it leaves its round where it leaves the day. */
export function placeSlot(block: Block, slotId: string, place: BoardPlace): BlockEdit | undefined {
  const slot = block.slots[slotId];
  if (!slot || !block.days[place.dayId] || place.before === slotId) return undefined;
  const stays = slot.dayId === place.dayId;
  const sets: PlaceSet[] = [
    ...(stays ? [] : [{ path: ["slots", slotId, "dayId"], value: place.dayId }]),
    ...(stays || slot.group === "" ? [] : [{ path: ["slots", slotId, "group"], value: "" }]),
    ...(slot.section === place.section
      ? []
      : [{ path: ["slots", slotId, "section"], value: place.section }]),
    ...orders(block, slotId, place),
  ];
  return { words: `${slot.recipe.name} moved`, sets };
}

/** A slot one place up or down in its day; over the edge of a day it goes to the next one. */
export function stepSlot(
  block: Block,
  days: readonly string[],
  slotId: string,
  by: -1 | 1,
): BlockEdit | undefined {
  const slot = block.slots[slotId];
  if (!slot) return undefined;
  const row = slotsOf(block, slot.dayId);
  const i = row.findIndex((one) => one.id === slotId);
  const next = row[i + by];
  if (next && next.section === slot.section) {
    const before =
      by < 0 ? next.id : row[i + 2]?.section === slot.section ? row[i + 2]?.id : undefined;
    return placeSlot(block, slotId, { dayId: slot.dayId, section: slot.section, before });
  }
  if (next)
    return placeSlot(block, slotId, {
      dayId: slot.dayId,
      section: next.section,
      before: by > 0 ? next.id : undefined,
    });
  const dayId = days[days.indexOf(slot.dayId) + by];
  if (dayId === undefined) return undefined;
  const there = slotsOf(block, dayId);
  const edge = by < 0 ? there.at(-1) : there[0];
  return placeSlot(block, slotId, {
    dayId,
    section: edge?.section ?? slot.section,
    before: by > 0 ? edge?.id : undefined,
  });
}

/** A copy of a slot at a place; own loads and rests stay with the first. */
export function copySlot(
  block: Block,
  slotId: string,
  copyId: string,
  place: BoardPlace,
): BlockEdit | undefined {
  const slot = block.slots[slotId];
  if (!slot || !block.days[place.dayId]) return undefined;
  const copy: Slot = { ...slot, dayId: place.dayId, section: place.section, group: "", order: 0 };
  return {
    words: `${slot.recipe.name} copied`,
    sets: [{ path: ["slots", copyId], value: asJson(copy) }, ...orders(block, copyId, place)],
  };
}

/** A new slot at the end of its section. */
export function newSlot(block: Block, slotId: string, slot: Slot): BlockEdit {
  const { dayId, section } = slot;
  const order = slotsOf(block, dayId)
    .filter((one) => one.section === section)
    .reduce((most, one) => Math.max(most, one.order), 0);
  return {
    words: `Slot added: ${slot.recipe.name}`,
    sets: [{ path: ["slots", slotId], value: asJson({ ...slot, order: order + 1 }) }],
  };
}

/** A slot begins in another week of the block. */
export function beginSlot(block: Block, slotId: string, week: number): BlockEdit | undefined {
  const slot = block.slots[slotId];
  if (!slot || week < 1 || week > block.weeks || week === slot.fromWeek) return undefined;
  return {
    words: `${slot.recipe.name} from week ${week}`,
    sets: [{ path: ["slots", slotId, "fromWeek"], value: week }],
  };
}

/** Weeks that a cycle may have. */
const MOST_CYCLE_WEEKS = 26;

/**
 * A cycle of so many weeks: new ones are like the last, what is over falls away. Weeks of a tail stay.
 * @param freshId gives ids that no week ever had
 */
export function stretchCycle(
  block: Block,
  slotId: string,
  weeks: number,
  freshId: () => string,
): BlockEdit | undefined {
  const slot = block.slots[slotId];
  const { recipe } = slot ?? {};
  const last = recipe?.weeks.at(-1);
  if (!recipe || !last || weeks < 1 || weeks > MOST_CYCLE_WEEKS || weeks === recipe.weeks.length)
    return undefined;
  const made = [
    ...recipe.weeks.slice(0, weeks),
    ...Array.from({ length: Math.max(0, weeks - recipe.weeks.length) }, () => ({
      ...last,
      id: freshId(),
    })),
  ];
  return {
    words: `${recipe.name}: a cycle of ${weeks} ${weeks === 1 ? "week" : "weeks"}`,
    sets: [{ path: ["slots", slotId, "recipe", "weeks"], value: asJson(made) }],
  };
}

/**
 * A week of its own (a deload, a test) to another place in the block: taken out and put in again, as one
 * edit. What lies between moves by a week.
 */
export function moveMark(block: Block, markId: string, week: number): BlockEdit | undefined {
  const mark = block.marks[markId];
  if (!mark || week === mark.week || week < 1 || week > block.weeks) return undefined;
  const out = removeWeek(block, markId);
  if (!out) return undefined;
  const without = applyEdit(block, out);
  if (!without.ok) return undefined;
  const back = insertWeek(without.block, markId, { ...mark, week });
  return {
    words: `${mark.words || mark.kind} from week ${mark.week} to week ${week}`,
    sets: [...out.sets, ...back.sets],
  };
}

/** How far a change of a bar reaches: one week of the cycle, one step in every week, or all of it. */
export type Reach = "week" | "step" | "all";

/** The week of a recipe that a place in its cycle stands for; a repeated week is the same one. */
function weekAt(recipe: Recipe, index: number): { place: "weeks" | "tail"; i: number } | undefined {
  const ofWeeks = recipe.weeks.length * (recipe.repeats ?? 1);
  if (index < 0 || index >= recipeWeeks(recipe).length || recipe.weeks.length === 0)
    return undefined;
  return index < ofWeeks
    ? { place: "weeks", i: index % recipe.weeks.length }
    : { place: "tail", i: index - ofWeeks };
}

const rounded = (value: number) => Math.round(1000 * value) / 1000;

function withWeek(
  recipe: Recipe,
  index: number,
  change: (week: RecipeWeek) => RecipeWeek,
): Recipe | undefined {
  const at = weekAt(recipe, index);
  if (!at) return undefined;
  const change1 = (weeks: RecipeWeek[]) =>
    weeks.map((week, i) => (i === at.i ? change(week) : week));
  return at.place === "weeks"
    ? { ...recipe, weeks: change1(recipe.weeks) }
    : { ...recipe, tail: change1(recipe.tail ?? []) };
}

/**
 * A recipe with a bar raised by so much of its basis (points of percent, m/s, kg).
 * @param index place in the cycle, from 0
 * @param stepId the step whose bar was pulled; a flat week has one height
 * @example raiseBar(recipe, { index: 1, stepId: "s2", by: 2.5, reach: "week" })
 */
export function raiseBar(
  recipe: Recipe,
  of: { index: number; stepId: string; by: number; reach: Reach },
): Recipe | undefined {
  const { index, stepId, by, reach } = of;
  if (!Number.isFinite(by) || by === 0) return undefined;
  if (reach === "all")
    return {
      ...recipe,
      start: rounded(recipe.start + by),
      weeks: recipe.weeks.map((week) => flatRaised(week, by)),
    };
  if (reach === "step" && recipe.steps.some((step) => step.id === stepId))
    return {
      ...recipe,
      steps: recipe.steps.map((step) =>
        step.id === stepId ? { ...step, add: rounded(step.add + by) } : step,
      ),
    };
  return withWeek(recipe, index, (week) =>
    week.flat ? flatRaised(week, by) : { ...week, add: rounded(week.add + by) },
  );
}

const flatRaised = (week: RecipeWeek, by: number): RecipeWeek =>
  week.flat ? { ...week, flat: { ...week.flat, at: rounded(week.flat.at + by) } } : week;

/** Whether a recipe's sets are those of its steps: a top set, and one step on a clock, have their own. */
export const hasSteps = ({ top, timed, steps }: Recipe): boolean =>
  top === undefined && !(timed !== undefined && steps.length === 1);

/** A recipe with so many sets (a step), or reps, more in one week of the cycle. */
export function moreInWeek(
  recipe: Recipe,
  of: { index: number; sets?: number; reps?: number },
): Recipe | undefined {
  const { sets = 0, reps = 0 } = of;
  const most = (pick: (step: Recipe["steps"][number]) => number) =>
    Math.max(1, ...recipe.steps.map(pick));
  return withWeek(recipe, of.index, (week) =>
    week.flat
      ? {
          ...week,
          flat: {
            ...week.flat,
            sets: Math.max(1, week.flat.sets + sets),
            reps: Math.max(1, week.flat.reps + reps),
          },
        }
      : {
          ...week,
          // Every step at one is the fewest: more off would have to be put on again unseen.
          moreSets: Math.max(1 - most((step) => step.sets), (week.moreSets ?? 0) + sets),
          moreReps: Math.max(1 - most((step) => step.reps), (week.moreReps ?? 0) + reps),
        },
  );
}

/** A recipe with one week of its cycle done as another one is; its id, and what hangs on it, stays. */
export function copyCell(recipe: Recipe, from: number, to: number): Recipe | undefined {
  const at = weekAt(recipe, from);
  const source = at && (at.place === "weeks" ? recipe.weeks : (recipe.tail ?? []))[at.i];
  return source && from !== to
    ? withWeek(recipe, to, (week) => ({ ...source, id: week.id }))
    : undefined;
}
