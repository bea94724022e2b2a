import { useDraggable, useDroppable } from "@dnd-kit/core";
import { GripVertical } from "lucide-react";
import { memo, type ReactNode } from "react";
import { SECTION_NAMES } from "../../../../core/plan/block";
import { type BoardCell, type BoardRun, cellWords } from "../../../../core/plan/board";
import { formatKg, type MassUnit } from "../../../../core/units/mass";
import { CellPicture, type Mark } from "../../../ui/cell-picture";
import type { SlotOnBoard } from "./board-data";
import { cellId, onPhone } from "./picked";
import { usePull } from "./use-pull";

export interface RowActions {
  pick: (slotId: string, week: number) => void;
  /** The slot's first week, by so many weeks. */
  begin: (slotId: string, by: number) => void;
  /** Its cycle, by so many weeks. */
  stretch: (slotId: string, by: number) => void;
  /** The week as another one of the same slot. */
  copyWeek: (slotId: string, from: number, by: number) => void;
}

const NORMAL_HEIGHT = 15;
const PICKED_HEIGHT = 42;

/** One slot over the weeks: its name, a picture a week, and its cycle as a line. */
export const SlotRow = memo(function SlotRow({
  on,
  name,
  newSection,
  mark,
  pickedWeek,
  unit,
  mayEdit,
  act,
  columnPx,
  phoneWeek,
}: {
  on: SlotOnBoard;
  name: string;
  /** It is the first of its section on the day. */
  newSection: boolean;
  mark: Mark;
  /** The week that is picked, where it is one of this row. */
  pickedWeek: number | undefined;
  unit: MassUnit;
  mayEdit: boolean;
  act: RowActions;
  columnPx: () => number;
  phoneWeek: number;
}) {
  const { slot, row, kept } = on;
  const drag = useDraggable({ id: `slot:${slot.id}`, disabled: !mayEdit });
  const drop = useDroppable({ id: `before:${slot.id}`, disabled: !mayEdit });
  const isPicked = pickedWeek !== undefined;
  return (
    <tr
      ref={drop.setNodeRef}
      className={`relative border-t border-faint ${isPicked ? "bg-wash" : ""} ${drag.isDragging ? "opacity-50" : ""} ${drop.isOver && !drag.isDragging ? "border-t-[3px] border-t-primary" : ""}`}
    >
      <th
        scope="row"
        className={`sticky left-0 z-2 pr-2 text-left align-top leading-tight font-normal ${isPicked ? "bg-wash" : "bg-base-100"}`}
      >
        <span className="flex items-start gap-1">
          {mayEdit ? (
            <button
              type="button"
              ref={drag.setNodeRef}
              {...drag.listeners}
              aria-label={`Pull ${name} to another place`}
              title="Pull to another place; Alt with the arrow keys does the same"
              tabIndex={-1}
              className="mt-0.5 cursor-grab touch-none text-muted"
            >
              <GripVertical size={14} aria-hidden="true" />
            </button>
          ) : null}
          <button
            type="button"
            tabIndex={-1}
            className="min-w-0 flex-1 py-0.5 text-left"
            onClick={() => act.pick(slot.id, pickedWeek ?? slot.fromWeek)}
          >
            {newSection ? (
              <span className="block text-[11px] leading-none text-muted">
                {SECTION_NAMES[slot.section]}
              </span>
            ) : null}
            <span
              className={`block font-bold ${isPicked ? "" : "overflow-hidden text-ellipsis whitespace-nowrap"}`}
              title={name}
            >
              {slot.group ? <span className="font-normal">{slot.group} · </span> : null}
              {name}
            </span>
          </button>
          <CheckMark checks={on.checks} />
        </span>
      </th>
      {row.cells.map((cell) => (
        <Cell
          key={cell.week}
          slotId={slot.id}
          name={name}
          cell={cell}
          was={kept?.cells.find((one) => one.week === cell.week)}
          recipe={slot.recipe}
          checks={on.byWeek.get(cell.week) ?? []}
          mark={mark}
          cycle={cycleAt(row.runs, cell.week)}
          firstRun={row.runs[0]}
          picked={pickedWeek === cell.week}
          phoneWeek={phoneWeek}
          rowPicked={isPicked}
          unit={unit}
          mayEdit={mayEdit}
          act={act}
          columnPx={columnPx}
        />
      ))}
    </tr>
  );
});

const LEVEL = {
  refused: { sign: "▲", words: "refused" },
  warning: { sign: "▲", words: "look again" },
  note: { sign: "●", words: "note" },
} as const;

/** What stands against it, as a sign with its words. */
export function CheckMark({
  checks,
}: {
  checks: ReadonlyArray<{ level: keyof typeof LEVEL; text: string }>;
}) {
  const [first] = checks;
  if (!first) return null;
  const { sign, words } = LEVEL[first.level];
  return (
    <span
      className={`text-[12px] whitespace-nowrap ${first.level === "note" ? "text-primary" : "text-accent"}`}
      title={checks.map((one) => one.text).join("\n")}
    >
      {sign}
      <span className="sr-only">
        {words}: {checks.map((one) => one.text).join(" ")}
      </span>
    </span>
  );
}

function Cell({
  slotId,
  name,
  cell,
  was,
  recipe,
  checks,
  mark,
  cycle,
  firstRun,
  picked,
  phoneWeek,
  rowPicked,
  unit,
  mayEdit,
  act,
  columnPx,
}: {
  slotId: string;
  name: string;
  cell: BoardCell;
  was: BoardCell | undefined;
  recipe: SlotOnBoard["slot"]["recipe"];
  checks: ReadonlyArray<{ level: keyof typeof LEVEL; text: string }>;
  mark: Mark;
  cycle: CycleAt | undefined;
  firstRun: BoardRun | undefined;
  picked: boolean;
  phoneWeek: number;
  rowPicked: boolean;
  unit: MassUnit;
  mayEdit: boolean;
  act: RowActions;
  columnPx: () => number;
}) {
  const kg = (value: number) => formatKg(value, unit, 1);
  const words = cellWords(recipe, cell.wave, kg);
  const before = was && cellWords(recipe, was.wave, kg);
  const tried = before !== undefined && before !== words;
  const tone =
    cell.kind === "deload" ? "iron" : (cycle?.run.run ?? 1) % 2 === 1 ? "primary" : "secondary";
  const pull = usePull({
    axis: "x",
    size: columnPx,
    onDone: (by) => by !== 0 && act.copyWeek(slotId, cell.week, by),
  });
  return (
    <td
      className={`relative border-l border-faint ${cell.kind === "nothing" ? "bg-base-200" : ""} ${onPhone(cell.week, phoneWeek)}`}
    >
      <button
        type="button"
        id={cellId(slotId, cell.week)}
        tabIndex={picked ? 0 : -1}
        aria-current={picked ? "true" : undefined}
        aria-label={cellSentence(name, cell, words, tried ? before : undefined)}
        className={`block h-full w-full px-1 pt-0.5 pb-1.5 text-left align-bottom leading-tight ${picked ? "outline-2 -outline-offset-2 outline-base-content" : tried ? "outline-1 -outline-offset-1 outline-dashed outline-base-content" : "hover:bg-base-200"}`}
        onClick={() => act.pick(slotId, cell.week)}
      >
        <span
          className={`absolute top-0.5 right-0.5 z-1 flex gap-1 px-0.5 text-[11px] leading-none text-muted ${rowPicked ? "bg-wash" : "bg-base-100"}`}
        >
          <span>
            {cell.place ? `${cell.place.at}/${cell.place.of}` : ""}
            {cycle?.ends && cycle.run.cut ? (
              <span className="text-accent"> cut at {cycle.run.cut.at}</span>
            ) : null}
          </span>
          <CheckMark checks={checks} />
        </span>
        <CellPicture
          cell={cell}
          mark={mark}
          height={rowPicked && mark === "bar" ? PICKED_HEIGHT : NORMAL_HEIGHT}
          tone={tone}
          was={tried ? was : undefined}
        />
        <span
          className={`block text-[12px] tracking-tight ${rowPicked ? "" : "overflow-hidden text-ellipsis whitespace-nowrap"}`}
          title={words}
        >
          {words}
        </span>
        {tried && rowPicked ? (
          <span className="block overflow-hidden text-[12px] tracking-tight text-ellipsis whitespace-nowrap text-muted">
            was {before.split(" · ").at(-1)}
          </span>
        ) : null}
      </button>
      {cycle ? (
        <CycleLine
          at={cycle}
          slotId={slotId}
          name={name}
          mayPull={mayEdit && rowPicked && cycle.run === firstRun}
          act={act}
          columnPx={columnPx}
        />
      ) : null}
      {picked && mayEdit && cell.place ? (
        <Handle
          label={`Pull week ${cell.week} of ${name} over other weeks`}
          className="top-1 right-0 h-6 w-2 cursor-ew-resize"
          {...pull.handlers}
        >
          {pull.steps !== 0 ? `as week ${cell.week} to week ${cell.week + pull.steps}` : null}
        </Handle>
      ) : null}
    </td>
  );
}

function cellSentence(
  name: string,
  cell: BoardCell,
  words: string,
  was: string | undefined,
): string {
  const place = cell.place
    ? `, week ${cell.place.at} of ${cell.place.of}`
    : cell.kind === "deload"
      ? ", deload"
      : "";
  return `Week ${cell.week}, ${name}${place}: ${words}${was === undefined ? "" : `, tried, was ${was}`}`;
}

/** Something to pull; whoever has no pointer has keys and fields for the same. */
function Handle({
  label,
  className,
  children,
  ...handlers
}: {
  label: string;
  className: string;
  children?: ReactNode;
} & ReturnType<typeof usePull>["handlers"]) {
  return (
    <span
      title={label}
      aria-hidden="true"
      className={`absolute z-3 touch-none rounded-[2px] bg-base-content ${className}`}
      {...handlers}
    >
      {children ? (
        <span className="absolute top-full right-0 z-4 bg-base-content px-1 text-[12px] whitespace-nowrap text-base-100">
          {children}
        </span>
      ) : null}
    </span>
  );
}

/** Where a week lies in a time through the cycle. */
interface CycleAt {
  run: BoardRun;
  starts: boolean;
  ends: boolean;
  waits: boolean;
}

const cycleAt = (runs: readonly BoardRun[], week: number): CycleAt | undefined => {
  const run = runs.find((one) => (one.from <= week && week <= one.to) || one.waits.includes(week));
  return (
    run && {
      run,
      starts: run.from === week,
      ends: run.to === week && !run.waits.some((one) => one > week),
      waits: run.waits.includes(week),
    }
  );
};

/** The cycle under a cell: capped where a time through it starts and ends, dotted where it waits. */
function CycleLine({
  at,
  slotId,
  name,
  mayPull,
  act,
  columnPx,
}: {
  at: CycleAt;
  slotId: string;
  name: string;
  /** Its first time through may be pulled at both ends. */
  mayPull: boolean;
  act: RowActions;
  columnPx: () => number;
}) {
  const start = usePull({
    axis: "x",
    size: columnPx,
    onDone: (by) => by !== 0 && act.begin(slotId, by),
  });
  const end = usePull({
    axis: "x",
    size: columnPx,
    onDone: (by) => by !== 0 && act.stretch(slotId, by),
  });
  const { run, starts, ends, waits } = at;
  const tone = run.run % 2 === 1 ? "border-primary" : "border-secondary";
  return (
    <span
      aria-hidden="true"
      className={`absolute bottom-0 h-[5px] border-b-2 ${waits ? "border-dotted border-iron" : tone} ${starts ? "left-0.5 border-l-2" : "left-0"} ${ends ? "right-0.5 border-r-2" : "right-0"}`}
    >
      {mayPull && starts ? (
        <Handle
          label={`Pull: ${name} begins earlier or later`}
          className="-bottom-1 -left-1 h-4 w-2.5 cursor-ew-resize"
          {...start.handlers}
        >
          {start.steps !== 0 ? `from week ${run.from + start.steps}` : null}
        </Handle>
      ) : null}
      {mayPull && ends ? (
        <Handle
          label={`Pull: the cycle of ${name} is longer or shorter`}
          className="-right-1 -bottom-1 h-4 w-2.5 cursor-ew-resize"
          {...end.handlers}
        >
          {end.steps === 0
            ? null
            : `${end.steps > 0 ? "+" : "−"}${Math.abs(end.steps)} ${Math.abs(end.steps) === 1 ? "week" : "weeks"}`}
        </Handle>
      ) : null}
    </span>
  );
}
