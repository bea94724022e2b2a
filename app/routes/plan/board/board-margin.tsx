import { memo } from "react";
import type { Block } from "../../../../core/plan/block";
import type { Lifter } from "../../../../core/prescribe/lifter";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { Changed, History } from "../plan-changes";
import type { useRecipeKeeping } from "../recipe-keeping";
import { BlockPanel } from "./block-panel";
import { DayPanel } from "./day-panel";
import { NewSlot } from "./new-slot";
import { cellId, type Picked } from "./picked";
import { SlotPanel } from "./slot-panel";
import { WeekPanel } from "./week-panel";

/** What the margin says of what is in hand on the board. */
export const BoardMargin = memo(function BoardMargin({
  data,
  block,
  picked,
  pick,
  recipe,
  athlete,
  choose,
  mayEdit,
}: {
  data: PlanPage;
  block: Block;
  picked: Picked;
  pick: (next: Picked) => void;
  recipe: ReturnType<typeof useRecipeKeeping>;
  athlete: Lifter | undefined;
  choose: (athleteId: string) => void;
  mayEdit: boolean;
}) {
  return (
    <div
      className="grid content-start gap-4"
      data-of={picked.kind === "cell" ? cellId(picked.slotId, picked.week) : undefined}
    >
      {picked.kind === "cell" ? (
        <SlotPanel
          key={picked.slotId}
          data={data}
          block={block}
          slotId={picked.slotId}
          week={picked.week}
          recipe={recipe}
          athlete={athlete}
          choose={choose}
          mayEdit={mayEdit}
        />
      ) : picked.kind === "day" ? (
        <DayPanel data={data} dayId={picked.dayId} mayEdit={mayEdit} />
      ) : picked.kind === "week" ? (
        <WeekPanel
          data={data}
          week={picked.week}
          mayEdit={mayEdit}
          picked={(week) => pick({ kind: "week", week })}
        />
      ) : picked.kind === "new" && mayEdit ? (
        <NewSlot
          key={`${picked.dayId}/${picked.section}`}
          data={data}
          asked={picked}
          onPut={() => pick(picked)}
          onDone={(slotId) =>
            pick(slotId === undefined ? { kind: "block" } : { kind: "cell", slotId, week: 1 })
          }
        />
      ) : (
        <BlockPanel data={data} mayEdit={mayEdit} />
      )}
      <Changed data={data} published={data.published} />
      <History data={data} />
    </div>
  );
});
