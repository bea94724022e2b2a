import { type KeyboardEvent, useMemo, useRef } from "react";
import { Link } from "react-router";
import { loadableTable } from "../../../../core/barload/loadable";
import type { PlateStock } from "../../../../core/barload/loading-gear";
import { stepsInZone } from "../../../../core/barload/zone";
import { type GearItem, ofKind } from "../../../../core/gear/kinds";
import { racksOfItems } from "../../../../core/gear/room";
import { pairsOf, sameSize } from "../../../../core/gear/shared-plates";
import { PLATE_DIAMETER_M } from "../../../../core/track/heights";
import {
  formatMass,
  grains,
  grainsToKg,
  kgToGrains,
  massIn,
  plainNumber,
} from "../../../../core/units/mass";
import { useUnit } from "../../../ui/unit";
import { type RackItem, useRackPlates } from "./use-rack-plates";

/** The loads that most sets of this work lie in, kg: their steps are drawn. */
const ZONE = { fromKg: 40, toKg: 80 };
/** A step that most recipes round to, kg. */
const USUAL_STEP_KG = 2.5;

/** One rack to scale: upright with its holes, the plates on their pegs, and the steps they build. */
export function RackDrawing({
  rack,
  items,
  chosen,
  mayEdit,
  onTouched,
}: {
  rack: RackItem;
  items: readonly GearItem[];
  chosen: boolean;
  mayEdit: boolean;
  /** Something was changed here: an undo goes here first. */
  onTouched: (undo: () => boolean) => void;
}) {
  const unit = useUnit();
  const [store] = ofKind(items, "store");
  const { plates, hang, undo } = useRackPlates(rack, unit, store);
  const latest = useRef(undo);
  latest.current = undo;
  const change = (of: PlateStock, pairs: number) => {
    if (hang(of, pairs)) onTouched(() => latest.current());
  };
  const bar = ofKind(items, "bar").find((one) => one.name === rack.values.bar);
  // A size that is only among the shared has its peg here too.
  const ordered = useMemo(() => {
    const shared = (store?.values.plates ?? []).filter(
      (one) => !plates.some((own) => sameSize(own, one)),
    );
    return [...plates, ...shared.map((one) => ({ ...one, pairs: 0 }))].sort(
      (a, b) => grains(a.mass) - grains(b.mass),
    );
  }, [plates, store]);
  return (
    <section
      aria-label={`Rack ${rack.name}, drawn`}
      className={`min-w-0 border-l border-rule p-1.5 first:border-l-0 ${chosen ? "bg-wash outline-2 outline-primary" : ""}`}
    >
      <p className="flex items-baseline gap-2">
        <Link
          to={`?item=${rack.id}`}
          replace
          preventScrollReset
          className="text-[1.15rem] font-bold hover:underline"
        >
          {rack.name}
        </Link>
        <span className="truncate text-sm text-muted">
          {bar ? `${formatMass(bar.values.mass)} bar` : `no bar "${rack.values.bar}"`}
        </span>
      </p>
      <div className="flex items-end gap-1">
        <Upright rack={rack} />
        <Pegs plates={ordered} rackName={rack.name} mayEdit={mayEdit} onChange={change} />
      </div>
      <Steps rack={rack} plates={ordered} items={items} />
    </section>
  );
}

const UPRIGHT = { height: 170, topCm: 180 };

/** Hooks to the right, safeties to the left, 1 px a cm. */
function Upright({ rack }: { rack: RackItem }) {
  const { hooks = [], safeties = [] } = rack.values;
  const y = (cm: number) => UPRIGHT.height - (cm / UPRIGHT.topCm) * UPRIGHT.height;
  return (
    <svg
      role="img"
      aria-label={`Hooks at ${hooks.join(", ") || "no known heights"} cm; safeties at ${safeties.join(", ") || "no known heights"} cm.`}
      viewBox={`4 0 26 ${UPRIGHT.height}`}
      className="block h-[170px] w-[26px] shrink-0"
    >
      <rect
        x={14}
        y={2}
        width={6}
        height={UPRIGHT.height - 2}
        className="fill-base-200 stroke-control"
      />
      {hooks.map((cm) => (
        <line
          key={cm}
          x1={20}
          x2={27}
          y1={y(cm)}
          y2={y(cm)}
          strokeWidth={2}
          className="stroke-base-content"
        />
      ))}
      {safeties.map((cm) => (
        <line
          key={cm}
          x1={6}
          x2={14}
          y1={y(cm)}
          y2={y(cm)}
          strokeWidth={2}
          className="stroke-secondary"
        />
      ))}
    </svg>
  );
}

/** Width of a plate as drawn, of its thickness; and the tallest's height, px. */
const THICK = 0.13;
const TALLEST = 30;
const LARGE_KG = 20;

/** A plate is as tall as Gear says it is across, else as its mass lets one guess. */
function plateHeight({ mass, diameterMm }: PlateStock): number {
  const share =
    diameterMm === undefined
      ? Math.cbrt(grainsToKg(grains(mass)) / LARGE_KG)
      : diameterMm / 1000 / PLATE_DIAMETER_M;
  return TALLEST * Math.min(1, share);
}

/** How many pairs a key asks for: plus, minus, a digit, or none at all. */
function pairsByKey(key: string, now: number): number | undefined {
  if (key === "+") return now + 1;
  if (key === "-") return Math.max(0, now - 1);
  if (key === "Delete") return 0;
  return /^\d$/.test(key) ? Number(key) : undefined;
}

function Pegs({
  plates,
  rackName,
  mayEdit,
  onChange,
}: {
  plates: readonly PlateStock[];
  rackName: string;
  mayEdit: boolean;
  onChange: (of: PlateStock, pairs: number) => void;
}) {
  const list = useRef<HTMLUListElement>(null);
  const step = (from: Element, by: number) => {
    const all = [...(list.current?.querySelectorAll<HTMLButtonElement>("[data-peg]") ?? [])];
    const next = all[all.indexOf(from as HTMLButtonElement) + by];
    next?.focus();
  };
  const onKey = (event: KeyboardEvent<HTMLButtonElement>, of: PlateStock) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const pairs = pairsByKey(event.key, of.pairs);
    const by = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (pairs === undefined && by === 0) return;
    event.preventDefault();
    event.stopPropagation();
    if (pairs === undefined) step(event.currentTarget, by);
    else onChange(of, pairs);
  };
  const pounds = plates.some((one) => one.mass.unit === "lb");
  return (
    <ul ref={list} className="min-w-0 flex-1">
      {plates.map((one, i) => {
        const name = formatMass(one.mass);
        return (
          <li key={name} className="flex items-center border-b border-faint">
            <button
              type="button"
              data-peg
              tabIndex={i === 0 ? 0 : -1}
              disabled={!mayEdit}
              onClick={() => onChange(one, one.pairs - 1)}
              onKeyDown={(event) => onKey(event, one)}
              aria-label={`${name}, ${one.pairs} ${one.pairs === 1 ? "pair" : "pairs"} at rack ${rackName}: take a pair off; plus hangs one on`}
              title={mayEdit ? `${name}: take a pair off` : undefined}
              className={`flex min-h-8 min-w-0 flex-1 items-center gap-1.5 text-left hover:bg-base-200 pointer-coarse:min-h-11 ${one.pairs === 0 ? "text-accent" : ""}`}
            >
              <span
                className={`${pounds ? "w-[4.2rem]" : "w-[3rem]"} shrink-0 text-sm whitespace-nowrap`}
              >
                <b>{plainNumber(one.mass.amount, 2)}</b>
                {one.mass.unit === "lb" ? " lb" : ""}{" "}
                <span className={one.pairs === 0 ? "" : "text-muted"}>×{one.pairs}</span>
              </span>
              <PlatePairs plate={one} />
            </button>
            {mayEdit ? (
              <button
                type="button"
                tabIndex={-1}
                onClick={() => onChange(one, one.pairs + 1)}
                aria-label={`Hang a pair of ${name} on rack ${rackName}`}
                title={`${name}: hang a pair on`}
                className="grid size-7 shrink-0 place-items-center border border-dashed border-control text-muted hover:bg-base-200 pointer-coarse:size-11"
              >
                +
              </button>
            ) : null}
          </li>
        );
      })}
    </ul>
  );
}

/** Pairs of one size, side by side. */
export function PlatePairs({ plate }: { plate: PlateStock }) {
  const shown = Math.min(5, plate.pairs);
  const width = Math.max(2, plate.thicknessMm * THICK);
  const height = plateHeight(plate);
  const pairWidth = 2 * width + 3;
  return (
    <svg aria-hidden="true" width={shown * pairWidth + 2} height={height} className="shrink-0">
      {Array.from({ length: 2 * shown }, (_, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: the place is the identity
          key={i}
          x={Math.floor(i / 2) * pairWidth + (i % 2) * (width + 0.8)}
          y={0}
          width={width}
          height={height}
          rx={1}
          className="fill-iron"
        />
      ))}
    </svg>
  );
}

/** The totals that the rack builds where most loads lie: a tick each, and what one pair more would do. */
function Steps({
  rack,
  plates,
  items,
}: {
  rack: RackItem;
  plates: readonly PlateStock[];
  items: readonly GearItem[];
}) {
  const unit = useUnit();
  const built = useMemo(() => totalsOf(rack, plates, items), [rack, plates, items]);
  const better = useMemo(() => {
    if (!built || built.widestKg <= USUAL_STEP_KG + 1e-9) return undefined;
    const more = plates.flatMap((one) => {
      const next = plates.map((two) => (two === one ? { ...two, pairs: two.pairs + 1 } : two));
      const found = totalsOf(rack, next, items);
      return found && found.widestKg < built.widestKg - 1e-9 ? [{ one, found }] : [];
    });
    return more.sort((a, b) => a.found.widestKg - b.found.widestKg)[0];
  }, [built, rack, plates, items]);
  if (!built) return <p className="text-sm text-accent">Builds nothing: its bar is not here.</p>;
  const show = (kg: number) => plainNumber(massIn(kgToGrains(kg), unit), 1);
  const x = (kg: number) => 2 + ((kg - ZONE.fromKg) / (ZONE.toKg - ZONE.fromKg)) * 146;
  const rough = built.widestKg > USUAL_STEP_KG + 1e-9;
  return (
    <div className="mt-1 text-sm">
      <p className="flex justify-between gap-2">
        <b className="whitespace-nowrap">{built.totals.length} totals</b>
        <span className="whitespace-nowrap text-muted">
          {show(built.totals[0] ?? 0)} to {show(built.totals.at(-1) ?? 0)}
        </span>
      </p>
      <svg
        role="img"
        aria-label={`Between ${show(ZONE.fromKg)} and ${show(ZONE.toKg)} ${unit} this rack builds ${built.zone.map(show).join(", ") || "nothing"}.`}
        viewBox="0 0 150 12"
        className="block w-full"
      >
        <line x1={0} x2={150} y1={11} y2={11} className="stroke-[var(--color-base-300)]" />
        {built.zone.map((kg) => (
          <rect key={kg} x={x(kg) - 1} y={1} width={2} height={9} className="fill-primary" />
        ))}
      </svg>
      <p className={rough ? "font-medium text-secondary" : "text-muted"}>
        {rough ? "▲ " : ""}steps of {show(built.widestKg)} {unit}
        {better
          ? `; one ${formatMass(better.one.mass)} pair more${isShared(items, better.one) ? ", which is among the shared" : ""}: ${show(better.found.widestKg)}`
          : ""}
      </p>
    </div>
  );
}

const isShared = (items: readonly GearItem[], size: PlateStock) =>
  ofKind(items, "store").some((one) => pairsOf(one.values.plates, size) > 0);

function totalsOf(rack: RackItem, plates: readonly PlateStock[], items: readonly GearItem[]) {
  const withPlates = items.map((one) =>
    one.kind === "rack" && one.name === rack.name
      ? { ...one, values: { ...one.values, plates: [...plates] } }
      : one,
  );
  const facts = racksOfItems(withPlates).find((one) => String(one.number) === rack.name);
  if (!facts) return undefined;
  const totals = loadableTable(facts.gear).totals.map(grainsToKg);
  const { zoneKg: zone, widestKg } = stepsInZone(totals, ZONE);
  return { totals, zone, widestKg };
}
