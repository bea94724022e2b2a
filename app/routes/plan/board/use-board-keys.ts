import { type KeyboardEvent, useRef } from "react";
import { type Block, cyclePlace, daysOf } from "../../../../core/plan/block";
import { copySlot, hasSteps, moreInWeek, stepSlot } from "../../../../core/plan/board-edits";
import { removeSlot } from "../../../../core/plan/edits";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { usePlanEdit } from "../plan-edits";
import type { useRecipeKeeping } from "../recipe-keeping";
import { freshId } from "../setup-edit";
import type { RowActions } from "./board-row";
import { cellId, type Picked } from "./picked";

/** Keys of the board's cells: from one to the next, and everything that is pulled elsewhere. */
export function useBoardKeys({
  data,
  block,
  rows,
  cell,
  pick,
  act,
  recipe,
  mayEdit,
}: {
  data: PlanPage;
  /** With the recipe that is being tried. */
  block: Block;
  /** Ids of the slots, from above. */
  rows: readonly string[];
  cell: Extract<Picked, { kind: "cell" }> | undefined;
  pick: (next: Picked) => void;
  act: RowActions;
  recipe: ReturnType<typeof useRecipeKeeping>;
  mayEdit: boolean;
}) {
  const edit = usePlanEdit();
  const clip = useRef<{ slotId: string; week: number }>(undefined);
  const onKeyDown = (event: KeyboardEvent) => {
    const target = event.target as HTMLElement;
    if (!cell || !target.id.startsWith("cell-")) return;
    const done = (act: () => void) => {
      event.preventDefault();
      act();
    };
    const go = (slotId: string | undefined, week: number) => {
      if (slotId === undefined || week < 1 || week > block.weeks) return;
      pick({ kind: "cell", slotId, week });
      requestAnimationFrame(() => document.getElementById(cellId(slotId, week))?.focus());
    };
    const row = rows.indexOf(cell.slotId);
    const across = event.key === "ArrowLeft" ? -1 : event.key === "ArrowRight" ? 1 : 0;
    const down = event.key === "ArrowUp" ? -1 : event.key === "ArrowDown" ? 1 : 0;
    if (mayEdit && event.altKey && across !== 0)
      return done(() =>
        event.shiftKey ? act.stretch(cell.slotId, across) : act.begin(cell.slotId, across),
      );
    if (mayEdit && event.altKey && down !== 0)
      return done(
        () =>
          void edit(
            stepSlot(
              data.block,
              daysOf(block).map((day) => day.id),
              cell.slotId,
              down as -1 | 1,
            ),
          ),
      );
    if (across !== 0) return done(() => go(cell.slotId, cell.week + across));
    if (down !== 0) return done(() => go(rows[row + down], cell.week));
    if (event.key === "Home") return done(() => go(cell.slotId, 1));
    if (event.key === "End") return done(() => go(cell.slotId, block.weeks));
    // While something is tried, Enter keeps it.
    if (event.key === "Enter" && block === data.block)
      return done(() => focusBars(cellId(cell.slotId, cell.week)));
    const mod = event.ctrlKey || event.metaKey;
    if (mod && event.key === "c") {
      clip.current = { slotId: cell.slotId, week: cell.week };
      return done(() => {});
    }
    if (mod && event.key === "v" && mayEdit) return done(() => paste(cell.slotId, cell.week));
    if (mayEdit && (event.key === "[" || event.key === "]")) {
      const slot = block.slots[cell.slotId];
      const place = slot && cyclePlace(block, slot, cell.week);
      if (slot && place && hasSteps(slot.recipe))
        return done(() =>
          recipe.onDraft(
            moreInWeek(recipe.newestOf(slot.recipe), {
              index: place.index,
              sets: event.key === "[" ? -1 : 1,
            }),
          ),
        );
    }
    if (mayEdit && event.key === "Delete")
      return done(() => void edit(removeSlot(data.block, cell.slotId)));
  };
  const paste = (slotId: string, week: number) => {
    const from = clip.current;
    const target = data.block.slots[slotId];
    if (!from || !target) return;
    if (from.slotId === slotId) return act.copyWeek(slotId, from.week, week - from.week);
    const { dayId, section } = target;
    void edit(copySlot(data.block, from.slotId, freshId("s"), { dayId, section, before: slotId }));
  };
  return onKeyDown;
}

/** Goes to the bars of a cell: the margin speaks of it a moment after it was picked. */
function focusBars(cell: string, framesLeft = 120): void {
  const bar = document.querySelector<HTMLElement>(`[data-of="${CSS.escape(cell)}"] #first-bar`);
  if (bar) bar.focus();
  else if (framesLeft > 0 && document.activeElement?.id === cell)
    requestAnimationFrame(() => focusBars(cell, framesLeft - 1));
}
