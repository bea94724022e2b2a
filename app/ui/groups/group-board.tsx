import {
  DndContext,
  type DragEndEvent,
  PointerSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { type KeyboardEvent, type ReactNode, useEffect, useRef } from "react";
import { moveLifter, type Step, stepLifter } from "../../../core/racks/by-hand";
import type { GroupLifter, GroupRack, RackGroup } from "../../../core/racks/problem";
import { formatKg, type MassUnit, plainNumber } from "../../../core/units/mass";

/** Pixels that a finger or pointer moves before it drags: a tap stays one. */
const DRAG_FROM_PX = 6;

const STEPS: Readonly<Record<string, Step>> = Object.fromEntries([
  ["ArrowUp", "earlier"],
  ["ArrowDown", "later"],
  ["ArrowLeft", "before"],
  ["ArrowRight", "after"],
]);

/** Groups at their racks in turn: dragged, or moved by the arrow keys. */
export function GroupBoard({
  lifters,
  racks,
  groups,
  unit,
  change,
  under,
}: {
  lifters: readonly GroupLifter[];
  racks: readonly GroupRack[];
  groups: readonly RackGroup[];
  unit: MassUnit;
  change: (groups: RackGroup[]) => void;
  /** What stands under a rack's group. */
  under: (rackId: string) => ReactNode;
}) {
  const byId = new Map(lifters.map((one) => [one.id, one]));
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_FROM_PX } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 150, tolerance: DRAG_FROM_PX } }),
  );
  const focus = useRef<string>(undefined);
  const board = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: after each move the moved one keeps the focus.
  useEffect(() => {
    if (focus.current === undefined) return;
    board.current?.querySelector<HTMLElement>(`[data-lifter="${focus.current}"]`)?.focus();
    focus.current = undefined;
  }, [groups]);
  const rackIds = racks.map((rack) => rack.id);
  const end = ({ active, over }: DragEndEvent) => {
    if (!over) return;
    const [kind, id = ""] = String(over.id).split(":");
    const moved = moveLifter(
      groups,
      String(active.id),
      kind === "rack" ? { rackId: id } : { beforeId: id },
    );
    if (moved) change(moved);
  };
  const key = (event: KeyboardEvent, id: string) => {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    const moved = stepLifter(groups, rackIds, id, step);
    if (!moved) return;
    focus.current = id;
    change(moved);
  };
  return (
    <DndContext sensors={sensors} onDragEnd={end}>
      <div
        ref={board}
        className="grid grid-cols-[repeat(auto-fill,minmax(178px,1fr))] gap-x-5 gap-y-4"
      >
        {racks.map((rack) => {
          const order = groups.find((one) => one.rackId === rack.id)?.order ?? [];
          return (
            <Rack key={rack.id} rack={rack} count={order.length}>
              <ol>
                {order.map((id, i) => (
                  <Chip
                    key={id}
                    id={id}
                    turn={i + 1}
                    lifter={byId.get(id)}
                    kind={rack.kind}
                    unit={unit}
                    onKeyDown={(event) => key(event, id)}
                  />
                ))}
              </ol>
              {order.length > 0 ? under(rack.id) : <p className="text-sm text-muted">not used</p>}
            </Rack>
          );
        })}
      </div>
    </DndContext>
  );
}

function Rack({ rack, count, children }: { rack: GroupRack; count: number; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: `rack:${rack.id}` });
  return (
    <section
      ref={setNodeRef}
      aria-label={`Rack ${rack.name}, ${count} ${count === 1 ? "lifter" : "lifters"}`}
      className={`border-t-2 pt-1 ${isOver ? "border-primary" : "border-base-content"}`}
    >
      <h3 className="font-bold">Rack {rack.name}</h3>
      {children}
    </section>
  );
}

function Chip({
  id,
  turn,
  lifter,
  kind,
  unit,
  onKeyDown,
}: {
  id: string;
  turn: number;
  lifter: GroupLifter | undefined;
  kind: string;
  unit: MassUnit;
  onKeyDown: (event: KeyboardEvent) => void;
}) {
  const { attributes, listeners, setNodeRef: drag, transform, isDragging } = useDraggable({ id });
  const { setNodeRef: drop, isOver } = useDroppable({ id: `lifter:${id}` });
  const set = lifter?.settings[kind]?.[0];
  const stands = [
    lifter?.loadKg === undefined ? undefined : formatKg(lifter.loadKg, unit, 1),
    set?.hooksCm === undefined ? undefined : `hooks ${plainNumber(set.hooksCm, 0)}`,
    set?.seat ? `box ${plainNumber(set.seat.pinCm, 0)}` : undefined,
  ].filter((one) => one !== undefined);
  return (
    <li ref={drop} className={isOver ? "border-t-2 border-primary" : ""}>
      <button
        type="button"
        {...attributes}
        {...listeners}
        ref={drag}
        data-lifter={id}
        aria-roledescription="lifter; arrow keys move"
        onKeyDown={onKeyDown}
        className={`grid min-h-11 w-full cursor-grab touch-none grid-cols-[1.4rem_1fr] border-b border-faint py-1 text-left leading-tight ${isDragging ? "relative z-10 bg-base-200 opacity-90" : ""}`}
        style={
          transform
            ? { transform: `translate3d(${transform.x}px, ${transform.y}px, 0)` }
            : undefined
        }
      >
        <span className="text-muted">{turn}</span>
        <span className="min-w-0">
          <span className="block truncate">{lifter?.name}</span>
          <span className="block text-sm text-muted">{stands.join(" · ")}</span>
        </span>
      </button>
    </li>
  );
}
