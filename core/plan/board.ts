import {
  percentOf,
  type RecipeSettings,
  recipeWeeks,
  type WaveSet,
  type WaveWeek,
} from "../recipe/recipe";
import { type Block, cyclePlace, exerciseIn, markOf, type Slot, slotWeek } from "./block";

/** A set as the board draws it: as wide as its reps, as high as its share of the max. */
export interface BoardSet {
  reps: number;
  /** % of the working max, 0–110; undefined where its load is no share of one. */
  percent: number | undefined;
  top: boolean;
}

/** One slot in one week of a block. */
export interface BoardCell {
  week: number;
  /** Nothing before its first week, after its last, in a test or free week. */
  kind: "work" | "deload" | "nothing";
  /** Place in its own cycle, from 1; undefined in a deload and where nothing is done. */
  place: { at: number; of: number; run: number } | undefined;
  wave: WaveWeek | undefined;
  sets: BoardSet[];
  /** Bands or chains hang, by the week's method or the slot's share. */
  resisted: boolean;
  /** A stop at the bottom. */
  paused: boolean;
  /** Lowered slowly: from three seconds on. */
  slow: boolean;
  exerciseId: string | undefined;
}

/** One time through a slot's cycle, as the line under its row: it waits in marked weeks. */
export interface BoardRun {
  run: number;
  from: number;
  to: number;
  /** Weeks in it that are marked: the cycle waits. */
  waits: number[];
  /** The block ends before the cycle does: so many weeks of so many. */
  cut: { at: number; of: number } | undefined;
}

export interface BoardRow {
  cells: BoardCell[];
  runs: BoardRun[];
}

/** From so many seconds down a bar is drawn as lowered slowly. */
const SLOW_FROM_S = 3;

/** A slot's weeks as the board draws them. */
export function boardRow(block: Block, slot: Slot, settings: RecipeSettings = {}): BoardRow {
  const weeks = Array.from({ length: block.weeks }, (_, i) => i + 1);
  return {
    cells: weeks.map((week) => cellOf(block, slot, week, settings)),
    runs: runsOnBoard(block, slot),
  };
}

function cellOf(block: Block, slot: Slot, week: number, settings: RecipeSettings): BoardCell {
  const { recipe } = slot;
  const wave = slotWeek(block, slot, week, settings);
  const place = cyclePlace(block, slot, week);
  const sets = (wave?.sets ?? []).map(boardSet);
  return {
    week,
    kind: sets.length === 0 ? "nothing" : markOf(block, week) ? "deload" : "work",
    place: place && { at: place.index + 1, of: recipeWeeks(recipe).length, run: place.run },
    wave,
    sets,
    resisted: wave?.method?.resisted ?? (recipe.resistancePercent ?? 0) > 0,
    paused: (wave?.method?.pauseS ?? recipe.tempo?.pauseS ?? 0) > 0,
    slow: (recipe.tempo?.downS ?? 0) >= SLOW_FROM_S,
    exerciseId: exerciseIn(block, slot, week),
  };
}

const boardSet = (set: WaveSet): BoardSet => ({
  reps: set.reps,
  percent: set.factor === undefined ? undefined : percentOf(set),
  top: set.kind === "top",
});

function runsOnBoard(block: Block, slot: Slot): BoardRun[] {
  const of = recipeWeeks(slot.recipe).length;
  const runs: BoardRun[] = [];
  let done = 0;
  for (let week = slot.fromWeek; week <= block.weeks; week++) {
    const place = cyclePlace(block, slot, week);
    const last = runs.at(-1);
    if (!place) {
      // A cycle that is under way waits; one that is over does not.
      if (last && done < of && markOf(block, week)) last.waits.push(week);
      continue;
    }
    if (last?.run === place.run) last.to = week;
    else runs.push({ run: place.run, from: week, to: week, waits: [], cut: undefined });
    done = place.index + 1;
  }
  const last = runs.at(-1);
  if (last) {
    last.waits = last.waits.filter((week) => week < last.to || done < of);
    if (done < of) last.cut = { at: done, of };
  }
  return runs;
}

const plain = (value: number) => String(Math.round(10 * value) / 10);
const distinct = (values: readonly string[]) => values.filter((one, i) => one !== values[i - 1]);

/**
 * A week of a slot in a few figures: "9×3 · 45–55 %", "4×5 = 20", "5×20 m", "top 3 · 85 %".
 * @param kg how a mass is written for the reader
 */
export function cellWords(
  recipe: Slot["recipe"],
  wave: WaveWeek | undefined,
  kg: (kg: number) => string,
): string {
  const [first] = wave?.sets ?? [];
  if (!wave || !first) return "none";
  const { sets } = wave;
  const scheme = schemeWords(recipe, sets);
  const sides = recipe.sides === "left-right" ? " a side" : "";
  // Of work by eye nothing is said: its bars have one height.
  const loads = distinct(sets.map((set) => loadWords(set, kg)).filter((one) => one !== ""));
  if (first.factor === undefined && first.basis.by !== "eye") return `${scheme}${sides} · no load`;
  const unit = first.basis.by === "percent" || first.basis.by === "peak-power" ? " %" : "";
  const some = loads.length > 2 ? `${loads[0]}–${loads.at(-1)}` : loads.join(", ");
  const tail = loads.length > 0 ? ` · ${some}${unit}` : "";
  return `${scheme}${sides}${tail}`;
}

function schemeWords({ counts, top }: Slot["recipe"], sets: readonly WaveSet[]): string {
  if (top) return `top ${sets[0]?.reps ?? top.reps}`;
  const reps = ({ reps, repsTo }: WaveSet) =>
    repsTo === undefined ? `${reps}` : `${reps}–${repsTo}`;
  const groups: Array<{ count: number; reps: string }> = [];
  for (const set of sets) {
    const last = groups.at(-1);
    if (last && last.reps === reps(set)) last.count++;
    else groups.push({ count: 1, reps: reps(set) });
  }
  const words = groups.map((one) => `${one.count}×${one.reps}`).join(", ");
  if (counts === "metres") return `${words} m`;
  if (counts === "contacts") return `${words} = ${sets.reduce((sum, set) => sum + set.reps, 0)}`;
  return words;
}

/** The number that sets a load, without its unit where that is a share. */
function loadWords(set: WaveSet, kg: (kg: number) => string): string {
  const { basis } = set;
  switch (basis.by) {
    case "percent": {
      const percent = percentOf(set);
      return percent === undefined ? "" : plain(percent);
    }
    case "peak-power":
      return plain(basis.percent);
    case "body":
      return `${plain(basis.percent)} % of the body`;
    case "speed":
      return `${basis.mps.toFixed(2)} m/s`;
    case "reserve":
      return `${plain(basis.reserve)} in reserve`;
    case "fixed":
      return basis.kg > 0 ? kg(basis.kg) : "";
    case "found":
      return basis.plusKg === 0 ? "found" : `found + ${kg(basis.plusKg)}`;
    case "peak-force":
      return "peak force";
    case "eye":
      return "";
  }
}
