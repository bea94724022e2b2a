import { plainNumber } from "../units/mass";
import { GRAVITY } from "../units/velocity";
import type { Working } from "../units/working";
import { say, type Text, written } from "../units/written";
import type { Complex } from "./complex";
import { OUTPUTS } from "./outputs";
import { type AthleteRun, bestOf, loadSet, type RunSettings } from "./run";
import { RUN_DEFAULTS } from "./run-settings";

/** One round of an item whose load is looked for. */
export interface SeekRound {
  round: number;
  loadKg: number;
  output: number;
}

/** What tells whether output rose. */
export interface SeekMeasure {
  up: boolean;
  unit: string;
  /** In words, for the working. */
  name: string;
}

/**
 * The rounds of an item whose load is looked for. Output is that of the item itself, else of the
 * next of the round that is measured. A bar's speed falls with every kilogram, so the item's own
 * speed counts as power, load × g × speed (an estimate: the bar's mass alone).
 * @param plannedKg the load until one is set at the rack; without either a round tells nothing
 */
export function seekRounds(
  complex: Complex,
  run: AthleteRun,
  item: number,
  plannedKg: number | undefined,
): { measure: SeekMeasure | undefined; rounds: SeekRound[] } {
  const measured = complex.items.findIndex((one, i) => i >= item && one.output !== "none");
  const of = complex.items[measured];
  if (!of) return { measure: undefined, rounds: [] };
  const ownSpeed = measured === item && of.output === "speed";
  const best = new Map<number, number>();
  for (const one of run.outputs) {
    if (one.item !== measured) continue;
    const before = best.get(one.round);
    best.set(one.round, before === undefined ? one.value : bestOf(of, before, one.value));
  }
  const { up, unit, name } = OUTPUTS[of.output];
  return {
    measure: ownSpeed
      ? { up: true, unit: "W", name: "mean power of the bar, load × g × speed, an estimate" }
      : { up, unit, name: `${of.name}: ${name}` },
    rounds: [...best].flatMap(([round, value]) => {
      const loadKg = loadSet(run, item, round)?.kg ?? plannedKg;
      if (loadKg === undefined) return [];
      return [{ round, loadKg, output: ownSpeed ? loadKg * GRAVITY * value : value }];
    }),
  };
}

export type SeekAnswer =
  /** Nothing is measured yet: do the first round. */
  | { kind: "begin" }
  /** Output rose, or there is one round only: go up to the next load that can be built. */
  | { kind: "raise"; toKg: number; rose: boolean; working: Working }
  /** Output rose, and nothing heavier can be built. */
  | { kind: "top"; kg: number; working: Working }
  /** Output rose no more: the load of the best round is the one. */
  | { kind: "found"; kg: number; working: Working };

/**
 * The load of a heavy-but-fast item: raised while output rises (DOMAIN 10). A round counts as
 * risen when its output is better than the best before it by more than the spread within which
 * output counts as the same; the first that is not ends the search, and the best round's load is
 * the answer.
 * @param rounds in any order
 * @param steps loads that can be built, lightest first, kg
 */
export function seekLoad(input: {
  rounds: readonly SeekRound[];
  measure: SeekMeasure;
  steps: readonly number[];
  settings?: RunSettings;
}): SeekAnswer {
  const { sameWithinPercent } = input.settings ?? RUN_DEFAULTS;
  const rounds = [...input.rounds].sort((a, b) => a.round - b.round);
  const [first, ...later] = rounds;
  if (!first) return { kind: "begin" };
  const { up, unit: measure, name } = input.measure;
  const mass = (kg: number) => written(kg, 1);
  let best = first;
  let over: SeekRound | undefined;
  for (const one of later) {
    const share = 100 * (one.output / best.output - 1) * (up ? 1 : -1);
    if (share > sameWithinPercent) best = one;
    else {
      over = one;
      break;
    }
  }
  const working = (answer: Text, label: string): Working => ({
    title: "Load found by output",
    lines: [
      ...rounds.map((one) => ({
        label: say`Round ${one.round}, ${mass(one.loadKg)}`,
        value: `${plainNumber(one.output, measure === "W" ? 0 : 2)} ${measure}`.trim(),
        ...(one === best ? { detail: "best so far" } : {}),
      })),
      {
        label,
        value: answer,
        emphasis: "answer" as const,
        detail: `by ${name}; risen is over ${sameWithinPercent} % better than the best before`,
      },
    ],
    sources: ["Coaching practice: docs/sources.md, contrast pairings"],
    changes: ["Another round, a measure taken back."],
  });
  if (over) return { kind: "found", kg: best.loadKg, working: working(mass(best.loadKg), "Found") };
  const last = rounds[rounds.length - 1] as SeekRound;
  const next = input.steps.find((one) => one > last.loadKg + 1e-9);
  return next === undefined
    ? { kind: "top", kg: last.loadKg, working: working(mass(last.loadKg), "Heaviest here") }
    : {
        kind: "raise",
        toKg: next,
        rose: later.length > 0,
        working: working(mass(next), later.length > 0 ? "Output rose: next" : "Next, to compare"),
      };
}
