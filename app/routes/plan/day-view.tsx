import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { type Block, dateOf, daysOf, SECTION_NAMES, slotsOf } from "../../../core/plan/block";
import { type DayStave, dayStave, plannedRestS, type StaveLine } from "../../../core/plan/day-time";
import { type BlockEdit, moveSlot, orderSlots } from "../../../core/plan/edits";
import { describeBasis } from "../../../core/recipe/basis";
import { formatClock } from "../../../core/units/time";
import { Day } from "../../ui/dates";
import { Empty } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useUnit } from "../../ui/unit";
import type { useAddress } from "../../ui/use-address";
import type { PlanPage } from "../../workflows/plan/read-plan.server";
import { DayPairingStaves, pairingsIn, pairingsS } from "./day-pairing";
import { usePlanEdit } from "./plan-edits";
import { slotName } from "./slot-picker";

const REST_STEP_S = 5;
const LINE_H = 40;
const LEFT = 170;

/** Each day of a week drawn to time; order and rests are dragged, or set from the keyboard. */
export function DayView({
  data,
  address,
  mayEdit,
}: {
  data: PlanPage;
  address: ReturnType<typeof useAddress>;
  mayEdit: boolean;
}) {
  const { block } = data;
  const week = Math.min(block.weeks, Math.max(1, Number(address.get("week")) || 1));
  const edit = usePlanEdit();
  const days = daysOf(block);
  if (Object.keys({ ...block.slots, ...block.pairings }).length === 0)
    return <Empty>No slot yet, so no day has a length.</Empty>;
  return (
    <>
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <div className="w-40">
          <PageSelect
            label="Week"
            value={String(week)}
            onChange={(event) =>
              address.set("week", event.target.value === "1" ? "" : event.target.value)
            }
          >
            {Array.from({ length: block.weeks }, (_, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the number is the identity
              <option key={i} value={i + 1}>
                week {i + 1}
              </option>
            ))}
          </PageSelect>
        </div>
        <p className="text-sm text-muted">
          A block a set, gaps are rests to scale, one lifter without waiting for others.
          {mayEdit
            ? " Drag a gap for the rest, a name for the order. With the keyboard: ← → rest, Alt ↑ ↓ order."
            : ""}
        </p>
      </div>
      {days.map((day) => {
        const stave = dayStave(block, day.id, week, data.room.settings);
        const pairings = pairingsIn(data, block, day.id, week);
        return (
          <section key={day.id} aria-labelledby={`stave-${day.id}`} className="mb-5">
            <h2 id={`stave-${day.id}`}>
              {day.name}{" "}
              <span className="font-normal text-muted">
                <Day of={dateOf(block, week, day)} /> ·{" "}
                {formatClock(stave.lengthS + pairingsS(pairings))} long
              </span>
            </h2>
            <DayPairingStaves pairings={pairings} groupId={data.plan.groupId} />
            {stave.lines.length === 0 && pairings.length > 0 ? null : stave.lines.length === 0 ? (
              <p className="text-muted">Nothing in this week.</p>
            ) : (
              <Stave
                data={data}
                block={block}
                dayId={day.id}
                stave={stave}
                onEdit={mayEdit ? edit : undefined}
              />
            )}
          </section>
        );
      })}
    </>
  );
}

function restEdit(line: StaveLine, byS: number): BlockEdit | undefined {
  const { rest } = line.slot.recipe;
  const by = Math.max(-rest.leastS, Math.round(byS / REST_STEP_S) * REST_STEP_S);
  if (by === 0) return undefined;
  const value = { leastS: rest.leastS + by, mostS: Math.min(1800, rest.mostS + by) };
  return {
    words: `Rest of ${line.slot.recipe.name}: ${value.leastS} to ${value.mostS} s`,
    sets: [{ path: ["slots", line.slotId, "recipe", "rest"], value }],
  };
}

function Stave({
  data,
  block,
  dayId,
  stave,
  onEdit,
}: {
  data: PlanPage;
  block: Block;
  dayId: string;
  stave: DayStave;
  onEdit: ((edit: BlockEdit | undefined) => void) | undefined;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [pulled, setPulled] = useState<{ slotId: string; fromX: number; byS: number }>();
  const [carried, setCarried] = useState<string>();
  const width = 1000;
  const perS = (width - 10) / Math.max(60, stave.lengthS);
  const x = (seconds: number) => seconds * perS;
  const minutes = Math.ceil(stave.lengthS / 60);
  const step = minutes > 60 ? 10 : minutes > 20 ? 5 : 1;
  const marks = Array.from({ length: Math.ceil(minutes / step) }, (_, i) => i * step);
  const secondsOf = (event: PointerEvent) => {
    const box = svg.current?.getBoundingClientRect();
    return box ? ((event.clientX - box.left) / box.width) * (width / perS) : 0;
  };
  const drop = (onto: string) => {
    const row = slotsOf(block, dayId);
    const moved = row.find((one) => one.id === carried);
    const target = row.find((one) => one.id === onto);
    setCarried(undefined);
    if (!moved || !target || moved.id === target.id || moved.section !== target.section) return;
    const ids = row.filter((one) => one.section === moved.section).map((one) => one.id);
    ids.splice(ids.indexOf(moved.id), 1);
    ids.splice(ids.indexOf(target.id) + (moved.order < target.order ? 1 : 0), 0, moved.id);
    onEdit?.(orderSlots(ids, "dragged"));
  };
  const onKey = (event: KeyboardEvent, line: StaveLine) => {
    if (!onEdit) return;
    if (event.altKey && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
      event.preventDefault();
      onEdit(moveSlot(block, line.slotId, event.key === "ArrowUp" ? -1 : 1));
    } else if (event.key === "ArrowLeft" || event.key === "ArrowRight") {
      event.preventDefault();
      onEdit(restEdit(line, event.key === "ArrowLeft" ? -REST_STEP_S : REST_STEP_S));
    }
  };
  return (
    <div className="mt-1 flex overflow-x-auto">
      <ul className="shrink-0" style={{ width: LEFT }}>
        {stave.lines.map((line) => (
          <li key={line.slotId} style={{ height: LINE_H }} className="border-b border-faint pr-2">
            <button
              type="button"
              draggable={onEdit !== undefined}
              onDragStart={() => setCarried(line.slotId)}
              onDragOver={(event) => event.preventDefault()}
              onDrop={() => drop(line.slotId)}
              onKeyDown={(event) => onKey(event, line)}
              aria-label={`${slotName(data, block, line.slot)}: ${line.sets.length} sets, rest ${plannedRestS(line.slot.recipe.rest)} seconds`}
              className="block w-full cursor-grab overflow-hidden text-left leading-tight text-ellipsis whitespace-nowrap"
            >
              {slotName(data, block, line.slot)}
              <span className="block text-sm text-muted">
                {SECTION_NAMES[line.slot.section].toLowerCase()}
                {line.slot.group ? `, round ${line.slot.group}` : ""} ·{" "}
                {plannedRestS(line.slot.recipe.rest)} s
              </span>
            </button>
          </li>
        ))}
        <li className="h-5" />
      </ul>
      <div className="relative min-w-[520px] grow">
        <svg
          ref={svg}
          viewBox={`0 0 ${width} ${stave.lines.length * LINE_H}`}
          preserveAspectRatio="none"
          className="block w-full"
          style={{ height: stave.lines.length * LINE_H }}
          onPointerMove={(event) =>
            pulled && setPulled({ ...pulled, byS: secondsOf(event) - pulled.fromX })
          }
          onPointerUp={() => {
            const line = stave.lines.find((one) => one.slotId === pulled?.slotId);
            if (pulled && line) onEdit?.(restEdit(line, pulled.byS));
            setPulled(undefined);
          }}
        >
          <title>The day to time</title>
          {marks.map((minute) => (
            <g key={minute}>
              <line
                x1={x(minute * 60)}
                x2={x(minute * 60)}
                y1={0}
                y2={stave.lines.length * LINE_H}
                className="stroke-faint"
                vectorEffect="non-scaling-stroke"
              />
            </g>
          ))}
          {stave.lines.map((line, row) => (
            <StaveRow
              key={line.slotId}
              line={line}
              row={row}
              x={x}
              pulledS={pulled?.slotId === line.slotId ? pulled.byS : 0}
              onPull={
                onEdit
                  ? (event) => {
                      (event.target as Element).setPointerCapture?.(event.pointerId);
                      setPulled({ slotId: line.slotId, fromX: secondsOf(event), byS: 0 });
                    }
                  : undefined
              }
            />
          ))}
        </svg>
        <p aria-hidden="true" className="relative h-5 text-[12px] text-muted">
          {marks.map((minute) => (
            <span
              key={minute}
              className="absolute"
              style={{ left: `${(100 * x(minute * 60)) / width}%` }}
            >
              {minute}
              {minute === 0 ? " min" : ""}
            </span>
          ))}
        </p>
      </div>
    </div>
  );
}

function StaveRow({
  line,
  row,
  x,
  pulledS,
  onPull,
}: {
  line: StaveLine;
  row: number;
  x: (seconds: number) => number;
  pulledS: number;
  onPull: ((event: PointerEvent) => void) | undefined;
}) {
  const unit = useUnit();
  const base = (row + 1) * LINE_H - 4;
  const values = line.sets.map((one) => heightOf(one.set.basis));
  const most = Math.max(...values, 1);
  const fast = line.slot.recipe.aim === "speed" || line.slot.recipe.aim === "power";
  return (
    <g>
      <line
        x1={0}
        x2={1000}
        y1={base + 4}
        y2={base + 4}
        className="stroke-faint"
        vectorEffect="non-scaling-stroke"
      />
      {line.sets.map((one, i) => {
        const share = 0.35 + 0.65 * ((values[i] ?? 0) / most);
        const height = share * (LINE_H - 12);
        const shift = pulledS * i;
        const left = x(one.startS + shift);
        const wide = Math.max(2, x(one.endS - one.startS));
        return (
          <g key={one.set.key}>
            <rect x={left} y={base - height} width={wide} height={height} className="fill-primary">
              <title>
                {`Set ${one.set.number}: ${one.set.reps} at ${describeBasis(one.set.basis, unit)}, then ${one.restS} s`}
              </title>
            </rect>
            {fast ? (
              <rect
                x={left}
                y={base - height - 4}
                width={wide}
                height={2.5}
                className="fill-secondary"
              />
            ) : null}
            {one.restS > 0 ? (
              <rect
                x={x(one.endS + shift)}
                y={base - LINE_H + 8}
                width={Math.max(2, x(one.restS))}
                height={LINE_H - 8}
                className={`fill-transparent ${onPull ? "cursor-ew-resize hover:fill-wash" : ""}`}
                onPointerDown={onPull}
              />
            ) : null}
          </g>
        );
      })}
    </g>
  );
}

function heightOf(basis: StaveLine["sets"][number]["set"]["basis"]): number {
  if ("percent" in basis) return basis.percent;
  if (basis.by === "speed") return 1 / basis.mps;
  return 1;
}
