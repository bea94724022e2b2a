import { loadableTable } from "../barload/loadable";
import type { LoadingGear } from "../barload/loading-gear";
import { type BasisFacts, basisLoad } from "../recipe/basis";
import type { Recipe, ResistanceConvention, WaveWeek } from "../recipe/recipe";
import { chooseRig, type HangStock, RIG_REFUSALS, type Rig, rigWords } from "../resistance/rig";
import type { BarHeights } from "../resistance/setup";
import { formatKg, grainsToKg, type MassUnit } from "../units/mass";
import { hangsIn } from "./method";

/** What hangs on the bar in a week: nothing, a set-up, or nothing although it was asked. */
export type Rigging =
  | { kind: "free" }
  | { kind: "rigged"; convention: ResistanceConvention; rig: Rig }
  | { kind: "not-rigged"; convention: ResistanceConvention; reason: string };

const ONLY = { bands: "band", chains: "chain" } as const;

export const FREE: Rigging = { kind: "free" };

/**
 * One set-up for an athlete's week, since nobody rigs anew for every set: nearest to the wanted
 * share at the heaviest set that the week asks.
 */
export function riggingOf(input: {
  recipe: Recipe;
  week: WaveWeek;
  facts: BasisFacts;
  heights: BarHeights | undefined;
  stock: HangStock;
  gear: LoadingGear;
}): Rigging {
  const { recipe, week, facts } = input;
  if (!hangsIn(recipe, week)) return FREE;
  const { convention } = recipe;
  let askedKg = 0;
  for (const set of week.sets) {
    const found = basisLoad(set.basis, facts, set.reps);
    if (found.ok) askedKg = Math.max(askedKg, found.kg * (set.factor ?? 0));
  }
  // Without a load the set says itself what is missing.
  if (askedKg === 0) return FREE;
  const chosen = chooseRig({
    stock: input.stock,
    heights: input.heights,
    convention,
    askedKg,
    wantedPercent: recipe.resistancePercent ?? 0,
    only: recipe.hangs && ONLY[recipe.hangs],
    emptyKg: grainsToKg(loadableTable(input.gear).emptyGrains),
  });
  return chosen.ok
    ? { kind: "rigged", convention, rig: chosen.rig }
    : { kind: "not-rigged", convention, reason: RIG_REFUSALS[chosen.reason] };
}

/** What hangs on a bar, in the words of the rack, the card and the paper; none where nothing. */
export function riggingWords(rigging: Rigging, unit: MassUnit): string[] {
  if (rigging.kind === "free") return [];
  if (rigging.kind === "not-rigged") return [`Nothing hung. ${rigging.reason}`];
  const { rig } = rigging;
  return [
    `${rigWords(rig)}: +${formatKg(rig.bottomKg, unit, 1)} at the bottom, +${formatKg(rig.lockoutKg, unit, 1)} at lockout`,
  ];
}
