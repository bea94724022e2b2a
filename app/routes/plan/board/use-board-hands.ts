import type { DragEndEvent } from "@dnd-kit/core";
import { useMemo, useRef } from "react";
import { cyclePlace, slotsOf } from "../../../../core/plan/block";
import {
  beginSlot,
  copyCell,
  moveMark,
  placeSlot,
  stretchCycle,
} from "../../../../core/plan/board-edits";
import { recipeTo } from "../../../../core/plan/edits";
import type { Recipe } from "../../../../core/recipe/recipe";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { usePlanEdit } from "../plan-edits";
import { freshId } from "../setup-edit";
import type { RowActions } from "./board-row";
import type { Picked } from "./picked";

/** What is pulled about on the board, as edits of the plan. */
export function useBoardHands(of: { data: PlanPage; pick: (next: Picked) => void }) {
  const edit = usePlanEdit();
  // What rows call is of the moment in which they call: they need not be drawn again for it.
  const now = useRef({ ...of, edit });
  now.current = { ...of, edit };
  const act = useMemo<RowActions>(
    () => ({
      pick: (slotId, week) => now.current.pick({ kind: "cell", slotId, week }),
      begin: (slotId, by) => {
        const { data, edit } = now.current;
        const from = data.block.slots[slotId]?.fromWeek ?? 1;
        void edit(beginSlot(data.block, slotId, from + by));
      },
      stretch: (slotId, by) => {
        const { data, edit } = now.current;
        const length = data.block.slots[slotId]?.recipe.weeks.length ?? 1;
        void edit(stretchCycle(data.block, slotId, length + by, () => freshId("w")));
      },
      copyWeek: (slotId, from, by) => {
        const { data, edit } = now.current;
        const slot = data.block.slots[slotId];
        const source = slot && cyclePlace(data.block, slot, from);
        if (!slot || !source) return;
        const step = by < 0 ? -1 : 1;
        let recipe: Recipe = slot.recipe;
        for (let week = from + step; week !== from + by + step; week += step) {
          const target = cyclePlace(data.block, slot, week);
          if (target && target.index !== source.index)
            recipe = copyCell(recipe, source.index, target.index) ?? recipe;
        }
        if (recipe !== slot.recipe) void edit(recipeTo(slotId, recipe));
      },
    }),
    [],
  );
  const { data } = of;
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    const [what = "", id = ""] = String(active.id).split(":");
    const [where = "", at = ""] = String(over?.id ?? "").split(":");
    if (what === "mark" && where === "week") void edit(moveMark(data.block, id, Number(at)));
    if (what !== "slot") return;
    if (where === "before" && at !== id) {
      const target = data.block.slots[at];
      if (target)
        void edit(
          placeSlot(data.block, id, { dayId: target.dayId, section: target.section, before: at }),
        );
    }
    if (where === "end") {
      const last = slotsOf(data.block, at)
        .filter((one) => one.id !== id)
        .at(-1);
      const section = last?.section ?? data.block.slots[id]?.section;
      if (section) void edit(placeSlot(data.block, id, { dayId: at, section, before: undefined }));
    }
  };
  return { act, onDragEnd };
}
