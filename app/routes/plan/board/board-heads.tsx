import { useDraggable, useDroppable } from "@dnd-kit/core";
import { memo } from "react";
import { markOf } from "../../../../core/plan/block";
import { addDays } from "../../../../core/units/time";
import { Day } from "../../../ui/dates";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { weekChecks } from "./board-data";
import { CheckMark } from "./board-row";
import { onPhone, type Picked } from "./picked";

/** The weeks with their dates, what hangs on the season, and weeks of their own. */
export const BoardHeads = memo(function BoardHeads({
  data,
  pickedWeek,
  mayEdit,
  pick,
  blockPicked,
  phoneWeek,
}: {
  data: PlanPage;
  blockPicked: boolean;
  pickedWeek: number | undefined;
  phoneWeek: number;
  mayEdit: boolean;
  pick: (next: Picked) => void;
}) {
  const { block } = data;
  return (
    <thead className="sticky top-0 z-5 border-b border-control bg-base-100">
      <tr>
        <th
          scope="col"
          className="sticky left-0 z-2 bg-base-100 pb-1 text-left align-bottom font-normal"
        >
          <button
            type="button"
            className={`text-left underline ${blockPicked ? "font-bold" : ""}`}
            onClick={() => pick({ kind: "block" })}
          >
            The block: start, weeks, school, room
          </button>
        </th>
        {Array.from({ length: block.weeks }, (_, i) => i + 1).map((week) => (
          <WeekHead
            key={week}
            data={data}
            week={week}
            picked={pickedWeek === week}
            phoneWeek={phoneWeek}
            mayEdit={mayEdit}
            pick={pick}
          />
        ))}
      </tr>
    </thead>
  );
});

const MARK_WORDS = { deload: "deload", test: "test week", off: "free week" } as const;

const WeekHead = memo(function WeekHead({
  data,
  week,
  picked,
  phoneWeek,
  mayEdit,
  pick,
}: {
  data: PlanPage;
  week: number;
  picked: boolean;
  phoneWeek: number;
  mayEdit: boolean;
  pick: (next: Picked) => void;
}) {
  const { block } = data;
  const mark = markOf(block, week);
  const markId = Object.entries(block.marks).find(([, one]) => one.week === week)?.[0];
  const competitions = data.competitions.filter((one) => one.week === week);
  const drop = useDroppable({ id: `week:${week}`, disabled: !mayEdit });
  const drag = useDraggable({ id: `mark:${markId ?? week}`, disabled: !mayEdit || !markId });
  const today = data.today >= addDays(block.startDate, 7 * (week - 1));
  const isNow = today && data.today < addDays(block.startDate, 7 * week);
  return (
    <th
      scope="col"
      ref={drop.setNodeRef}
      className={`border-l border-faint px-1 pb-0.5 text-left align-top leading-tight font-normal ${picked ? "bg-wash" : mark ? "bg-base-200" : ""} ${drop.isOver ? "outline-2 -outline-offset-2 outline-primary" : ""} ${onPhone(week, phoneWeek)}`}
    >
      <button
        type="button"
        id={`week-${week}`}
        className="block w-full text-left"
        onClick={() => pick({ kind: "week", week })}
        title="A deload, a test, who is away"
      >
        <b className="text-[17px]">{week}</b>{" "}
        <span className="text-sm text-muted">
          <Day short of={addDays(block.startDate, 7 * (week - 1))} />
        </span>
        {isNow ? <span className="text-[12px] text-primary"> now</span> : null}
      </button>
      {mark && markId ? (
        <button
          type="button"
          ref={drag.setNodeRef}
          {...drag.listeners}
          tabIndex={-1}
          title="Pull to another week"
          onClick={() => pick({ kind: "week", week })}
          className={`block max-w-full touch-none overflow-hidden text-[12px] font-bold text-ellipsis whitespace-nowrap text-secondary ${mayEdit ? "cursor-grab" : ""} ${drag.isDragging ? "opacity-50" : ""}`}
        >
          {mark.words || MARK_WORDS[mark.kind]}
        </button>
      ) : null}
      {competitions.map((one) => (
        <span key={one.words} className="line-clamp-2 text-[12px] text-secondary" title={one.words}>
          ◆ {one.words}
        </span>
      ))}
      <CheckMark checks={weekChecks(data, week)} />
    </th>
  );
});
