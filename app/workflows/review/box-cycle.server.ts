import { uuidv7 } from "uuidv7";
import type { z } from "zod";
import { ladderStanding, RUNGS } from "../../../core/boxsquat/ladder";
import { PURPOSES, ROLES, styleById } from "../../../core/boxsquat/styles";
import { dateOf, lastDate, markOf, slotWeek } from "../../../core/plan/block";
import { percentOf } from "../../../core/recipe/recipe";
import { reviewBoxCycle } from "../../../core/review/box-cycle";
import { cycleSets } from "../../../core/review/cycle-sets";
import { type CycleSession, weekOf } from "../../../core/review/cycle-week";
import { speedAtEqualLoad } from "../../../core/review/equal-load";
import type { LiftSum } from "../../../core/review/session-sum";
import type { CoachValues } from "../../../core/settings/coach-values";
import { teamDefault } from "../../../core/settings/usual";
import { formatMass, plainNumber } from "../../../core/units/mass";
import { formatPercent } from "../../../core/units/percent";
import type { LocalDate } from "../../../core/units/time";
import { addCycleReview, cycleReviews, ladderMarks } from "../../../db/queries/box.server";
import { recordsOf } from "../../../db/queries/maxes.server";
import { setupsOf } from "../../../db/queries/person.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { listPlans, lockPlan, type PlanRow } from "../../../db/queries/plans.server";
import { listAthletes } from "../../../db/queries/squads.server";
import { liftDaysOfSlot } from "../../../db/queries/sums.server";
import type { TeamTransaction } from "../../../db/team.server";
import type { CycleReviewForm } from "../../forms/cycle";
import { localDate, now } from "../../platform/clock.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { boxHistory } from "../lifters/box-history.server";
import { blockRoom } from "../lifters/plan-room.server";
import { overSums } from "../lifters/session-sums.server";
import { readPlaces } from "../lifters/today.server";

/** Every slot on the box, of the plans that are not put away, the newest plan first. */
function cyclesOf(rows: readonly PlanRow[]) {
  return rows.flatMap((row) =>
    Object.entries(row.plan.block.slots).flatMap(([slotId, slot]) => {
      const { work } = slot;
      const variant =
        work.kind === "lift" ? row.variants.find((one) => one.id === work.variantId) : undefined;
      return variant?.lift === "box-squat" ? [{ row, slotId, slot, variant }] : [];
    }),
  );
}

type Cycle = ReturnType<typeof cyclesOf>[number];

interface Ran {
  week: number;
  date: LocalDate;
  lifters: Map<string, LiftSum>;
}

/** The sessions of a cycle as they were done, from their kept sums. */
async function sessionsRun(tx: TeamTransaction, cycle: Cycle): Promise<Ran[]> {
  const of = { planId: cycle.row.plan.id, slotId: cycle.slotId };
  const ran = new Map<string, Ran>();
  for (const { sessionId, week, date, athleteId, sum } of await liftDaysOfSlot(tx, of)) {
    if (week === null) continue;
    const there = ran.get(sessionId);
    if (there) there.lifters.set(athleteId, sum);
    else ran.set(sessionId, { week, date, lifters: new Map([[athleteId, sum]]) });
  }
  return [...ran.values()];
}

/** One athlete's sessions of a cycle up to today, those that were planned and not run too. */
function cycleSessions(
  cycle: Cycle,
  ran: readonly Ran[],
  athleteId: string,
  today: LocalDate,
  settings: Parameters<typeof slotWeek>[3],
): CycleSession[] {
  const { block } = cycle.row.plan;
  const day = block.days[cycle.slot.dayId];
  if (!day) return [];
  const sessions: CycleSession[] = [];
  for (let week = 1; week <= block.weeks; week++) {
    const one = ran.find((session) => session.week === week);
    const date = one?.date ?? dateOf(block, week, day);
    if (date > today) break;
    const plan = slotWeek(block, cycle.slot, week, settings);
    if (!one && (!plan || plan.sets.length === 0)) continue;
    const sum = one?.lifters.get(athleteId);
    const sets = sum && cycleSets(sum, sum.smallestStopS);
    sessions.push({
      week,
      date,
      kind: markOf(block, week)?.kind ?? "work",
      planned: {
        sets: sum?.setsPlanned ?? plan?.sets.length ?? 0,
        reps: sum?.repsPlanned ?? plan?.sets.reduce((n, set) => n + set.reps, 0) ?? 0,
      },
      heightCm: sum?.box?.heightCm,
      style: styleById(sum?.box?.styleId)?.name ?? styleById(cycle.slot.box?.styleId)?.name,
      sets: sets && sets.length > 0 ? sets : undefined,
    });
  }
  return sessions;
}

type Asked = { planId: string; slotId: string; athleteId: string };

/** A cycle on the box: everybody in a line, one athlete week by week, and its review. */
export async function readBoxCycle(principal: Principal, asked: Asked) {
  return overSums(principal, (tx) => boxCycleWithin(tx, asked));
}

async function boxCycleWithin(tx: TeamTransaction, asked: Asked) {
  const cycles = cyclesOf(await listPlans(tx));
  const cycle =
    cycles.find((one) => one.row.plan.id === asked.planId && one.slotId === asked.slotId) ??
    // One that begins today or later has nothing to be looked at yet.
    cycles.find((one) => one.row.plan.startDate < localDate(one.row.zone)) ??
    cycles[0];
  const list = cycles.map((one) => ({
    planId: one.row.plan.id,
    slotId: one.slotId,
    name: `${one.row.plan.block.name}, ${one.row.squadName}`,
    starts: one.row.plan.startDate,
  }));
  if (!cycle) return { cycles: list, cycle: undefined, people: [], athlete: undefined };
  const { row, slotId, slot } = cycle;
  const { block } = row.plan;
  const places = await readPlaces(tx);
  const at = { squadId: row.plan.squadId, roomId: row.plan.roomId };
  const today = places.todayOf(at);
  const dayOf = places.dayOf(at);
  const settings = (await blockRoom(tx, row, "kg"))?.settings ?? {};
  const ran = await sessionsRun(tx, cycle);
  const reviews = await cycleReviews(tx, row.plan.id, slotId);
  const squad = await listAthletes(tx, row.plan);
  const slopeOf = (athleteId: string) =>
    ran.flatMap((one) => one.lifters.get(athleteId)?.slopeMpsPerKg ?? []).at(-1);
  const people = squad.map((person) => {
    const weeks = cycleSessions(cycle, ran, person.id, today, settings).map(weekOf);
    const speed = speedAtEqualLoad(weeks, slopeOf(person.id));
    const there = weeks.filter((one) => one.present);
    const last = reviews.find((one) => one.athleteId === person.id);
    return {
      id: person.id,
      name: person.name,
      sessions: weeks.length,
      there: there.length,
      fromKg: there[0]?.loadKg,
      toKg: there.at(-1)?.loadKg,
      speed: speed.ok ? { changeMps: speed.changeMps, verdict: speed.verdict } : undefined,
      cut: weeks.reduce((sum, one) => sum + one.cutSets, 0),
      faults: there.at(-1)?.faults.map((one) => one.fault) ?? [],
      decided: last && { decision: last.decision, on: dayOf(last.enteredAt) },
    };
  });
  const person =
    squad.find((one) => one.id === asked.athleteId) ??
    squad.find((one) => people.some((two) => two.id === one.id && two.there > 0)) ??
    squad[0];
  return {
    cycles: list,
    cycle: {
      planId: row.plan.id,
      slotId,
      name: block.name,
      squadName: row.squadName,
      recipe: slot.recipe.name,
      weeks: block.weeks,
      starts: block.startDate,
      ends: lastDate(block),
      metric: row.plan.metric,
      box: slot.box && {
        purpose: PURPOSES[slot.box.purpose],
        role: ROLES[slot.box.role],
        style: styleById(slot.box.styleId)?.name ?? "",
        smallestStopS: slot.box.smallestStopS,
      },
    },
    people,
    athlete:
      person &&
      (await oneAthlete(tx, {
        person,
        cycle,
        sessions: cycleSessions(cycle, ran, person.id, today, settings),
        slope: slopeOf(person.id),
        today,
        settings,
        values: await coachValues(tx),
        reviews: reviews.filter((one) => one.athleteId === person.id),
        dayOf,
      })),
  };
}

export type BoxCyclePage = Awaited<ReturnType<typeof readBoxCycle>>;

interface OneAthlete {
  person: Awaited<ReturnType<typeof listAthletes>>[number];
  cycle: Cycle;
  sessions: CycleSession[];
  slope: number | undefined;
  today: LocalDate;
  settings: Parameters<typeof slotWeek>[3];
  values: CoachValues;
  reviews: Awaited<ReturnType<typeof cycleReviews>>;
  /** The day of a moment where the squad trains. */
  dayOf: (at: Date) => string;
}

async function oneAthlete(tx: TeamTransaction, input: OneAthlete) {
  const { person, cycle, sessions, today } = input;
  const { block } = cycle.row.plan;
  const history = await boxHistory(tx, person.id);
  const reached = sessions.at(-1)?.week ?? 0;
  const review = reviewBoxCycle({
    sessions,
    slope: input.slope,
    depthSets: history.depth,
    faults: history.faults,
    nextPercent: percentAfter(cycle, reached, input.settings),
    today,
    fewCutPercent: teamDefault(input.values, "fewCutPercent"),
    depthAsked: {
      weeks: teamDefault(input.values, "depthWeeks"),
      percent: teamDefault(input.values, "fullDepthPercent"),
    },
  });
  const marks = await ladderMarks(tx, person.id);
  const from = block.startDate;
  const records = (await recordsOf(tx, person.id)).filter(
    (one) => one.variantId === cycle.variant.id || cycle.variant.baseId === one.variantId,
  );
  const setups = await setupsOf(tx, person.id);
  const trial = setups.find((one) => one.variantId === cycle.variant.id);
  const events = [
    ...marks.map((one) => ({
      on: one.date,
      what: `${one.outcome === "passed" ? "Passed" : "Back to"}: ${RUNGS.find((rung) => rung.id === one.rungId)?.name ?? one.rungId}${one.load ? `, speed weight ${formatMass(one.load)}` : ""}${one.note ? `. ${one.note}` : ""}`,
    })),
    ...records.map((one) => ({
      on: one.date,
      what: `${one.kind === "tested" ? "Tested" : "Record"}: ${cycle.row.variants.find((two) => two.id === one.variantId)?.name ?? "lift"} ${formatMass(one.load)}${one.note ? `. ${one.note}` : ""}`,
    })),
  ]
    .filter((one) => one.on >= from && one.on <= today)
    .sort((a, b) => a.on.localeCompare(b.on));
  const stand = ladderStanding(marks.map((one) => ({ ...one, by: one.enteredBy })));
  return {
    id: person.id,
    name: person.name,
    review,
    reached,
    events,
    ladder: stand.ready
      ? "All rungs passed."
      : marks.length === 0
        ? "Not on the teaching ladder."
        : `On the ladder: ${stand.rung?.name ?? ""}.`,
    trial:
      trial?.boxSeatCm == null || trial.boxCreaseCm == null
        ? "No trial seat: the height is not measured."
        : `Trial: seated at ${plainNumber(trial.boxSeatCm, 1)} cm, crease ${plainNumber(trial.boxCreaseCm, 1)} cm.`,
    faults: history.faults.map((one) => ({
      ...one,
      back: one.returnsAt === undefined ? undefined : formatPercent(one.returnsAt),
    })),
    decisions: input.reviews.map((one) => ({
      id: one.id,
      week: one.week,
      decision: one.decision,
      note: one.note,
      evidence: one.evidence,
      by: one.enteredBy,
      on: input.dayOf(one.enteredAt),
    })),
  };
}

/** The highest share of the max that the slot asks for in its next week; undefined at its end. */
function percentAfter(cycle: Cycle, week: number, settings: Parameters<typeof slotWeek>[3]) {
  const { block } = cycle.row.plan;
  for (let next = week + 1; next <= block.weeks; next++) {
    const plan = slotWeek(block, cycle.slot, next, settings);
    const percents = (plan?.sets ?? []).flatMap((set) => percentOf(set) ?? []);
    if (percents.length > 0) return Math.max(...percents);
  }
  return undefined;
}

/** Keeps a coach's word on an athlete's cycle, with what stands then as its evidence. */
export function decideCycle(
  principal: Principal,
  input: z.output<typeof CycleReviewForm>,
): Promise<Outcome<{ decision: string }>> {
  return inTeamOnce(principal, (tx) => decideWithin(tx, principal, input));
}

const NO_CYCLE = failed("no-cycle", "This cycle is not there any more. Choose another above.");

async function decideWithin(
  tx: TeamTransaction,
  principal: Principal,
  input: z.output<typeof CycleReviewForm>,
): Promise<Outcome<{ decision: string }>> {
  // Two coaches who decide at once do so one after the other, each on what then stands.
  if (!(await lockPlan(tx, input.planId))) return NO_CYCLE;
  const { athlete, cycle } = await boxCycleWithin(tx, input);
  if (!athlete || !cycle || athlete.id !== input.athleteId || cycle.planId !== input.planId)
    return NO_CYCLE;
  if (athlete.reached === 0)
    return failed("not-begun", "This cycle has not begun: there is nothing to decide on.");
  if (!agrees(athlete.review.proposal, input.decision) && input.note.length < 3)
    return failed(
      "no-reason",
      "This is another way than the figures propose. Write the reason in a few words.",
    );
  await addCycleReview(tx, {
    id: uuidv7(),
    athleteId: input.athleteId,
    planId: input.planId,
    slotId: input.slotId,
    week: athlete.reached,
    decision: input.decision,
    note: input.note,
    evidence: athlete.review.findings.map((one) => one.words),
    enteredBy: principal.name,
    enteredAt: now(),
  });
  return done({ decision: input.decision });
}

/** Only raising, holding and lowering are proposed; anything else is the coach's own. */
const agrees = (proposal: string, decision: string) =>
  proposal === "not-enough" ||
  proposal === decision ||
  !["raise", "hold", "lower"].includes(decision);
