import {
  DndContext,
  PointerSensor,
  pointerWithin,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  type CSSProperties,
  memo,
  useCallback,
  useDeferredValue,
  useMemo,
  useRef,
  useState,
} from "react";
import { type Block, daysOf, markOf } from "../../../../core/plan/block";
import { dayStave } from "../../../../core/plan/day-time";
import type { BlockEdit } from "../../../../core/plan/edits";
import type { Lifter } from "../../../../core/prescribe/lifter";
import { daysBetween, formatClock, type LocalDate } from "../../../../core/units/time";
import { markFor } from "../../../ui/cell-picture";
import { Empty } from "../../../ui/page";
import { useUnit } from "../../../ui/unit";
import { useIsPhone } from "../../../ui/use-is-phone";
import { useKeys } from "../../../ui/use-keys";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { usePlanEdit } from "../plan-edits";
import type { useRecipeKeeping } from "../recipe-keeping";
import { freshId } from "../setup-edit";
import { slotName } from "../slot-picker";
import { type DayOnBoard, useBoard, useWeekSums } from "./board-data";
import { BoardHeads } from "./board-heads";
import { type RowActions, SlotRow } from "./board-row";
import { BoardTotals } from "./board-totals";
import type { Picked } from "./picked";
import { useBoardHands } from "./use-board-hands";
import { useBoardKeys } from "./use-board-keys";
import { WeekDetails } from "./week-details";

/** Names are narrower on a phone; a week is never. */
const LEAST_NAME_PX = 120;
const LEAST_WEEK_PX = 74;

/**
 * The block on one screen: weeks across, days, sections and slots down, a picture a cell. What is done
 * by hand here is an edit of the plan like any other.
 */
export const BoardView = memo(function BoardView({
  data,
  block,
  picked,
  pick,
  recipe,
  athlete,
  mayEdit,
}: {
  data: PlanPage;
  /** With the recipe that is being tried. */
  block: Block;
  picked: Picked;
  pick: (next: Picked) => void;
  /** Draws a recipe of the picked slot everywhere, without keeping it. */
  recipe: ReturnType<typeof useRecipeKeeping>;
  athlete: Lifter | undefined;
  mayEdit: boolean;
}) {
  const unit = useUnit();
  const edit = usePlanEdit();
  const days = useBoard(data, block);
  // The rows first, what they come to after them.
  const summed = useDeferredValue(block);
  const weeks = useWeekSums(data, summed, athlete);
  const tried = summed !== data.block;
  const keptWeeks = useWeekSums(data, data.block, athlete);
  const [asked, ask] = useState<{ week: number; of: Picked }>();
  const inHand = "week" in picked ? picked.week : weekOf(block, data.today);
  // What is picked since comes into sight.
  const phoneWeek = Math.min(block.weeks, asked?.of === picked ? asked.week : inHand);
  const drawn = useMemo(() => ({ ...data, block }), [data, block]);
  const frame = useRef<HTMLDivElement>(null);
  const columnPx = useCallback(
    () => frame.current?.querySelector<HTMLElement>("tbody td")?.offsetWidth ?? 0,
    [],
  );
  const { act, onDragEnd } = useBoardHands({ data, pick });
  const rows = days.flatMap((day) => day.slots.map((one) => one.slot.id));
  const cell = picked.kind === "cell" ? picked : undefined;
  const onKeyDown = useBoardKeys({ data, block, rows, cell, pick, act, recipe, mayEdit });
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));

  useKeys(
    {
      n: () => {
        const slot = cell && block.slots[cell.slotId];
        const day = slot?.dayId ?? days[0]?.id;
        if (day !== undefined)
          pick({
            kind: "new",
            dayId: day,
            section: slot?.section ?? "main",
          });
      },
    },
    mayEdit,
  );

  if (days.length === 0)
    return (
      <Empty
        action={
          mayEdit ? (
            <button
              type="button"
              className="btn btn-primary"
              onClick={() => void edit(newDay(data.block))}
            >
              Add a day
            </button>
          ) : undefined
        }
      >
        No day yet. A day holds slots; a slot is a lift with its recipe.
      </Empty>
    );
  return (
    <DndContext sensors={sensors} collisionDetection={pointerWithin} onDragEnd={onDragEnd}>
      <PhoneWeeks block={block} shown={phoneWeek} show={(week) => ask({ week, of: picked })} />
      <div ref={frame} className="-mx-4 overflow-auto pl-4 lg:max-h-[calc(100dvh-11.2rem)]">
        <table
          aria-label="The block, weeks across"
          className="w-full table-fixed border-collapse sm:min-w-(--least)"
          style={{ "--least": `${LEAST_NAME_PX + LEAST_WEEK_PX * block.weeks}px` } as CSSProperties}
          onKeyDown={onKeyDown}
        >
          <colgroup>
            <col className="w-[55%] sm:w-[120px] md:w-[186px]" />
          </colgroup>
          <BoardHeads
            data={drawn}
            blockPicked={picked.kind === "block"}
            pickedWeek={picked.kind === "week" ? picked.week : undefined}
            phoneWeek={phoneWeek}
            mayEdit={mayEdit}
            pick={pick}
          />
          {days.map((day) => (
            <BoardDay
              key={day.id}
              data={data}
              block={block}
              day={day}
              picked={ofDay(picked, day) ? picked : undefined}
              pick={pick}
              columnPx={columnPx}
              phoneWeek={phoneWeek}
              act={act}
              unit={unit}
              mayEdit={mayEdit}
            />
          ))}
          <BoardTotals
            data={data}
            weeks={weeks}
            kept={tried ? keptWeeks : undefined}
            athleteName={athlete?.name}
            phoneWeek={phoneWeek}
          />
        </table>
      </div>
      <p className="mt-1 text-[12px] text-muted">
        A bar a set: width its reps, height its % of the max. Hollow top: bands or chains. Cut foot:
        paused. Slanted: lowered slowly. Arrow: up to a top set. The line under a row is one time
        through its cycle.
      </p>
      {mayEdit ? (
        <button type="button" className="btn mt-2" onClick={() => void edit(newDay(data.block))}>
          Add a day
        </button>
      ) : null}
      <WeekDetails data={drawn} weeks={weeks} />
    </DndContext>
  );
});

/** The block as a strip of its weeks, of which a phone's board shows one. */
function PhoneWeeks({
  block,
  shown,
  show,
}: {
  block: Block;
  shown: number;
  show: (week: number) => void;
}) {
  return (
    <fieldset className="-mx-4 mb-2 flex overflow-x-auto px-4 sm:hidden">
      <legend className="sr-only">Week that is shown</legend>
      {Array.from({ length: block.weeks }, (_, i) => i + 1).map((week) => {
        const mark = markOf(block, week);
        return (
          <button
            key={week}
            type="button"
            aria-pressed={week === shown}
            className={`min-h-11 min-w-11 shrink-0 border-b-2 px-1 leading-tight ${week === shown ? "border-base-content font-bold" : "border-faint text-muted"}`}
            onClick={() => show(week)}
          >
            <span className="sr-only">Week </span>
            {week}
            {mark ? <span className="block text-[12px]">{mark.kind}</span> : null}
          </button>
        );
      })}
    </fieldset>
  );
}

/** The week of a block in which a day lies; the first before it, the last after it. */
function weekOf(block: Block, today: LocalDate): number {
  const days = daysBetween(block.startDate, today);
  return Math.max(1, Math.min(block.weeks, Math.floor(days / 7) + 1));
}

/** A day more, on the first weekday that has none. */
function newDay(block: Block): BlockEdit {
  const used = daysOf(block).map((day) => day.offset);
  const offset = [0, 2, 4, 1, 3, 5, 6].find((one) => !used.includes(one)) ?? 6;
  return {
    words: "Day added",
    sets: [{ path: ["days", freshId("d")], value: { name: `Day ${used.length + 1}`, offset } }],
  };
}

const BoardDay = memo(function BoardDay({
  data,
  block,
  day,
  picked,
  pick,
  columnPx,
  phoneWeek,
  act,
  unit,
  mayEdit,
}: {
  data: PlanPage;
  block: Block;
  day: DayOnBoard;
  /** What is in hand, where it is the day or one of its cells. */
  picked: Picked | undefined;
  pick: (next: Picked) => void;
  columnPx: () => number;
  phoneWeek: number;
  act: RowActions;
  unit: "kg" | "lb";
  mayEdit: boolean;
}) {
  const { settings } = data.room;
  const longest = useMemo(
    () =>
      Math.max(
        0,
        ...Array.from(
          { length: block.weeks },
          (_, i) => dayStave(block, day.id, i + 1, settings).lengthS,
        ),
      ),
    [block, day.id, settings],
  );
  const isPicked = picked?.kind === "day";
  const phone = useIsPhone();
  return (
    <tbody aria-label={day.name} className="border-b border-control">
      <tr className={isPicked ? "bg-wash" : "bg-base-200"}>
        <th
          scope="rowgroup"
          colSpan={phone ? 2 : block.weeks + 1}
          className="text-left font-normal"
        >
          <span className="flex items-baseline gap-2">
            <button
              type="button"
              className="sticky left-0 py-0.5 pr-2 text-left font-bold"
              onClick={() => pick({ kind: "day", dayId: day.id })}
            >
              {day.name}{" "}
              <span className="font-normal text-muted">
                {day.slots.length > 0 ? `up to ${formatClock(longest)}` : "nothing yet"}
              </span>
            </button>
            {day.pairings.map((pairing) => (
              <span key={pairing.id} className="text-sm text-muted">
                pairing{" "}
                <b className="text-base-content">
                  {data.complexNames.find((one) => one.id === pairing.complexId)?.name ??
                    "not in the library any more"}
                </b>{" "}
                from week {pairing.fromWeek}
              </span>
            ))}
            {mayEdit ? (
              <DayEnd
                day={day}
                add={() =>
                  pick({
                    kind: "new",
                    dayId: day.id,
                    section: day.slots.at(-1)?.slot.section ?? "main",
                  })
                }
              />
            ) : null}
          </span>
        </th>
      </tr>
      {day.slots.map((on, i) => (
        <SlotRow
          key={on.slot.id}
          on={on}
          name={slotName(data, block, on.slot)}
          newSection={day.slots[i - 1]?.slot.section !== on.slot.section}
          mark={markFor(
            on.slot.recipe,
            data.exercises.find(
              (one) => on.slot.work.kind === "exercise" && one.id === on.slot.work.exerciseIds[0],
            )?.pattern,
          )}
          pickedWeek={
            picked?.kind === "cell" && picked.slotId === on.slot.id ? picked.week : undefined
          }
          unit={unit}
          mayEdit={mayEdit}
          act={act}
          columnPx={columnPx}
          phoneWeek={phoneWeek}
        />
      ))}
    </tbody>
  );
});

/** Whether what is in hand is a day, or a cell of it. */
const ofDay = (picked: Picked, day: DayOnBoard): boolean =>
  picked.kind === "day"
    ? picked.dayId === day.id
    : picked.kind === "cell" && day.slots.some((one) => one.slot.id === picked.slotId);

function DayEnd({ day, add }: { day: DayOnBoard; add: () => void }) {
  const drop = useDroppable({ id: `end:${day.id}` });
  return (
    <button
      type="button"
      ref={drop.setNodeRef}
      className={`ml-auto px-2 text-sm underline ${drop.isOver ? "bg-primary text-primary-content" : ""}`}
      aria-label={`Put a slot on ${day.name}`}
      onClick={add}
    >
      + slot
    </button>
  );
}
