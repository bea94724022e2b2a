import { ArrowDown, ArrowUp, Trash2 } from "lucide-react";
import { uuidv7 } from "uuidv7";
import {
  type ComplexItem,
  ITEM_KIND_NAMES,
  ITEM_KINDS,
  type ItemLoad,
  OUTPUT_KINDS,
  OUTPUTS,
} from "../../../core/contrast/complex";
import { needsLift } from "../../../core/contrast/item-load";
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

/** The items of a complex in their order, each with its load, its gap and what is written down. */
export function ComplexItems({
  items,
  onChange,
}: {
  items: ComplexItem[];
  onChange: (items: ComplexItem[]) => void;
}) {
  const set = (at: number, over: Partial<ComplexItem>) =>
    onChange(items.map((one, i) => (i === at ? { ...one, ...over } : one)));
  const move = (at: number, by: number) => {
    const next = [...items];
    const [one] = next.splice(at, 1);
    if (one) next.splice(at + by, 0, one);
    onChange(next);
  };
  return (
    <div className="my-3 overflow-x-auto">
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
          {items.map((item, i) => {
            const name = (what: string) => `${what} of item ${i + 1}`;
            return (
              <tr key={item.id}>
                <td>
                  <input
                    className={`${cell} w-40`}
                    aria-label={name("Name")}
                    value={item.name}
                    onChange={(e) => set(i, { name: e.target.value })}
                  />
                </td>
                <td>
                  <select
                    className={cell}
                    aria-label={name("Kind")}
                    value={item.kind}
                    onChange={(e) => set(i, { kind: e.target.value as ComplexItem["kind"] })}
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
                    onChange={(e) => set(i, { pattern: e.target.value })}
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
                    onChange={(e) => set(i, { reps: Number(e.target.value) })}
                  />
                  <label className="ml-2 text-sm text-muted">
                    <input
                      type="checkbox"
                      className="mr-1"
                      aria-label={name("Both sides")}
                      checked={item.sides}
                      onChange={(e) => set(i, { sides: e.target.checked })}
                    />
                    a side
                  </label>
                </td>
                <td className="whitespace-nowrap">
                  <select
                    className={`${cell} w-32`}
                    aria-label={name("Load")}
                    value={item.load.by}
                    onChange={(e) =>
                      set(i, { load: loadOf(e.target.value, amountOf(item.load) ?? 20) })
                    }
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
                      onChange={(e) =>
                        set(i, { load: loadOf(item.load.by, Number(e.target.value)) })
                      }
                    />
                  ) : null}
                  {item.load.by === "none" || item.load.by === "eye" ? null : (
                    <label className="mt-1 block text-sm text-muted">
                      <input
                        type="checkbox"
                        className="mr-1"
                        aria-label={name("Raise while output rises, load")}
                        checked={item.seek === true}
                        onChange={(e) => set(i, { seek: e.target.checked })}
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
                        onChange(
                          items.map((one, at) =>
                            at === i
                              ? e.target.value === ""
                                ? rest
                                : { ...rest, of: e.target.value as Lift }
                              : one,
                          ),
                        );
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
                <td>
                  {i < items.length - 1 ? (
                    <input
                      type="number"
                      className={`${cell} w-16`}
                      aria-label={name("Gap")}
                      min={0}
                      max={1800}
                      value={item.gapS}
                      onChange={(e) => set(i, { gapS: Number(e.target.value) })}
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
                    onChange={(e) => set(i, { output: e.target.value as ComplexItem["output"] })}
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
                    disabled={i === 0}
                    onClick={() => move(i, -1)}
                  >
                    <ArrowUp className="size-4" aria-hidden />
                  </button>
                  <button
                    type="button"
                    className="p-1 disabled:opacity-40"
                    aria-label={`Move ${item.name} down`}
                    disabled={i === items.length - 1}
                    onClick={() => move(i, 1)}
                  >
                    <ArrowDown className="size-4" aria-hidden />
                  </button>
                  <button
                    type="button"
                    className="p-1 disabled:opacity-40"
                    aria-label={`Take out ${item.name}`}
                    disabled={items.length === 1}
                    onClick={() => onChange(items.filter((_, at) => at !== i))}
                  >
                    <Trash2 className="size-4" aria-hidden />
                  </button>
                </td>
              </tr>
            );
          })}
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
