import { checkPlan, refusedInSlot } from "../../../core/checks/plan";
import { isOfPlan, liftsOf } from "../../../core/floor/frozen";
import {
  type Block,
  dateOf,
  daysOf,
  exerciseIn,
  isIn,
  pairingsOf,
  pairingWeek,
  type Slot,
  slotsOf,
  slotWeek,
  withAnswersOf,
} from "../../../core/plan/block";
import { rackFor } from "../../../core/plan/block-loads";
import { exerciseLoad, inHands } from "../../../core/plan/exercise-load";
import { methodWords } from "../../../core/prescribe/method";
import type { SetPrescription } from "../../../core/prescribe/prescribe";
import { daysBetween, type LocalDate } from "../../../core/units/time";
import { listComplexes } from "../../../db/queries/contrast.server";
import { listExercises } from "../../../db/queries/library.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { listPlans, newestVersions, type PlanRow } from "../../../db/queries/plans.server";
import { frozenById, sessionsOfPlan } from "../../../db/queries/sessions.server";
import { type InSquads, isFor } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate } from "../../platform/clock.server";
import { done, failed } from "../../platform/outcome";
import { mayAlone, standingOf } from "./alone.server";
import { loadsOf, pairingLifters } from "./pairing-loads.server";
import { checkInput } from "./plan-checks.server";
import { planLifters, prescribeSlot, sessionPlan } from "./plan-lifters.server";
import { blockRoom } from "./plan-room.server";
import type { AthleteRow } from "./read-lifters.server";

/**
 * What is published for an athlete from today on: every block of the next day on which something is
 * asked of them; none where nothing is.
 */
export async function readNextDays(tx: TeamTransaction, person: AthleteRow) {
  const days = [];
  const plans = (await listPlans(tx)).filter((row) => isFor(row.plan, person));
  const versions = await newestVersions(
    tx,
    plans.map((row) => row.plan.id),
  );
  for (const row of plans) {
    // What is published is what an athlete sees; a draft is the coaches'.
    const version = versions.get(row.plan.id);
    if (!version) continue;
    const { block } = version;
    const today = localDate(row.zone);
    for (const day of daysOf(block)) {
      for (let week = 1; week <= block.weeks; week++) {
        const date = dateOf(block, week, day);
        if (daysBetween(today, date) < 0 || !isIn(block, person.id, date)) continue;
        const slots = slotsOf(block, day.id).filter(
          (slot) => (slotWeek(block, slot, week)?.sets.length ?? 0) > 0,
        );
        const pairings = pairingsOf(block, day.id).flatMap((one) => {
          const own = pairingWeek(block, one, week);
          return own === undefined ? [] : [{ ...one, week: own }];
        });
        if (slots.length + pairings.length > 0)
          days.push({ row, block, day, week, date, slots, pairings, version });
      }
    }
  }
  days.sort((a, b) => a.date.localeCompare(b.date));
  const first = days[0];
  const today = localDate(first?.row.zone ?? "UTC");
  const shown = [];
  // A squad may train two blocks on one day: the card holds the whole day.
  for (const one of days.filter((day) => day.date === first?.date)) {
    const slots = await slotsOnCard(tx, one, person, today);
    if (!slots) return failed("no-rack", `${one.row.roomName} has no rack with a bar yet.`);
    shown.push({
      planId: one.row.plan.id,
      dayId: one.day.id,
      date: one.date,
      today,
      title: one.block.name,
      dayName: one.day.name,
      startAt: one.day.startAt,
      week: one.week,
      weeks: one.block.weeks,
      version: one.version.number,
      roomName: one.row.roomName,
      unit: person.unit ?? ("kg" as const),
      own: one.date === today ? await ownDay(tx, one, person, today) : undefined,
      slots,
      pairings: await pairingsOnCard(tx, one.pairings, person),
    });
  }
  return done({ today, days: shown });
}

/** Whether today's day runs already, with others or alone, and why it is not trained alone. */
async function ownDay(
  tx: TeamTransaction,
  one: { row: PlanRow; day: { id: string }; week: number },
  person: AthleteRow,
  today: LocalDate,
) {
  const day = { planId: one.row.plan.id, week: one.week, dayId: one.day.id };
  return {
    standing: await standingOf(tx, person, day),
    refusal: mayAlone(one.row, person, today, await coachValues(tx)),
  };
}

/** The pairings of a day with the athlete's own loads, each in the pairing's own week. */
async function pairingsOnCard(
  tx: TeamTransaction,
  pairings: ReadonlyArray<{ id: string; complexId: string; week: number }>,
  person: InSquads,
) {
  if (pairings.length === 0) return [];
  const complexes = await listComplexes(tx);
  const found = pairings.flatMap((one) => {
    const row = complexes.find((two) => two.lineageId === one.complexId);
    return row ? [{ id: one.id, week: one.week, complex: row.complex }] : [];
  });
  const [lifter] = await pairingLifters(
    tx,
    { squadId: null, athleteId: person.id },
    found.map((one) => one.complex),
  );
  return found.map(({ id, week, complex }) => {
    const numbers = lifter ? loadsOf(complex, week, lifter) : [];
    return {
      id,
      name: complex.name,
      rounds: complex.rounds,
      restS: complex.restS,
      items: complex.items.map((item, i) => ({
        id: item.id,
        name: item.name,
        reps: item.reps,
        kind: item.kind,
        sides: item.sides,
        gapS: i < complex.items.length - 1 ? item.gapS : undefined,
        number: numbers[i] ?? { words: "" },
      })),
    };
  });
}

/** An athlete's sets as they were settled for a rack, by slot, where the day is on the floor. */
async function onRacks(tx: TeamTransaction, planId: string, week: number, athleteId: string) {
  const sessions = (await sessionsOfPlan(tx, planId)).filter(
    (one) =>
      (one.ownOf === null || one.ownOf === athleteId) &&
      one.parts.some((part) => part.planId === planId && part.week === week),
  );
  const frozen = await frozenById(
    tx,
    sessions.map((one) => one.id),
  );
  const found = new Map<string, { rack: string; sets: SetPrescription[]; setup: string[] }>();
  for (const session of frozen.values()) {
    for (const lift of liftsOf(session)) {
      const slotId = lift.from?.slotId ?? lift.slotId;
      if (!isOfPlan(lift, { planId, week, slotId })) continue;
      for (const rack of lift.racks) {
        const own = rack.lifters.find((one) => one.athleteId === athleteId);
        if (own) found.set(slotId, { rack: rack.name, sets: own.sets, setup: own.setup ?? [] });
      }
    }
  }
  return found;
}

/** One slot of a card: a lift with every set, or an exercise in one line. */
export interface CardSlot {
  id: string;
  section: Slot["section"];
  /** Of a lift. */
  variantId: string | undefined;
  name: string;
  caution: string;
  /** Of an exercise: the team's short line for it. */
  cue: string;
  /** A refusal names this athlete, and no coach has answered it: no load is given. */
  refused: boolean;
  /** The rack whose plates are shown, once the athlete is on one. */
  rack: string | undefined;
  /** How it is done, a line each: method, tempo, contact, what hangs on the bar. */
  how: string[];
  rest: { leastS: number; mostS: number };
  counts: "reps" | "metres" | "contacts";
  sides: Slot["recipe"]["sides"];
  sets: SetPrescription[];
  free:
    | {
        sets: number;
        reps: number;
        repsTo: number | undefined;
        loadKg: number | undefined;
        /** Why a load is missing; undefined by eye or with body weight. */
        reason: string | undefined;
        hands: 1 | 2;
      }
    | undefined;
}

/** Every slot of a day with the athlete's numbers. */
async function slotsOnCard(
  tx: TeamTransaction,
  next: {
    row: PlanRow;
    block: Block;
    date: LocalDate;
    week: number;
    slots: Array<Slot & { id: string }>;
  },
  person: AthleteRow,
  today: LocalDate,
) {
  const { row, block, week } = next;
  const [athlete] = await planLifters(
    tx,
    row,
    block,
    today,
    [person],
    next.slots,
    next.date === today,
  );
  if (!athlete) return [];
  const room = await blockRoom(tx, row, athlete.unit);
  if (!room) return undefined;
  const answered = withAnswersOf(block, row.plan.block);
  const ofBlock = { ...row, plan: { ...row.plan, block: answered } };
  const checks = checkPlan(await checkInput(tx, ofBlock, [athlete], room, today));
  const atRacks = await onRacks(tx, row.plan.id, week, person.id);
  const exercises = (await listExercises(tx)).rows;
  const values = await coachValues(tx);
  return next.slots.flatMap((slot): CardSlot[] => {
    const wave = slotWeek(block, slot, week, room.settings);
    const plan = wave && sessionPlan(row, slot.id, block, wave, 0);
    const { stops, leftOut } = refusedInSlot(answered, checks, slot.id);
    const refused = stops.length > 0 || leftOut.has(person.id);
    const atRack = atRacks.get(slot.id);
    const shared = {
      refused,
      rack: atRack?.rack,
      id: slot.id,
      section: slot.section,
      rest: slot.recipe.rest,
      counts: slot.recipe.counts ?? "reps",
      sides: slot.recipe.sides,
    };
    if (!plan) {
      const exercise = exercises.find((one) => one.id === exerciseIn(block, slot, week));
      const first = wave?.sets[0];
      if (!wave || !first) return [];
      const load = exerciseLoad(first, athlete.bodyKg, inHands(block, slot, week, room));
      return [
        {
          ...shared,
          variantId: undefined,
          name: exercise?.name ?? slot.recipe.name,
          caution: "",
          cue: exercise?.cue ?? "",
          how: methodWords(slot.recipe, wave, undefined),
          sets: [],
          free: {
            sets: wave.sets.length,
            reps: first.reps,
            repsTo: first.repsTo,
            loadKg: load.kg,
            reason: load.reason,
            hands: slot.work.kind === "exercise" ? slot.work.hands : (1 as const),
          },
        },
      ];
    }
    const rack = rackFor(room, plan.variant.id);
    if (!rack.ok) return [];
    const prescribed = prescribeSlot({
      plan,
      block,
      week: wave,
      gear: rack.gear,
      hang: rack.hang,
      athlete,
    });
    return [
      {
        ...shared,
        variantId: plan.variant.id,
        name: plan.variant.name,
        caution: plan.variant.caution,
        cue: "",
        how:
          atRack && !refused
            ? atRack.setup
            : [
                ...methodWords(slot.recipe, wave, slot.box, values.smallestStopS),
                ...(refused ? [] : prescribed.words),
              ],
        // On a rack it is what that rack has; before it the room's first, without plates.
        sets: refused ? [] : (atRack?.sets ?? prescribed.sets),
        free: undefined,
      },
    ];
  });
}
