import { loadBar } from "../barload/load";
import type { LoadingGear, RoundingMode } from "../barload/loading-gear";
import { atLift, basisFacts, type Lifter } from "../prescribe/lifter";
import { loadOfSet, prescribeSet, type SetPrescription } from "../prescribe/prescribe";
import { FREE, type Rigging, riggingOf } from "../prescribe/rigging";
import { GROUP_CURVES } from "../profile/target-speed";
import type { BasisFacts } from "../recipe/basis";
import type { RecipeSettings, WaveSet, WaveWeek } from "../recipe/recipe";
import type { HangStock } from "../resistance/rig";
import type { MassUnit } from "../units/mass";
import { formatKg } from "../units/mass";
import type { VelocityMetric } from "../units/velocity";
import { type Block, overrideKey, type Slot, slotWeek } from "./block";
import { exerciseLoad, type HandRoom, inHands, type SetKg } from "./exercise-load";

/** What all numbers of a block are settled with. */
export interface BlockRoom extends HandRoom {
  gear: LoadingGear;
  metric: VelocityMetric;
  settings: RecipeSettings;
  /** What the room can hang on a bar of that rack. */
  hang: HangStock;
  /** Its other racks whose bar or plates differ, one for each way they do. */
  others: readonly OtherRack[];
  /**
   * By lift variant, where another rack stands for it than the room's first: one whose bar is of
   * the kind it asks for, or why there is none.
   */
  forLift: Readonly<Record<string, LiftRack>>;
}

/** A rack that a lift may come to whose bar or plates are others than those it is worked out on. */
export interface OtherRack {
  number: number;
  gear: LoadingGear;
}

/** The rack that stands for a lift until a session starts. */
export type LiftRack =
  | { ok: true; gear: LoadingGear; hang: HangStock; others: readonly OtherRack[] }
  | { ok: false; reason: string };

/** The rack of a room that a lift is worked out on. */
export const rackFor = (room: BlockRoom, variantId: string): LiftRack =>
  room.forLift[variantId] ?? { ok: true, gear: room.gear, hang: room.hang, others: room.others };

/** Sets one after the other with the same load, as one figure. */
export interface LoadRun {
  /** Key of the first set of the run. */
  key: string;
  count: number;
  reps: number;
  loadKg: number | undefined;
  reason: string | undefined;
  overridden: boolean;
  /** Where another rack builds another total: its number, and that total, kg. */
  elsewhere: ReadonlyArray<{ rack: number; kg: number }>;
}

/** The variant that a week of a slot is done in: a method of a rotation may have its own. */
export const variantIn = (slot: Slot, week: WaveWeek): string | undefined =>
  week.method?.variantId ?? (slot.work.kind === "lift" ? slot.work.variantId : undefined);

const groups = new WeakMap<WaveWeek, number[]>();

/** For each set of a week the first set that asks the same: worked out once for everybody. */
function firstsOf(week: WaveWeek): number[] {
  const kept = groups.get(week);
  if (kept) return kept;
  const first = new Map<string, number>();
  const found = week.sets.map((set, i) => {
    const key = `${JSON.stringify(set.basis)}/${set.factor}/${set.reps}`;
    const at = first.get(key) ?? i;
    first.set(key, at);
    return at;
  });
  groups.set(week, found);
  return found;
}

/** Athletes with a load of their own. */
const ownersOf = (block: Block): ReadonlySet<string> =>
  new Set(Object.keys(block.overrides).map((key) => key.split("/")[0] ?? ""));

/** What an athlete brings to a variant, looked up once for all weeks of a block. */
function factsOnce(room: BlockRoom): (athlete: Lifter, variantId: string) => BasisFacts {
  let of: Lifter | undefined;
  let known = new Map<string, BasisFacts>();
  return (athlete, variantId) => {
    if (athlete !== of) {
      of = athlete;
      known = new Map();
    }
    const before = known.get(variantId);
    if (before) return before;
    const facts = basisFacts(atLift(athlete, variantId), variantId, room.metric);
    known.set(variantId, facts);
    return facts;
  };
}

/** A slot's loads for one athlete and week; equal bases are worked out once. */
function setLoads(input: {
  block: Block;
  slotId: string;
  slot: Slot;
  week: WaveWeek;
  athlete: Lifter;
  room: BlockRoom;
  liftName: string;
  /** Athletes who have a load of their own somewhere in the block. */
  own: ReadonlySet<string>;
  factsOf: ReturnType<typeof factsOnce>;
}): { loads: SetKg[]; rigging: Rigging } {
  const { block, slotId, slot, week, athlete, room } = input;
  const variantId = variantIn(slot, week);
  const facts = input.factsOf(athlete, variantId ?? "");
  const rack = variantId === undefined ? undefined : rackFor(room, variantId);
  const rigging =
    variantId === undefined || !rack?.ok
      ? FREE
      : riggingOf({
          recipe: slot.recipe,
          week,
          facts,
          heights: athlete.byVariant[variantId]?.heights,
          stock: rack.hang,
          gear: rack.gear,
        });
  const same = firstsOf(week);
  const withOwn = input.own.has(athlete.id);
  const loads: SetKg[] = [];
  for (let i = 0; i < week.sets.length; i++) {
    const set = week.sets[i] as WaveSet;
    const ownKg = withOwn
      ? block.overrides[overrideKey(athlete.id, slotId, set.key)]?.loadKg
      : undefined;
    // Of equal sets the first is worked out; only one with a load of its own differs.
    const first = same[i] as number;
    const before = !withOwn && first < i ? loads[first] : undefined;
    loads.push(
      before ??
        (rack === undefined
          ? ownKg === undefined
            ? exerciseLoad(set, athlete.bodyKg, inHands(block, slot, week.number, room))
            : { kg: ownKg, reason: undefined }
          : rack.ok
            ? onBar({
                set,
                facts,
                gear: rack.gear,
                mode: room.rounding,
                unit: room.unit,
                overrideKg: ownKg,
                rigging,
                variantName: input.liftName,
              })
            : { kg: undefined, reason: rack.reason }),
    );
  }
  return { loads, rigging };
}

function onBar(asked: Parameters<typeof loadOfSet>[0]): SetKg {
  const found = loadOfSet(asked);
  return found.ok
    ? { kg: found.loading.totalKg, reason: undefined, askedKg: found.loading.askedKg }
    : { kg: undefined, reason: found.reason };
}

/** What other racks build where it is another total. */
function elsewhereOf(
  load: SetKg,
  others: readonly OtherRack[],
  mode: RoundingMode,
): LoadRun["elsewhere"] {
  const { askedKg, kg } = load;
  if (others.length === 0 || askedKg === undefined || kg === undefined) return NOWHERE;
  return others.flatMap(({ number, gear }) => {
    const found = loadBar(gear, askedKg, mode);
    return found.ok && found.totalKg !== kg ? [{ rack: number, kg: found.totalKg }] : [];
  });
}

const NOWHERE: LoadRun["elsewhere"] = [];

/** What other racks build in a week, a line each: "Rack 3: 80 · 82.5 kg". */
export function elsewhereWords(runs: readonly LoadRun[], unit: MassUnit): string[] {
  const byRack = new Map<number, number[]>();
  for (const { rack, kg } of runs.flatMap((run) => run.elsewhere)) {
    const there = byRack.get(rack) ?? [];
    if (!there.includes(kg)) byRack.set(rack, [...there, kg]);
  }
  return [...byRack].map(
    ([rack, all]) => `Rack ${rack}: ${all.map((kg) => formatKg(kg, unit, 1)).join(", ")}`,
  );
}

/** One week of a slot, with everybody's loads in the order of the athletes given. */
export interface SlotCell {
  week: number;
  wave: WaveWeek | undefined;
  byAthlete: LoadRun[][];
  /** What hangs on each one's bar. */
  riggings: Rigging[];
}

/** Everybody's loads of one slot for some weeks: what the plan's page draws. */
export function slotCells(input: {
  block: Block;
  slotId: string;
  weeks: readonly number[];
  athletes: readonly Lifter[];
  room: BlockRoom;
  liftName: string;
}): SlotCell[] {
  const { block, slotId, athletes, room } = input;
  const slot = block.slots[slotId];
  const own = ownersOf(block);
  const factsOf = factsOnce(room);
  return input.weeks.map((number) => {
    const wave = slot && slotWeek(block, slot, number, room.settings);
    if (!slot || !wave) {
      return {
        week: number,
        wave: undefined,
        byAthlete: athletes.map(() => []),
        riggings: athletes.map(() => FREE),
      };
    }
    const rack = rackFor(room, variantIn(slot, wave) ?? "");
    const others = rack.ok ? rack.others : [];
    const all = athletes.map((athlete) =>
      setLoads({ ...input, slot, week: wave, athlete, own, factsOf }),
    );
    return {
      week: number,
      wave,
      byAthlete: athletes.map((athlete, i) =>
        runsOf(
          wave.sets,
          all[i]?.loads ?? [],
          (set) =>
            own.has(athlete.id) &&
            block.overrides[overrideKey(athlete.id, slotId, set.key)] !== undefined,
          (load) => elsewhereOf(load, others, room.rounding),
        ),
      ),
      riggings: all.map((one) => one.rigging),
    };
  });
}

function runsOf(
  sets: readonly WaveSet[],
  loads: readonly SetKg[],
  isOwn: (set: WaveSet) => boolean,
  elsewhere: (load: SetKg) => LoadRun["elsewhere"],
): LoadRun[] {
  const runs: LoadRun[] = [];
  sets.forEach((set, i) => {
    const load = loads[i] as SetKg;
    const overridden = isOwn(set);
    const last = runs[runs.length - 1];
    if (
      last &&
      last.loadKg === load.kg &&
      last.reason === load.reason &&
      last.overridden === overridden &&
      last.reps === set.reps
    ) {
      last.count++;
    } else {
      runs.push({
        key: set.key,
        count: 1,
        reps: set.reps,
        loadKg: load.kg,
        reason: load.reason,
        overridden,
        elsewhere: elsewhere(load),
      });
    }
  });
  return runs;
}

/** Loads of every slot and week by athlete, "slot/week/set key" → kg: kept with a publication. */
export function blockLoads(input: {
  block: Block;
  athletes: readonly Lifter[];
  room: BlockRoom;
}): Record<string, Record<string, number>> {
  const { block, room } = input;
  const owners = ownersOf(block);
  const weeks = Object.entries(block.slots).flatMap(([slotId, slot]) =>
    Array.from({ length: block.weeks }, (_, i) => i + 1).flatMap((number) => {
      const week = slotWeek(block, slot, number, room.settings);
      if (!week || week.sets.length === 0) return [];
      // The same for everybody: written once, not once an athlete.
      const keys = week.sets.map((set) => `${slotId}/${number}/${set.key}`);
      return [{ slotId, slot, week, keys }];
    }),
  );
  const factsOf = factsOnce(room);
  const byAthlete: Record<string, Record<string, number>> = {};
  for (const athlete of input.athletes) {
    const own: Record<string, number> = {};
    for (const { slotId, slot, week, keys } of weeks) {
      const { loads } = setLoads({
        block,
        room,
        slotId,
        slot,
        week,
        athlete,
        liftName: "",
        own: owners,
        factsOf,
      });
      for (let i = 0; i < keys.length; i++) {
        const kg = loads[i]?.kg;
        if (kg !== undefined) own[keys[i] as string] = kg;
      }
    }
    byAthlete[athlete.id] = own;
  }
  return byAthlete;
}

export interface LoadsChange {
  athleteId: string;
  /** Sets whose load is another, is new, or is gone. */
  changed: number;
  added: number;
  gone: number;
}

/** What changed for whom since a publication; athletes for whom nothing did are left out. */
export function changedLoads(
  before: Record<string, Record<string, number>>,
  now: Record<string, Record<string, number>>,
): LoadsChange[] {
  const ids = new Set([...Object.keys(before), ...Object.keys(now)]);
  return [...ids].flatMap((athleteId) => {
    const old = before[athleteId] ?? {};
    const fresh = now[athleteId] ?? {};
    let changed = 0;
    let added = 0;
    for (const [key, kg] of Object.entries(fresh)) {
      if (old[key] === undefined) added++;
      else if (old[key] !== kg) changed++;
    }
    const gone = Object.keys(old).filter((key) => fresh[key] === undefined).length;
    return changed + added + gone > 0 ? [{ athleteId, changed, added, gone }] : [];
  });
}

/** One set of one athlete with its whole working: worked out when somebody selects the figure. */
export function setInFull(input: {
  block: Block;
  slotId: string;
  week: WaveWeek;
  set: WaveSet;
  athlete: Lifter;
  room: BlockRoom;
  lift: { id: string; name: string; lift: string };
}): SetPrescription {
  const { block, slotId, set, athlete, room, lift } = input;
  const slot = block.slots[slotId] as Slot;
  const at = atLift(athlete, lift.id);
  const rack = rackFor(room, lift.id);
  const { gear, hang } = rack.ok ? rack : room;
  return prescribeSet({
    recipe: slot.recipe,
    set,
    variant: lift,
    athlete: at,
    rigging: riggingOf({
      recipe: slot.recipe,
      week: input.week,
      facts: basisFacts(at, lift.id, room.metric),
      heights: at.heights,
      stock: hang,
      gear,
    }),
    gear,
    mode: room.rounding,
    unit: room.unit,
    metric: room.metric,
    groupCurve:
      lift.lift === "bench" || lift.lift === "squat" ? GROUP_CURVES[lift.lift] : undefined,
    ...(rack.ok ? {} : { noRack: rack.reason }),
    overrideKg: block.overrides[overrideKey(athlete.id, slotId, set.key)]?.loadKg,
  });
}
