import type { PlanCheck } from "../../../core/checks/input";
import { checkPlan, refusedInSlot } from "../../../core/checks/plan";
import { BREATHING_NAMES } from "../../../core/checks/school";
import { simplerComplex } from "../../../core/contrast/adapt";
import type { Complex } from "../../../core/contrast/complex";
import { checkComplex, complexSettings } from "../../../core/contrast/complex-checks";
import { runSettings } from "../../../core/contrast/run-settings";
import {
  type DayPart,
  freezeLift,
  type LifterSetup,
  type LiftInput,
} from "../../../core/floor/freeze";
import { freezeExercise, type PlaceStation } from "../../../core/floor/freeze-exercise";
import type { FrozenPairingAthlete, InDay } from "../../../core/floor/frozen";
import { placeOfPattern, placesFor } from "../../../core/floor/places";
import { barFits, noBarWords } from "../../../core/gear/bars";
import type { PlaceKind } from "../../../core/gear/kinds";
import {
  type Block,
  exerciseIn,
  isIn,
  leadSlot,
  ownInSlot,
  pairingsOf,
  pairingWeek,
  type Slot,
  slotsOf,
  slotWeek,
  TEMPLATE_ORDER,
  withAnswersOf,
} from "../../../core/plan/block";
import { variantIn } from "../../../core/plan/block-loads";
import type { Lifter } from "../../../core/prescribe/lifter";
import type { WaveWeek } from "../../../core/recipe/recipe";
import type { CoachValues } from "../../../core/settings/coach-values";
import type { MassUnit } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import { listComplexes } from "../../../db/queries/contrast.server";
import { roomById } from "../../../db/queries/gear.server";
import { listExercises } from "../../../db/queries/library.server";
import { newestVersion, type PlanRow, planById } from "../../../db/queries/plans.server";
import { sessionsOfPlan } from "../../../db/queries/sessions.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate } from "../../platform/clock.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import { isOfFloor } from "../lifters/alone.server";
import { rackSetups } from "../lifters/box-seat.server";
import { ownGaps } from "../lifters/own-gaps.server";
import { loadsOf, pairingLifters } from "../lifters/pairing-loads.server";
import { checkInput } from "../lifters/plan-checks.server";
import { planLifters, sessionPlan, slotOverrides } from "../lifters/plan-lifters.server";
import { blockRoom } from "../lifters/plan-room.server";
import type { RoomStations } from "./free-stations.server";

/** A day of a plan about to be started, with who is here for it. */
export interface PlanDay {
  row: PlanRow;
  block: Block;
  week: number;
  /** Slots and pairings of it that are started, in their order. */
  slots: Array<Slot & { id: string; wave: WaveWeek }>;
  pairings: Array<{ id: string; complex: Complex; week: number }>;
  room: { id: string; name: string; zone: string };
  date: LocalDate;
  version: number;
  published: boolean;
  unit: MassUnit;
  /** Some of it is on the floor already, or was. */
  begun: boolean;
  athletes: Lifter[];
  /** Of the plan, and not here. */
  absent: Lifter[];
  checks: PlanCheck[];
  breathing: string;
  planRoom: NonNullable<Awaited<ReturnType<typeof blockRoom>>>;
}

const NO_WEEK = failed("no-week", "This plan has no such week, or nothing to do in it.");

/**
 * Opens a plan's day and finds who is here, or says why it cannot be started. Who starts it locks the
 * plan before.
 */
export async function openPlanDay(
  tx: TeamTransaction,
  asked: { planId: string; week: number; slotIds?: string[] | undefined; dayId?: string },
  by: { unit: MassUnit; present: readonly string[] | "everybody"; at: Date },
): Promise<Outcome<PlanDay>> {
  const row = await planById(tx, asked.planId);
  if (!row) return failed("no-plan", "This plan is no longer there. Open the plan list.");
  const room = await roomById(tx, row.plan.roomId);
  // What was published is done; before the first publication the plan as it stands, as a draft.
  const published = await newestVersion(tx, row.plan.id);
  const { block } = published ?? row.plan;
  const planRoom = await blockRoom(tx, row, by.unit);
  if (!room) return NO_WEEK;
  if (!planRoom)
    return failed("no-rack", `${room.name} has no rack with a bar yet, so no load can be built.`);
  const asksFor = new Set(asked.slotIds ?? []);
  const dayId =
    asked.dayId ??
    Object.entries(block.slots).find(([id]) => asksFor.has(id))?.[1].dayId ??
    Object.entries(block.pairings ?? {}).find(([id]) => asksFor.has(id))?.[1].dayId ??
    leadSlot(block)?.dayId ??
    "";
  const wanted = (id: string) => asked.slotIds === undefined || asksFor.has(id);
  const slots = slotsOf(block, dayId).flatMap((slot) => {
    const wave = slotWeek(block, slot, asked.week, planRoom.settings);
    return wave && wave.sets.length > 0 && wanted(slot.id) ? [{ ...slot, wave }] : [];
  });
  const complexes = await listComplexes(tx);
  const pairings = pairingsOf(block, dayId).flatMap((pairing) => {
    const week = pairingWeek(block, pairing, asked.week);
    const complex = complexes.find((one) => one.lineageId === pairing.complexId)?.complex;
    return week !== undefined && complex && wanted(pairing.id)
      ? [{ id: pairing.id, complex, week }]
      : [];
  });
  if (slots.length === 0 && pairings.length === 0) return NO_WEEK;
  const begun = new Set(
    (await sessionsOfPlan(tx, row.plan.id))
      .filter(isOfFloor(row))
      .flatMap((one) =>
        one.parts.flatMap((part) =>
          part.planId === row.plan.id && part.week === asked.week ? [part.slotId] : [],
        ),
      ),
  );

  const date = localDate(room.zone, by.at);
  const everybody = (await listAthletes(tx, row.plan)).filter((one) => isIn(block, one.id, date));
  const all = await planLifters(tx, row, block, date, everybody, slots, true);
  const { present } = by;
  const athletes = present === "everybody" ? all : all.filter((one) => present.includes(one.id));
  if (athletes.length === 0) {
    return failed("nobody", "Nobody is ticked as here. Tick who is, then start.");
  }
  const answered = withAnswersOf(block, row.plan.block);
  const ofBlock = { ...row, plan: { ...row.plan, block: answered } };
  const checked = await checkInput(tx, ofBlock, athletes, planRoom, date);
  const absent = all.filter((one) => !athletes.includes(one));
  const later =
    absent.length > 0 ? checkPlan(await checkInput(tx, ofBlock, absent, planRoom, date)) : [];
  return done({
    row: ofBlock,
    block: answered,
    week: asked.week,
    slots,
    pairings,
    room,
    date,
    version: published?.number ?? 0,
    published: published !== undefined,
    unit: by.unit,
    begun: [...slots, ...pairings].some((one) => begun.has(one.id)),
    athletes,
    absent,
    // Who may come in later is asked about by name; what stops a slot is of those who are here.
    checks: [...checkPlan(checked), ...later.filter((one) => one.athletes !== undefined)],
    breathing: BREATHING_NAMES[checked.school.breathing],
    planRoom,
  });
}

/** Who lifts where and in which order, by the slot's name in the session. */
export type GroupsBySlot = Readonly<
  Record<string, ReadonlyArray<{ rackId: string; order: string[] }>>
>;

interface Settling {
  values: CoachValues;
  /** Before each slot's name, where several plans run in one session. */
  prefix: string;
  /** Lifts that are grouped as somebody said; the others by load. */
  groups?: GroupsBySlot | undefined;
}

/** A part of a day; of a lift with what it was settled from. */
export type SettledPart = DayPart & { lift?: LiftInput };

/** Everything of a plan's day settled for the stations that are free, in the day's order. */
export async function partsOfDay(
  tx: TeamTransaction,
  day: PlanDay,
  stations: RoomStations,
  how: Settling,
): Promise<Outcome<SettledPart[]>> {
  const order = TEMPLATE_ORDER[day.block.template];
  const parts: Array<SettledPart & { at: number }> = [];
  const exercises = (await listExercises(tx)).rows;
  for (const slot of day.slots) {
    const noRack = slot.work.kind === "lift" ? rackProblem(day, slot, stations) : undefined;
    if (noRack) return noRack;
    const { stops, leftOut } = refusedInSlot(day.block, day.checks, slot.id);
    if (stops[0]) {
      return failed(
        "refused",
        `Not started: a check of this plan is refused. ${stops[0].text} Change it, or answer it with a reason in the plan's checks.`,
      );
    }
    const mayDo = (one: Lifter) => !leftOut.has(one.id);
    const athletes = day.athletes.filter(mayDo);
    if (athletes.length === 0 && day.slots.length === 1) {
      return failed(
        "all-refused",
        `Not started: everybody here is refused. ${[...leftOut.values()][0]?.text ?? ""} Answer it with a reason in the plan's checks, or give them another slot.`,
      );
    }
    const people = {
      athletes,
      absent: day.absent.filter(mayDo),
      leftOut: new Map(
        [...leftOut].flatMap(([id, check]) =>
          day.athletes.some((one) => one.id === id) ? [[id, check.code] as const] : [],
        ),
      ),
      inDay: inDayOf(day, slot.id, slot.section, slot.group),
    };
    const at = order.indexOf(slot.section);
    if (slot.work.kind === "lift") {
      const lift = await liftPart(tx, day, slot, stations, how, people);
      if (!lift.ok) return lift;
      parts.push({ ...lift.value, at });
      continue;
    }
    const exercise = exercises.find((one) => one.id === exerciseIn(day.block, slot, day.week));
    if (!exercise) continue;
    const part = freezeExercise({
      block: day.block,
      slotId: slot.id,
      slot,
      week: slot.wave,
      exercise,
      ...people,
      room: day.planRoom,
      places: placesFor(
        slot.doneAt ?? placeOfPattern(exercise.pattern),
        stations.places,
        day.room.id,
      ),
      name: `${how.prefix}${slot.id}`,
    });
    parts.push({ ...part, at });
  }
  for (const pairing of day.pairings) {
    const part = await pairingPart(tx, day, pairing, stations, how);
    if (part) parts.push({ ...part, at: order.indexOf("power") });
  }
  if (!parts.some((part) => part.slot.groups.length > 0)) return NO_WEEK;
  // Pairings stand in the power section, after what else it holds; slots are in order already.
  return done(parts.sort((a, b) => a.at - b.at));
}

const inDayOf = (
  day: PlanDay,
  slotId: string,
  section: NonNullable<InDay["section"]>,
  group: string,
): Omit<InDay, "slotId"> => ({
  section,
  ...(group === "" ? {} : { group }),
  from: { planId: day.row.plan.id, week: day.week, slotId },
});

/** The racks that have a slot's kind of bar. */
function racksFor(day: PlanDay, slot: PlanDay["slots"][number], racks: RoomStations["racks"]) {
  const variantId = variantIn(slot, slot.wave);
  const bar = day.row.variants.find((one) => one.id === variantId)?.bar ?? "";
  return racks.filter((rack) => barFits(bar, rack.bar));
}

/** Why no rack is there for a lift: none has its bar, or all that have are in use. */
function rackProblem(day: PlanDay, slot: PlanDay["slots"][number], stations: RoomStations) {
  if (racksFor(day, slot, stations.racks).length > 0) return undefined;
  const { name } = day.room;
  const variantId = variantIn(slot, slot.wave);
  const bar = day.row.variants.find((one) => one.id === variantId)?.bar ?? "";
  return stations.allRacks.length > 0 && racksFor(day, slot, stations.allRacks).length === 0
    ? failed("no-bar", noBarWords(bar, name))
    : failed("no-rack", `Every rack in ${name} is in use. End the running session first.`);
}

async function liftPart(
  tx: TeamTransaction,
  day: PlanDay,
  slot: PlanDay["slots"][number],
  stations: RoomStations,
  how: Settling,
  people: Pick<Parameters<typeof freezeLift>[0], "athletes" | "absent" | "leftOut" | "inDay">,
): Promise<Outcome<SettledPart>> {
  const { row, block, room } = day;
  const plan = sessionPlan(row, slot.id, block, slot.wave, day.version);
  if (!plan) return NO_WEEK;
  const racks = racksFor(day, slot, stations.racks);
  const setups =
    plan.variant.lift === "box-squat"
      ? await rackSetups(tx, {
          athleteIds: [...people.athletes, ...(people.absent ?? [])].map((one) => one.id),
          variantId: plan.variant.id,
          roomId: room.id,
          offsetCm: plan.box?.offsetCm,
          breathing: day.breathing,
        })
      : new Map<string, LifterSetup>();
  const slotId = `${how.prefix}${slot.id}`;
  const groups = how.groups?.[slotId];
  if (groups && !isEverybody(groups, people.athletes, racks)) return GROUPS_CHANGED;
  const lift: LiftInput = {
    plan: { ...plan, slotId },
    week: slot.wave,
    ...people,
    setups,
    racks,
    ...(groups ? { groups } : {}),
    overrides: slotOverrides(block, slot.id),
    own: ownInSlot(block, slot.id),
    coachValues: how.values,
  };
  return done({ ...freezeLift(lift), lift });
}

const GROUPS_CHANGED = failed(
  "groups-changed",
  "These groups do not fit any more: somebody else is here, or a rack is in use. Look at them again, then start.",
);

/** Whether groups have everybody once, at racks that are free. */
function isEverybody(
  groups: ReadonlyArray<{ rackId: string; order: readonly string[] }>,
  athletes: readonly Lifter[],
  racks: RoomStations["racks"],
): boolean {
  const placed = groups.flatMap((group) => group.order);
  const used = groups.map((group) => group.rackId);
  return (
    new Set(used).size === used.length &&
    used.every((id) => racks.some((rack) => rack.rackId === id)) &&
    placed.length === athletes.length &&
    athletes.every((one) => placed.includes(one.id))
  );
}

/** Where a pairing's light work is done. */
const PLACE_OF_ITEM: Partial<Record<Complex["items"][number]["kind"], PlaceKind>> = {
  throw: "wall",
  jump: "strip",
  sprint: "lane",
};

async function pairingPart(
  tx: TeamTransaction,
  day: PlanDay,
  pairing: PlanDay["pairings"][number],
  stations: RoomStations,
  how: Settling,
): Promise<DayPart | undefined> {
  const { complex, week } = pairing;
  const here = new Set(day.athletes.map((one) => one.id));
  const people = (await pairingLifters(tx, day.row.plan, [complex])).filter((one) =>
    here.has(one.lifter.id),
  );
  if (people.length === 0) return undefined;
  const gaps = complex.aim === "potentiation" ? await ownGaps(tx) : new Map<string, number>();
  const settings = complexSettings(how.values);
  const athletes = people.map((one): FrozenPairingAthlete => {
    const { lifter } = one;
    // Who is not strong enough yet does the simpler version, as the pairing's own page offers it.
    const simpler = checkComplex(
      complex,
      [
        {
          name: lifter.name,
          squatPerBody: one.squatPerBody,
          trainingYears: lifter.trainingYears,
        },
      ],
      true,
      settings,
    ).some((check) => check.code === "strength-first");
    const gapS = gaps.get(lifter.id);
    return {
      athleteId: lifter.id,
      name: lifter.name,
      unit: lifter.unit ?? "kg",
      simpler,
      ...(gapS === undefined ? {} : { gapS }),
      loads: loadsOf(simpler ? simplerComplex(complex) : complex, week, one),
    };
  });
  const light = complex.items.findLast((item) => item.kind !== "lift");
  const places: PlaceStation[] = placesFor(
    (light && PLACE_OF_ITEM[light.kind]) ?? "open floor",
    stations.places,
    day.room.id,
  );
  const [place] = places;
  if (!place) return undefined;
  return {
    slot: {
      kind: "pairing",
      slotId: `${how.prefix}${pairing.id}`,
      ...inDayOf(day, pairing.id, "power", ""),
      complex,
      settings: runSettings(how.values),
      groups: [{ stationId: place.id, athletes }],
    },
    stations: [place],
    cautions: [],
    leftOut: new Map(),
  };
}
