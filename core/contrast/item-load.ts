import { describeSide, loadBar, stepFrom } from "../barload/load";
import type { LoadingGear, RoundingMode } from "../barload/loading-gear";
import { describeRefusal, loadingWorking } from "../barload/loading-words";
import { LIFT_NAMES } from "../profile/threshold";
import {
  BASIS_REFUSALS,
  type BasisFacts,
  type BasisLoad,
  type BasisRefusal,
  basisLoad,
  basisText,
} from "../recipe/basis";
import {
  formatKg,
  formatMass,
  kgToGrains,
  type MassUnit,
  massIn,
  massKg,
  plainNumber,
} from "../units/mass";
import type { Working, WorkingLine } from "../units/working";
import { readIn, written } from "../units/written";
import type { Complex, ComplexItem, ItemKind, ItemLoad } from "./complex";
import { DIRECTION_NAMES } from "./complex";

/** An item's load in a week of a block: the light item moves by the complex's direction. */
export function loadInWeek(complex: Complex, item: ComplexItem, week: number): ItemLoad {
  const sign = complex.direction === "load" ? 1 : complex.direction === "speed" ? -1 : 0;
  const by = sign * complex.weekStep * (week - 1);
  if (item.kind !== "jump" || by === 0) return item.load;
  switch (item.load.by) {
    case "percent":
    case "body":
    case "peak-power":
      return { ...item.load, percent: Math.max(0, item.load.percent + by) };
    case "fixed":
      return { ...item.load, kg: Math.max(0, item.load.kg + by) };
    default:
      return item.load;
  }
}

/** Bases that are of a lift's max, line or power. */
export const needsLift = (load: ItemLoad): boolean =>
  ["percent", "peak-power", "speed", "peak-force", "reserve", "found"].includes(load.by);

export type ItemKg =
  | { kg: undefined; words: string }
  | { kg: number; load: Extract<BasisLoad, { ok: true }> };

/**
 * Steps in which an item is loaded, in the reader's unit: a bar by the smallest pair of plates that
 * every room has, what is held or thrown by the scale it comes in.
 */
export const ITEM_STEPS = {
  kg: { bar: 2.5, held: 0.5 },
  lb: { bar: 5, held: 1 },
} as const;

/** An item's load to the nearest step, kg. */
export function toItemStep(kg: number, kind: ItemKind, unit: MassUnit): number {
  const step = ITEM_STEPS[unit][kind === "lift" ? "bar" : "held"];
  return massKg({ amount: step * Math.round(massIn(kgToGrains(kg), unit) / step), unit });
}

/** An item's load for an athlete, kg before rounding; words where there is none. */
export function itemLoad(load: ItemLoad, facts: BasisFacts, reps: number): ItemKg {
  if (load.by === "none") return { kg: undefined, words: "body weight" };
  if (load.by === "eye") return { kg: undefined, words: "by eye" };
  const found = basisLoad(load, facts, reps);
  return found.ok
    ? { kg: found.kg, load: found }
    : { kg: undefined, words: SHORT_REFUSALS[found.reason] ?? BASIS_REFUSALS[found.reason] };
}

/** An item's load for one athlete as it is shown, and frozen when a pairing starts. */
export interface ItemNumber {
  /** "62.5 kg", "body weight", or why there is none. */
  words: string;
  /** After rounding, kg; absent without a load. */
  kg?: number;
  /** What goes on each side of the bar; absent for what is held, worn or thrown. */
  side?: string;
  /** Loads that can be built around it, lightest first, kg: what + and − go through. */
  steps?: number[];
  working?: Working;
}

/** A load that cannot be given, as short as a tablet's row wants it. */
const SHORT_REFUSALS: Partial<Record<BasisRefusal, string>> = {
  "no-max": "no max: coach's load",
  "no-profile": "no profile: coach's load",
  "no-peak-force": "no peak force tested: coach's load",
  "no-peak-power": "no peak power tested: coach's load",
  "no-body-mass": "no body mass: coach's load",
};

/** Steps offered under a load and over it. */
const STEPS_DOWN = 3;
const STEPS_UP = 8;

/**
 * An item's load for an athlete in a week of the complex. A share of a lift goes on this room's
 * bar, exactly as a plan's set does; what is held, worn or thrown goes by the scale it comes in.
 * @param gear the room's bar, collars and plates; absent where the room has none, then by steps
 * @param mode a novice's loads are rounded down
 */
export function itemNumber(input: {
  complex: Complex;
  item: ComplexItem;
  week: number;
  facts: BasisFacts;
  gear: LoadingGear | undefined;
  mode?: RoundingMode;
  unit?: MassUnit;
}): ItemNumber {
  const { complex, item, week, facts, gear } = input;
  const unit = input.unit ?? "kg";
  const load = loadInWeek(complex, item, week);
  if (needsLift(load) && item.of === undefined) return { words: "no lift named for its share" };
  const found = itemLoad(load, facts, item.reps);
  if (found.kg === undefined) return { words: found.words };
  const moved: WorkingLine[] =
    load === item.load || load.by === "none"
      ? []
      : [
          {
            label: `Week ${week} of the pairing`,
            value: basisText(load),
            detail: `${plainNumber(complex.weekStep)} points a week, ${DIRECTION_NAMES[complex.direction]}`,
          },
        ];
  const by = readIn(found.load.working.title, unit).toLowerCase();
  const title = `${item.name}, ${by}${
    item.of && needsLift(load) ? `, ${LIFT_NAMES[item.of].toLowerCase()}` : ""
  }`;
  const lines = [...moved, ...found.load.working.lines.map(({ emphasis: _, ...line }) => line)];
  const rest = {
    ...(found.load.working.sources ? { sources: found.load.working.sources } : {}),
    changes: [
      ...(found.load.working.changes ?? []),
      ...(needsLift(load) ? ["Another room's plates."] : []),
    ],
  };
  if (gear && needsLift(load)) {
    const onBar = loadBar(gear, found.kg, input.mode ?? "nearest");
    if (onBar.ok) {
      return {
        words: formatKg(onBar.totalKg, unit, 1),
        kg: onBar.totalKg,
        side: describeSide(onBar.side.plates),
        steps: stepsOnBar(gear, onBar.totalKg, unit),
        working: { title, lines: [...lines, ...loadingWorking(onBar, facts.maxKg)], ...rest },
      };
    }
    // A loaded jump may be lighter than a bar: it is held then. A lift may not.
    if (item.kind === "lift" || onBar.reason !== "under-lightest")
      return {
        words:
          onBar.reason === "under-lightest"
            ? `under the empty bar of ${formatKg(onBar.lightestKg, unit, 1)}: coach's load`
            : "over what the bar here holds: coach's load",
        working: {
          title,
          lines: [
            ...lines,
            {
              label: "On the bar here",
              value: "cannot be built",
              emphasis: "answer" as const,
              detail: describeRefusal(onBar, unit),
            },
          ],
          ...rest,
        },
      };
  }
  const kg = toItemStep(found.kg, item.kind, unit);
  const step = ITEM_STEPS[unit][item.kind === "lift" ? "bar" : "held"];
  const stepKg = massKg({ amount: step, unit });
  return {
    words: formatKg(kg, unit, 1),
    kg,
    steps: Array.from({ length: STEPS_DOWN + STEPS_UP + 1 }, (_, i) =>
      toItemStep(kg + (i - STEPS_DOWN) * stepKg, item.kind, unit),
    ).filter((one) => one > 0),
    working: {
      title,
      lines: [
        ...lines,
        {
          label: `To the nearest ${formatMass({ amount: step, unit })}`,
          value: written(kg, 1),
          emphasis: "answer",
          detail:
            item.kind === "lift" ? "no bar of a room stands behind it" : "held, worn or thrown",
        },
      ],
      ...rest,
    },
  };
}

/** Totals that the room can build around a load, a plate step of the unit apart, lightest first. */
function stepsOnBar(gear: LoadingGear, kg: number, unit: MassUnit): number[] {
  const stepKg = massKg({ amount: ITEM_STEPS[unit].bar, unit });
  const walk = (by: number, most: number) => {
    const found: number[] = [];
    for (let at = kg; found.length < most; ) {
      const next = stepFrom(gear, at, by)?.totalKg;
      if (next === undefined || next === at) break;
      found.push(next);
      at = next;
    }
    return found;
  };
  return [...walk(-stepKg, STEPS_DOWN).reverse(), kg, ...walk(stepKg, STEPS_UP)];
}

/** The number of an item after a load was set at the rack: the new one, with what was planned. */
export function numberSet(
  planned: ItemNumber,
  set: { round: number; kg: number } | undefined,
  unit: MassUnit,
): ItemNumber {
  if (!set || set.kg === planned.kg) return planned;
  const { side: _, ...rest } = planned;
  const words = formatKg(set.kg, unit, 1);
  return {
    ...rest,
    words,
    kg: set.kg,
    working: {
      title: planned.working?.title ?? "Load set here",
      lines: [
        ...(planned.working?.lines.map(({ emphasis: _e, ...line }) => line) ?? [
          { label: "Planned", value: planned.words },
        ]),
        { label: `Set here from round ${set.round}`, value: words, emphasis: "answer" },
      ],
      ...(planned.working?.sources ? { sources: planned.working.sources } : {}),
      changes: ["Another load set at the rack."],
    },
  };
}
