import { ArrowDown, ArrowUp, Trash2 } from "lucide-react";
import { uuidv7 } from "uuidv7";
import {
  type ComplexItem,
  ITEM_KIND_NAMES,
  ITEM_KINDS,
  type ItemLoad,
} from "../../../core/contrast/complex";
import { needsLift } from "../../../core/contrast/item-load";
import { OUTPUT_KINDS, OUTPUTS } from "../../../core/contrast/outputs";
import { PATTERN_NAMES, PATTERNS } from "../../../core/exercise/exercise";
import { LIFT_NAMES, LIFTS, type Lift } from "../../../core/profile/threshold";
import { ITEM_LOAD_NAMES, ITEM_LOADS } from "../../forms/complex";

const cell = "rounded border border-control bg-base-100 px-1 py-1 pointer-coarse:min-h-11";

/** The number of an item's load, and the load with another. */
const amountOf = (load: ItemLoad): number | undefined =>
  "percent" in load ? load.percent : "kg" in load ? load.kg : undefined;
function loadOf(by: string, amount: number): ItemLoad {
  switch (by) {
    case "percent":
    case "peak-power":
    case "body":
      return { by, percent: amount };
    case "fixed":
      return { by, kg: amount };
    case "eye":
      return { by };
    default:
      return { by: "none" };
  }
}

interface RowProps {
  item: ComplexItem;
  /** From 0, and how many there are. */
  place: number;
  of: number;
  onChange: (item: ComplexItem) => void;
  onMove: (by: number) => void;
  onRemove: () => void;
}

const itemEdit =
  ({ item, onChange }: Pick<RowProps, "item" | "onChange">) =>
  (over: Partial<ComplexItem>) =>
    onChange({ ...item, ...over });

function LoadCell({
  item,
  name,
  onChange,
}: Pick<RowProps, "item" | "onChange"> & { name: (what: string) => string }) {
  const set = itemEdit({ item, onChange });
  return (
    <td className="whitespace-nowrap">
      <select
        className={`${cell} w-32`}
        aria-label={name("Load")}
        value={item.load.by}
        onChange={(e) => set({ load: loadOf(e.target.value, amountOf(item.load) ?? 20) })}
      >
        {ITEM_LOADS.map((by) => (
          <option key={by} value={by}>
            {ITEM_LOAD_NAMES[by]}
          </option>
        ))}
      </select>{" "}
      {amountOf(item.load) !== undefined ? (
        <input
          type="number"
          className={`${cell} w-16`}
          aria-label={name("Amount")}
          min={0}
          value={amountOf(item.load)}
          onChange={(e) => set({ load: loadOf(item.load.by, Number(e.target.value)) })}
        />
      ) : null}
      {item.load.by === "none" || item.load.by === "eye" ? null : (
        <label className="mt-1 block text-sm text-muted">
          <input
            type="checkbox"
            className="mr-1"
            aria-label={name("Raise while output rises, load")}
            checked={item.seek === true}
            onChange={(e) => set({ seek: e.target.checked })}
          />
          raise while output rises
        </label>
      )}
      {needsLift(item.load) ? (
        <select
          className={`${cell} mt-1 block w-48`}
          aria-label={name("Lift")}
          value={item.of ?? ""}
          onChange={(e) => {
            const { of: _, ...rest } = item;
            const of = e.target.value as Lift | "";
            onChange(of === "" ? rest : { ...rest, of });
          }}
        >
          <option value="">of which lift?</option>
          {LIFTS.map((lift) => (
            <option key={lift} value={lift}>
              of the {LIFT_NAMES[lift].toLowerCase()}
            </option>
          ))}
        </select>
      ) : null}
    </td>
  );
}

function ItemRow(props: RowProps) {
  const { item, place, of, onChange, onMove, onRemove } = props;
  const set = itemEdit(props);
  const name = (what: string) => `${what} of item ${place + 1}`;
  return (
    <tr>
      <td>
        <input
          className={`${cell} w-40`}
          aria-label={name("Name")}
          value={item.name}
          onChange={(e) => set({ name: e.target.value })}
        />
      </td>
      <td>
        <select
          className={cell}
          aria-label={name("Kind")}
          value={item.kind}
          onChange={(e) => set({ kind: e.target.value as ComplexItem["kind"] })}
        >
          {ITEM_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {ITEM_KIND_NAMES[kind]}
            </option>
          ))}
        </select>
      </td>
      <td>
        <select
          className={`${cell} w-28`}
          aria-label={name("Pattern")}
          value={item.pattern}
          onChange={(e) => set({ pattern: e.target.value })}
        >
          {PATTERNS.map((one) => (
            <option key={one} value={one}>
              {PATTERN_NAMES[one]}
            </option>
          ))}
        </select>
      </td>
      <td className="whitespace-nowrap">
        <input
          type="number"
          className={`${cell} w-14`}
          aria-label={name("Reps")}
          min={1}
          value={item.reps}
          onChange={(e) => set({ reps: Number(e.target.value) })}
        />
        <label className="ml-2 text-sm text-muted">
          <input
            type="checkbox"
            className="mr-1"
            aria-label={name("Both sides")}
            checked={item.sides}
            onChange={(e) => set({ sides: e.target.checked })}
          />
          a side
        </label>
      </td>
      <LoadCell item={item} name={name} onChange={onChange} />
      <td>
        {place < of - 1 ? (
          <input
            type="number"
            className={`${cell} w-16`}
            aria-label={name("Gap")}
            min={0}
            max={1800}
            value={item.gapS}
            onChange={(e) => set({ gapS: Number(e.target.value) })}
          />
        ) : (
          <span className="text-muted">then the rest</span>
        )}
      </td>
      <td>
        <select
          className={cell}
          aria-label={name("Output")}
          value={item.output}
          onChange={(e) => set({ output: e.target.value as ComplexItem["output"] })}
        >
          {OUTPUT_KINDS.map((one) => (
            <option key={one} value={one}>
              {OUTPUTS[one].name}
            </option>
          ))}
        </select>
      </td>
      <td className="whitespace-nowrap !px-0">
        <button
          type="button"
          className="p-1 disabled:opacity-40"
          aria-label={`Move ${item.name} up`}
          disabled={place === 0}
          onClick={() => onMove(-1)}
        >
          <ArrowUp className="size-4" aria-hidden />
        </button>
        <button
          type="button"
          className="p-1 disabled:opacity-40"
          aria-label={`Move ${item.name} down`}
          disabled={place === of - 1}
          onClick={() => onMove(1)}
        >
          <ArrowDown className="size-4" aria-hidden />
        </button>
        <button
          type="button"
          className="p-1 disabled:opacity-40"
          aria-label={`Take out ${item.name}`}
          disabled={of === 1}
          onClick={onRemove}
        >
          <Trash2 className="size-4" aria-hidden />
        </button>
      </td>
    </tr>
  );
}

/** A list with one of its items moved by some places. */
function moved<Item>(items: readonly Item[], at: number, by: number): Item[] {
  const next = [...items];
  next.splice(at + by, 0, ...next.splice(at, 1));
  return next;
}

/** The items of a complex in their order, each with its load, its gap and what is written down. */
export function ComplexItems({
  items,
  onChange,
}: {
  items: ComplexItem[];
  onChange: (items: ComplexItem[]) => void;
}) {
  return (
    <div className="relative my-3 overflow-x-auto">
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Item</th>
            <th scope="col">Kind</th>
            <th scope="col">Pattern</th>
            <th scope="col">Reps</th>
            <th scope="col">Load</th>
            <th scope="col">Gap after, s</th>
            <th scope="col">Write down</th>
            <th scope="col">
              <span className="sr-only">Order</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {items.map((item, i) => (
            <ItemRow
              key={item.id}
              item={item}
              place={i}
              of={items.length}
              onChange={(next) => onChange(items.map((one, at) => (at === i ? next : one)))}
              onMove={(by) => onChange(moved(items, i, by))}
              onRemove={() => onChange(items.filter((_, at) => at !== i))}
            />
          ))}
        </tbody>
      </table>
      <button
        type="button"
        className="mt-1 underline"
        onClick={() =>
          onChange([
            ...items,
            {
              id: uuidv7(),
              name: "Standing jump",
              kind: "jump",
              pattern: "jump",
              reps: 3,
              load: { by: "none" },
              gapS: 20,
              output: "height",
              sides: false,
            },
          ])
        }
      >
        Add an item
      </button>
    </div>
  );
}
