import type { FrozenLifter } from "../floor/frozen";
import { groupSizesForRest } from "../prescribe/turns";
import type { CoachValues } from "../settings/coach-values";
import { teamDefault } from "../settings/usual";
import { grainsOfSide, type MoveWeights, type Setting } from "./moves";
import type { GroupLifter, GroupRack, OpenProblem } from "./problem";
import type { DayTimes } from "./simulate-day";

/** How a rack stands for each set of a lifter as it was settled; warm-ups are not counted. */
export function settingsOf(
  lifter: Pick<FrozenLifter, "sets" | "pins" | "box" | "hangs">,
): Setting[] {
  const { pins, box, hangs = [] } = lifter;
  const shared = {
    hooksCm: pins?.hooksCm,
    safetiesCm: pins?.safetiesCm,
    seat: box?.seat && {
      base: box.seat.base,
      pinCm: box.seat.pinCm,
      mats: Object.fromEntries(box.seat.mats.map(({ name, count }) => [name, count])),
    },
    hangs: Object.fromEntries(hangs.map(({ name, perSide }) => [name, perSide])),
  };
  return lifter.sets.map((set) => ({
    ...shared,
    side: set.loadKg === undefined ? undefined : grainsOfSide(set.side),
  }));
}

/** Pieces of the room that a rack keeps while somebody lifts at it. */
export function needsOf({
  box,
  hangs = [],
}: Pick<FrozenLifter, "box" | "hangs">): Record<string, number> {
  const seat = box?.seat;
  return Object.fromEntries([
    ...(seat ? [[seat.base, 1] as const] : []),
    ...(seat?.mats ?? []).map(({ name, count }) => [name, count] as const),
    ...hangs.map(({ name, perSide }) => [name, perSide] as const),
  ]);
}

/** Seconds of each move as the team has set them. */
export function moveSeconds(values: CoachValues): MoveWeights {
  return {
    plates: teamDefault(values, "platesSeconds"),
    hooks: teamDefault(values, "hooksSeconds"),
    pins: teamDefault(values, "pinsSeconds"),
    mats: teamDefault(values, "matsSeconds"),
    boxes: teamDefault(values, "boxesSeconds"),
    bands: teamDefault(values, "bandsSeconds"),
  };
}

/** Seconds from one station to another. */
export const WALK_S = 30;
/** A ready bar waits so many seconds for who is next before somebody else goes. */
export const PATIENCE_S = 20;

/** What a day's clock counts with, as the team has set it. */
export function dayTimes(values: CoachValues): DayTimes {
  return {
    turnS: teamDefault(values, "turnSeconds"),
    weights: moveSeconds(values),
    hands: teamDefault(values, "changeHands"),
    walkS: WALK_S,
    patienceS: PATIENCE_S,
  };
}

/** How many racks are used, with how many at each. */
export interface Sizes {
  use: number;
  least: number;
  most: number;
}

/**
 * Numbers of racks that may be used for so many lifters, the best first: with sizes whose turns keep
 * the rest, those with the fewest at a rack; where none does, as many racks as there are, evenly.
 *
 * @param turn seconds of a set and of a usual change
 */
export function sizesFor(input: {
  lifters: number;
  racks: number;
  rest: { leastS: number; mostS: number };
  turn: { setS: number; changeS: number };
}): Sizes[] {
  const { lifters, racks, rest, turn } = input;
  if (lifters === 0 || racks === 0) return [];
  const fits = groupSizesForRest({
    ...turn,
    leastRestS: rest.leastS,
    mostRestS: rest.mostS,
    largest: lifters,
  });
  const found: Sizes[] = [];
  const [least, most] = [fits[0], fits.at(-1)];
  if (least !== undefined && most !== undefined)
    for (let use = Math.min(racks, lifters); use >= 1; use--)
      if (use * least <= lifters && lifters <= use * most) found.push({ use, least, most });
  const use = Math.min(racks, lifters);
  return found.length > 0
    ? found
    : [{ use, least: Math.floor(lifters / use), most: Math.ceil(lifters / use) }];
}

/** A slot's problem, from its athletes as they are settled at one rack of each kind. */
export function liftProblem(input: {
  /** By kind of rack. */
  settled: Readonly<Record<string, readonly FrozenLifter[]>>;
  racks: readonly GroupRack[];
  weights: MoveWeights;
  stock: Readonly<Record<string, number>>;
  together?: OpenProblem["together"];
  apart?: OpenProblem["apart"];
  /** Ids of who lifts only with a spotter beside. */
  needSpotter?: ReadonlySet<string>;
  /** Ids of who spots nobody. */
  spotsNobody?: ReadonlySet<string>;
}): OpenProblem {
  const kinds = Object.keys(input.settled);
  const byId = new Map<string, GroupLifter>();
  for (const kind of kinds)
    for (const one of input.settled[kind] ?? []) {
      const before = byId.get(one.athleteId);
      byId.set(one.athleteId, {
        id: one.athleteId,
        name: one.name,
        loadKg: before?.loadKg ?? one.sets.find((set) => set.loadKg !== undefined)?.loadKg,
        settings: { ...before?.settings, [kind]: settingsOf(one) },
        needs: before?.needs ?? needsOf(one),
        ...(input.needSpotter?.has(one.athleteId) ? { needsSpotter: true } : {}),
        ...(input.spotsNobody?.has(one.athleteId) ? { maySpot: false } : {}),
      });
    }
  return {
    lifters: [...byId.values()],
    racks: input.racks,
    weights: input.weights,
    together: input.together ?? [],
    apart: input.apart ?? [],
    stock: input.stock,
  };
}
