import type { LoadingGear, RoundingMode } from "../barload/loading-gear";
import { warmUpRamp } from "../barload/sequence";
import type { BoxSlot } from "../boxsquat/slot";
import { SPINE_CAUTION, styleById } from "../boxsquat/styles";
import { pinsFor } from "../gear/pins";
import { faultsFor } from "../liverules/lift-faults";
import { classBorders, liftSpeedClass } from "../liverules/speed-class";
import type { OwnInSlot } from "../plan/block";
import { groupByLoad } from "../prescribe/groups";
import { atLift, basisFacts, type Lifter } from "../prescribe/lifter";
import { methodWords } from "../prescribe/method";
import { ownWords } from "../prescribe/own-words";
import { prescribeSet, type SetPrescription } from "../prescribe/prescribe";
import { type Rigging, riggingOf } from "../prescribe/rigging";
import { DEFAULT_CHANGE_S, DEFAULT_SET_S } from "../prescribe/turns";
import { GROUP_CURVES } from "../profile/target-speed";
import { LIFTS } from "../profile/threshold";
import type { Recipe, WaveWeek } from "../recipe/recipe";
import { stopOf, targetOf } from "../recipe/speeds";
import { wayBetween } from "../resistance/heights";
import type { HangStock, Rig } from "../resistance/rig";
import type { CoachValues } from "../settings/coach-values";
import { teamDefault } from "../settings/usual";
import type { LocalDate } from "../units/time";
import type { VelocityMetric } from "../units/velocity";
import type { LiftStart } from "../velocity/stream";
import {
  CORE_VERSION,
  type FrozenLift,
  type FrozenLifter,
  type FrozenSession,
  type FrozenSlot,
  type FrozenStation,
  type InDay,
} from "./frozen";
import { platesOfRotation } from "./rotation";

/** One slot of a plan in one week, as far as its numbers need it. */
export interface SessionPlan {
  id: string;
  /** The slot within the plan. */
  slotId: string;
  name: string;
  squadName: string;
  /** Weeks of the whole plan. */
  weeks: number;
  /** Number of the published version that is lifted; 0 where none was published. */
  version: number;
  recipe: Recipe;
  /** The lift of that week: a method of a rotation may have its own. */
  variant: { id: string; name: string; lift: string; start: LiftStart; caution: string };
  box?: BoxSlot;
  metric: VelocityMetric;
  rounding: RoundingMode;
}

/** An athlete's set-up on the box, as the rack shows it. */
export type LifterSetup = Pick<FrozenLifter, "setup" | "box">;

/** A slot's overrides by "athlete id/set key", kg. */
export type Overrides = ReadonlyMap<string, number>;

/** One athlete's week with every number settled for the gear, what hangs on the bar, and what to ask first. */
export function prescribeWeek(input: {
  plan: SessionPlan;
  week: WaveWeek;
  athlete: Lifter;
  gear: LoadingGear;
  hang: HangStock;
  overrides: Overrides;
  own: OwnInSlot;
}): { sets: SetPrescription[]; rigging: Rigging; words: string[] } {
  const { plan, week, athlete, gear, overrides } = input;
  const { lift } = plan.variant;
  const facts = atLift(athlete, plan.variant.id);
  const rigging = riggingOf({
    recipe: plan.recipe,
    week,
    facts: basisFacts(facts, plan.variant.id, plan.metric),
    heights: facts.heights,
    stock: input.hang,
    gear,
  });
  const sets = week.sets.map((set) =>
    prescribeSet({
      recipe: plan.recipe,
      set,
      variant: plan.variant,
      athlete: facts,
      rigging,
      gear,
      mode: plan.rounding,
      unit: athlete.unit,
      metric: plan.metric,
      groupCurve: lift === "bench" || lift === "squat" ? GROUP_CURVES[lift] : undefined,
      overrideKg: overrides.get(`${athlete.id}/${set.key}`),
    }),
  );
  const words = ownWords({
    rigging,
    loadsKg: sets.map((set) => set.loadKg),
    facts,
    basis: plan.recipe.basis,
    coachSpeed: targetOf(plan.recipe) !== undefined,
    unit: athlete.unit,
    addRestS: input.own.rests.get(athlete.id) ?? 0,
    floorMps: input.own.floors.get(athlete.id),
  });
  return { sets, rigging, words };
}

/** The slot's smallest stop, else the team's, joins the rules under styles that ask for a stop. */
function stopRules(
  recipe: Recipe,
  box: BoxSlot | undefined,
  teamStopS: number | undefined,
  bouncesThatCut: number,
): FrozenLift["stop"] {
  const asked = box && styleById(box.styleId)?.stops ? (box.smallestStopS ?? teamStopS) : undefined;
  const stop = stopOf(recipe);
  return asked === undefined ? stop : { ...stop, smallestStopS: asked, bouncesThatCut };
}

const GENERAL_CAUTION =
  "Pain, dizziness or a new injury: stop and refer. Local rules and licensed practitioners come first.";

/** A slot as it goes to the floor, with the stations that it stands on and what is said of it. */
export interface DayPart {
  slot: FrozenSlot;
  stations: FrozenStation[];
  cautions: string[];
  /** Who is refused in this slot and is not among its athletes, by the check's code. */
  leftOut: ReadonlyMap<string, string>;
}

export interface LiftInput {
  plan: SessionPlan;
  week: WaveWeek;
  athletes: readonly Lifter[];
  /** Of the plan and not here: they may come in later. */
  absent?: readonly Lifter[];
  /** By athlete, where the lift is done on a box. */
  setups: ReadonlyMap<string, LifterSetup>;
  racks: ReadonlyArray<{
    rackId: string;
    number: number;
    gear: LoadingGear;
    hang: HangStock;
    /** Holes for hooks and safeties, cm; empty where Gear has none. */
    hooksCm?: readonly number[];
    safetiesCm?: readonly number[];
  }>;
  overrides: Overrides;
  own: OwnInSlot;
  /** What the team's coach has set. */
  coachValues: CoachValues;
  /** Who lifts where and in which order; grouped by load where left out. */
  groups?: ReadonlyArray<{ rackId: string; order: readonly string[] }>;
  /** Where it stands in its day; a session of one slot says nothing. */
  inDay?: Omit<InDay, "slotId">;
  leftOut?: ReadonlyMap<string, string>;
}

/**
 * One lift of a day: who is here is grouped over the free racks, and every number is settled with
 * each rack's own bar and plates.
 */
export function freezeLift(input: LiftInput): DayPart {
  const { plan, week, racks } = input;
  const { recipe } = plan;
  const groups = groupsOf(input);
  const lift = LIFTS.find((one) => one === plan.variant.lift);
  const borders = lift && classBorders(lift, input.coachValues);
  const how = howWords(input);
  const settle = (athlete: Lifter, rack: LiftInput["racks"][number], hang: HangStock) =>
    settleLifter({ ...input, how, athlete, rack, hang });
  // Racks lift at the same time: what hangs on one is not there for the next.
  const taken = new Map<string, number>();
  const [first] = racks;
  const tempo = { ...recipe.tempo, ...(week.method?.pauseS ? { pauseS: week.method.pauseS } : {}) };
  const slot: FrozenLift = {
    kind: "lift",
    slotId: plan.slotId,
    ...input.inDay,
    variantId: plan.variant.id,
    lift: plan.variant.lift,
    liftName: plan.variant.name,
    liftStart: plan.variant.start,
    metric: plan.metric,
    rest: recipe.rest,
    speedClass: liftSpeedClass(recipe.aim),
    ...(borders ? { classBorders: borders } : {}),
    stop: stopRules(
      recipe,
      plan.box,
      input.coachValues.smallestStopS,
      teamDefault(input.coachValues, "bouncesThatCut"),
    ),
    ...(plan.box ? { box: plan.box } : {}),
    ...(plan.box && input.coachValues.mostContactMps !== undefined
      ? { mostContactMps: input.coachValues.mostContactMps }
      : {}),
    faults: faultsFor(plan.variant.lift),
    velocityLed: recipe.lead === "velocity",
    ...(recipe.top ? { top: { reps: recipe.top.reps } } : {}),
    ...(Object.keys(tempo).length > 0 ? { tempo } : {}),
    ...(recipe.timed ? { everyS: recipe.timed.everyS } : {}),
    groups: groups.map(({ rack, athletes }) => {
      const hang = stillThere(rack.hang, taken);
      const settled = athletes.map((athlete) => settle(athlete, rack, hang));
      take(
        taken,
        settled.map((one) => one.rigging),
      );
      const { lifters, moves } = platesOfRotation(
        rack.gear,
        settled.map((one) => one.lifter),
      );
      return { stationId: rack.rackId, lifters, ...(moves ? { moves } : {}) };
    }),
    ...(input.absent && input.absent.length > 0 && first
      ? { absent: input.absent.map((one) => settle(one, first, first.hang).lifter) }
      : {}),
  };
  return {
    slot,
    stations: groups.map(({ rack }) => ({
      kind: "rack",
      id: rack.rackId,
      name: String(rack.number),
      gear: rack.gear,
    })),
    cautions: [plan.variant.caution, ...(plan.box ? [SPINE_CAUTION] : [])],
    leftOut: input.leftOut ?? new Map(),
  };
}

/** Racks with who lifts at them: as somebody made them, else like loads together. */
function groupsOf(
  input: LiftInput,
): Array<{ rack: LiftInput["racks"][number]; athletes: readonly Lifter[] }> {
  const { plan, racks, athletes } = input;
  if (input.groups)
    return input.groups.flatMap(({ rackId, order }) => {
      const rack = racks.find((one) => one.rackId === rackId);
      const own = order.flatMap((id) => athletes.find((one) => one.id === id) ?? []);
      return rack && own.length > 0 ? [{ rack, athletes: own }] : [];
    });
  return groupByLoad({
    lifters: athletes.map((athlete) => ({
      athlete,
      loadKg: athlete.byVariant[plan.variant.id]?.workingMax?.kg,
    })),
    racks: racks.length,
    rest: plan.recipe.rest,
    setS: DEFAULT_SET_S,
    changeS: DEFAULT_CHANGE_S,
  }).flatMap(({ lifters }, i) => {
    const rack = racks[i];
    return rack ? [{ rack, athletes: lifters.map((one) => one.athlete) }] : [];
  });
}

/** How a slot is done, in words, whoever does it. */
export const howWords = ({ plan, week, coachValues }: LiftInput): string[] =>
  methodWords(plan.recipe, week, plan.box, coachValues.smallestStopS);

/** One athlete's sets at one rack, with what is asked and said before them. */
export function settleLifter(
  input: Pick<LiftInput, "plan" | "week" | "setups" | "overrides" | "own"> & {
    /** What holds for everybody in the slot. */
    how: readonly string[];
    athlete: Lifter;
    rack: LiftInput["racks"][number];
    /** What of its pieces is left for this rack. */
    hang: HangStock;
  },
): { lifter: FrozenLifter; rigging: Rigging } {
  const { athlete, rack, plan } = input;
  const { gear } = rack;
  const setup = input.setups.get(athlete.id);
  const addRestS = input.own.rests.get(athlete.id);
  const floorMps = input.own.floors.get(athlete.id);
  const own = prescribeWeek({ ...input, gear });
  const lines = [...input.how, ...own.words, ...(setup?.setup ?? [])];
  const { profile, profileReps, lifetimeBestKg, heights } = atLift(athlete, plan.variant.id);
  const pins = pinsFor({
    heights,
    start: plan.variant.start,
    hooksCm: rack.hooksCm ?? [],
    safetiesCm: rack.safetiesCm ?? [],
  });
  const way = heights && wayBetween(heights);
  const firstKg = own.sets.find((set) => set.loadKg !== undefined)?.loadKg;
  const lifter: FrozenLifter = {
    athleteId: athlete.id,
    name: athlete.name,
    unit: athlete.unit,
    line: profile?.line,
    ...(profile && profileReps.length > 0
      ? { tested: { metric: profile.line.metric, reps: [...profileReps], source: profile.source } }
      : {}),
    instructions: [...athlete.instructions],
    ...(own.rigging.kind === "rigged"
      ? { hang: addedBy(own.rigging.rig), hangs: piecesOf(own.rigging.rig) }
      : {}),
    ...(pins ? { pins } : {}),
    ...(way ? { travelM: way.m } : {}),
    ...(way?.measured ? { travelMeasured: true } : {}),
    ...setup,
    ...(lines.length > 0 ? { setup: lines } : {}),
    sets: own.sets,
    ...(addRestS === undefined ? {} : { addRestS }),
    ...(floorMps === undefined ? {} : { floorMps }),
    ...(firstKg === undefined ? {} : { rampKg: warmUpRamp(gear, firstKg) }),
    ...(lifetimeBestKg === undefined ? {} : { bestKg: lifetimeBestKg }),
  };
  return { lifter, rigging: own.rigging };
}

const piecesOf = ({ pieces }: Rig) =>
  pieces.map(({ what, perSide }) => ({ name: what.name, perSide }));
const addedBy = ({ bottomKg, meanKg, lockoutKg }: Rig) => ({ bottomKg, meanKg, lockoutKg });

/** What a day is, beside its slots. */
export interface DayFacts {
  title: string;
  /** Number of the published version that is lifted; 0 where none was published. */
  planVersion: number;
  date: LocalDate;
  zone: string;
  roomName: string;
}

/**
 * A day as it goes to the floor: its slots in their order, each station once. The result does not
 * change again.
 */
export function freezeDay(facts: DayFacts, parts: readonly DayPart[]): FrozenSession {
  const stations = new Map<string, FrozenStation>();
  for (const part of parts)
    for (const station of part.stations)
      if (!stations.has(station.id)) stations.set(station.id, station);
  const leftOut = parts.flatMap(({ slot, leftOut: codes }) =>
    [...codes].map(([athleteId, code]) => ({ athleteId, slotId: slot.slotId, code })),
  );
  const { title, planVersion, ...rest } = facts;
  return {
    coreVersion: CORE_VERSION,
    planVersion,
    title,
    ...(planVersion === 0 ? { draft: true as const } : {}),
    ...(leftOut.length > 0 ? { leftOut } : {}),
    ...rest,
    cautions: [...new Set([...parts.flatMap((part) => part.cautions), GENERAL_CAUTION])],
    stations: [...stations.values()].sort(
      (a, b) =>
        (a.kind === "rack" ? 0 : 1) - (b.kind === "rack" ? 0 : 1) ||
        a.name.localeCompare(b.name, "en", { numeric: true }),
    ),
    slots: parts.map((part) => part.slot),
  };
}

/** What a session of a plan's week is called. */
export const sessionTitle = (plan: {
  name: string;
  squadName: string;
  version: number;
  week: number;
  weeks: number;
}): string =>
  `${plan.name}${plan.version === 0 ? ", draft" : ""}, ${plan.squadName}, week ${plan.week} of ${plan.weeks}`;

/** One lift of a plan's week as a session of its own. */
export function freezeSession(
  input: LiftInput & { date: LocalDate; zone: string; roomName: string },
): FrozenSession {
  const { plan, week, date, zone, roomName } = input;
  const title = sessionTitle({ ...plan, week: week.number });
  return freezeDay({ title, planVersion: plan.version, date, zone, roomName }, [freezeLift(input)]);
}

/** A rack's pieces less those that other racks hold already. */
function stillThere(hang: HangStock, taken: ReadonlyMap<string, number>): HangStock {
  return {
    ...hang,
    pieces: hang.pieces.map((piece) => ({
      ...piece,
      perSide: Math.max(0, piece.perSide - (taken.get(piece.what.name) ?? 0)),
    })),
  };
}

/** Notes what a rack needs: who takes turns at it uses the same pieces one after the other. */
function take(taken: Map<string, number>, riggings: readonly Rigging[]): void {
  const most = new Map<string, number>();
  for (const rigging of riggings) {
    if (rigging.kind !== "rigged") continue;
    for (const { what, perSide } of rigging.rig.pieces) {
      most.set(what.name, Math.max(perSide, most.get(what.name) ?? 0));
    }
  }
  for (const [name, perSide] of most) taken.set(name, perSide + (taken.get(name) ?? 0));
}
