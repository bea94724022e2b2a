import { Link } from "react-router";
import {
  type Block,
  daysOf,
  exerciseIn,
  SECTION_NAMES,
  type Slot,
  slotsOf,
} from "../../../core/plan/block";
import { recipeWeeks } from "../../../core/recipe/recipe";
import type { PlanPage } from "../../workflows/plan/read-plan.server";

/** What a slot is called: its lift or its exercise of a week, else its recipe. */
export function slotName(data: PlanPage, block: Block, slot: Slot, week = slot.fromWeek): string {
  const { work } = slot;
  if (work.kind === "lift") {
    return data.lifts.find((one) => one.id === work.variantId)?.name ?? slot.recipe.name;
  }
  const id = exerciseIn(block, slot, week);
  return data.exercises.find((one) => one.id === id)?.name ?? slot.recipe.name;
}

/** The days with their slots; one slot's numbers are looked at. */
export function SlotPicker({
  data,
  block,
  slotId,
}: {
  data: PlanPage;
  block: Block;
  slotId: string;
}) {
  const days = daysOf(block);
  const all = days.flatMap((day) => slotsOf(block, day.id));
  if (all.length <= 1) return null;
  return (
    <nav aria-label="Slots" className="no-print mb-2 grid gap-y-0.5">
      {days.map((day) => (
        <p key={day.id} className="flex flex-wrap items-baseline gap-x-3">
          <span className="w-14 text-muted">{day.name}</span>
          {slotsOf(block, day.id).map((slot) => (
            <Link
              key={slot.id}
              to={`?view=numbers&slot=${slot.id}`}
              preventScrollReset
              aria-current={slot.id === slotId ? "true" : undefined}
              title={`${SECTION_NAMES[slot.section]}, ${slot.recipe.name}, ${recipeWeeks(slot.recipe).length} weeks`}
              className={`py-0.5 ${slot.id === slotId ? "font-bold underline underline-offset-3" : "text-muted hover:text-base-content"}`}
            >
              {slotName(data, block, slot)}
            </Link>
          ))}
        </p>
      ))}
    </nav>
  );
}
