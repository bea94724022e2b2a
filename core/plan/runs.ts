import { recipeWeeks } from "../recipe/recipe";
import { daysBetween, type LocalDate } from "../units/time";
import { type Block, cyclePlace, dateOf, type Slot } from "./block";

/** One wave of a slot: one time through its recipe's weeks; what ends the recipe joins the last. */
export interface Run {
  /** 1 the first time through. */
  run: number;
  weeks: number[];
  from: LocalDate;
  to: LocalDate;
}

/** Blocks are never changed in place, and lists of waves ask for every one of a team's. */
const runsOfBlocks = new WeakMap<Block, WeakMap<Slot, Run[]>>();

/** A slot's waves in the order of the block; marked weeks are in none. */
export function runsOf(block: Block, slot: Slot): readonly Run[] {
  const bySlot = runsOfBlocks.get(block) ?? new WeakMap<Slot, Run[]>();
  runsOfBlocks.set(block, bySlot);
  const there = bySlot.get(slot);
  if (there) return there;
  const made = runsAnew(block, slot);
  bySlot.set(slot, made);
  return made;
}

function runsAnew(block: Block, slot: Slot): Run[] {
  const day = block.days[slot.dayId];
  if (!day) return [];
  const { recipe } = slot;
  const wave = Math.max(1, recipe.weeks.length);
  const repeats = Math.max(
    1,
    Math.floor((recipeWeeks(recipe).length - (recipe.tail?.length ?? 0)) / wave),
  );
  const runs = new Map<number, Run>();
  for (let week = slot.fromWeek; week <= block.weeks; week++) {
    const place = cyclePlace(block, slot, week);
    if (!place) continue;
    const run =
      (place.run - 1) * repeats + Math.min(repeats - 1, Math.floor(place.index / wave)) + 1;
    const date = dateOf(block, week, day);
    const there = runs.get(run);
    if (there) {
      there.weeks.push(week);
      there.to = date;
    } else runs.set(run, { run, weeks: [week], from: date, to: date });
  }
  return [...runs.values()];
}

/** The next week of a block that lies after a wave and begins after today; undefined where none is left. */
export function weekAhead(
  block: Pick<Block, "startDate" | "weeks">,
  run: Pick<Run, "weeks">,
  today: LocalDate,
): number | undefined {
  const now = Math.floor(daysBetween(block.startDate, today) / 7) + 1;
  const next = Math.max(run.weeks.at(-1) ?? 0, now) + 1;
  return next <= block.weeks ? next : undefined;
}
