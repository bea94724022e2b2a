import type { CheckedAthlete, CheckedWork, CheckInput } from "../../../core/checks/input";
import type { School } from "../../../core/checks/school";
import { complexSettings } from "../../../core/contrast/complex-checks";
import type { Muscle, Pattern } from "../../../core/exercise/exercise";
import { LIFT_WORK, UPPER_PATTERNS } from "../../../core/exercise/lift-work";
import type { SpeedClass } from "../../../core/exercise/speed-classes";
import { liftSpeedClass } from "../../../core/liverules/speed-class";
import { limitHolds, refusals } from "../../../core/maxes/limits";
import { type Block, exerciseIn, lastDate, type Slot, slotWeek } from "../../../core/plan/block";
import { type BlockRoom, rackFor, variantIn } from "../../../core/plan/block-loads";
import { dayTimes } from "../../../core/plan/day-clock";
import { heaviestSets } from "../../../core/plan/heaviest";
import { atLift, basisFacts, type Lifter } from "../../../core/prescribe/lifter";
import { hangsIn } from "../../../core/prescribe/method";
import { riggingOf } from "../../../core/prescribe/rigging";
import type { LocalDate } from "../../../core/units/time";
import { listComplexes } from "../../../db/queries/contrast.server";
import { listExercises } from "../../../db/queries/library.server";
import { limitsOf } from "../../../db/queries/person.server";
import { listSchools } from "../../../db/queries/plan-library.server";
import { type PlanRow, plansInRoom, plansOfSquad } from "../../../db/queries/plans.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { boxFacts } from "./box-facts.server";
import { boxHistories } from "./box-history.server";
import { mainVariant } from "./plan-lifters.server";
import { type TeamValues, teamValues } from "./plan-room.server";

export interface WorkTable {
  lifts: Array<{ id: string; name: string; lift: string }>;
  exercises: Array<{
    id: string;
    name: string;
    pattern: Pattern;
    speedClass: SpeedClass;
    muscles: Muscle[];
    sides: string;
    away: boolean;
  }>;
}

/** The lifts and exercises of a team, as plan pages and checks know them. */
export async function workTable(tx: TeamTransaction, row: PlanRow): Promise<WorkTable> {
  const { rows } = await listExercises(tx);
  return {
    lifts: row.variants.map(({ id, name, lift }) => ({ id, name, lift })),
    exercises: rows.map((one) => ({
      id: one.id,
      name: one.name,
      pattern: one.pattern,
      speedClass: one.speedClass,
      muscles: one.main,
      sides: one.sides,
      away: one.putAwayAt !== null,
    })),
  };
}

/** What a slot trains, from the table; a fast aim makes a barbell lift strength-speed. */
export function workLookup(table: WorkTable) {
  return (slot: Slot, exerciseId: string | undefined): CheckedWork | undefined => {
    if (slot.work.kind === "lift") {
      const { variantId } = slot.work;
      const lift = table.lifts.find((one) => one.id === variantId);
      const work = lift && LIFT_WORK[lift.lift];
      if (!lift || !work) return undefined;
      return {
        name: lift.name,
        variation: lift.name,
        speedClass: liftSpeedClass(slot.recipe.aim),
        ...work,
      };
    }
    const exercise = table.exercises.find((one) => one.id === exerciseId && !one.away);
    if (!exercise) return undefined;
    return {
      name: exercise.name,
      variation: undefined,
      speedClass: exercise.speedClass,
      muscles: exercise.muscles,
      pattern: exercise.pattern,
      overhead: exercise.pattern === "vertical-push",
      upperBody: UPPER_PATTERNS.includes(exercise.pattern),
    };
  };
}

const REFUSED: Record<string, CheckedAthlete["refused"][number]["what"]> = {
  "relax-and-fire": "relax",
  "max-test": "max-test",
  "heavy-single": "heavy",
  "bands-chains": "bands-chains",
};

/** What a plan's page and its checks both read of the team. */
export async function planFacts(tx: TeamTransaction, row: PlanRow) {
  const [table, schools, people, complexes, team] = await Promise.all([
    workTable(tx, row),
    listSchools(tx),
    listAthletes(tx, row.plan),
    listComplexes(tx),
    teamValues(tx, row),
  ]);
  return { table, schools, people, complexes, ...(team satisfies TeamValues) };
}

export type PlanFacts = Awaited<ReturnType<typeof planFacts>>;

/**
 * Everything that the checks of a plan read.
 * @param known the team's facts, where they were read already
 */
export async function checkInput(
  tx: TeamTransaction,
  row: PlanRow,
  athletes: readonly Lifter[],
  room: BlockRoom,
  today: LocalDate,
  known?: PlanFacts,
): Promise<CheckInput> {
  const { block } = row.plan;
  const { table, schools, people, complexes, near, values } = known ?? (await planFacts(tx, row));
  const boxes = new Set(row.variants.filter((one) => one.lift === "box-squat").map(({ id }) => id));
  const onBox = Object.values(block.slots).some(
    ({ work }) => work.kind === "lift" && boxes.has(work.variantId),
  );
  const athleteIds = athletes.map((one) => one.id);
  const squats = row.variants.filter((one) => one.lift === "squat");
  const mainSquat = mainVariant(row.variants, "squat")?.id ?? "";
  const [limits, plans, others, histories] = await Promise.all([
    limitsOf(tx, athleteIds),
    plansOfSquad(tx, row),
    Object.values(block.days).some((day) => day.startAt) ? plansInRoom(tx, row) : [],
    onBox ? boxHistories(tx, athleteIds) : undefined,
  ]);
  const there = new Set(athleteIds);
  const boxed = onBox
    ? await boxFacts(tx, {
        people: people.filter((one) => there.has(one.id)),
        variantIds: [...boxes],
        roomId: row.plan.roomId,
        today,
        limits,
      })
    : undefined;
  const schoolIds = new Map(people.map((one) => [one.id, one.schoolId ?? undefined]));
  const birthYears = new Map(people.map((one) => [one.id, one.birthYear ?? undefined]));
  const own = schools.find((one) => one.id === block.schoolId)?.school;
  const first = schools[0]?.school as School;
  const squatIds = new Set(squats.map((one) => one.id));
  const squatMax = (athlete: Lifter) =>
    athlete.byVariant[mainSquat]?.workingMax ??
    Object.entries(athlete.byVariant).find(([id]) => squatIds.has(id))?.[1].workingMax;
  const lifts = [...new Set(limits.flatMap((one) => one.lift ?? []))];
  const checked = athletes.map((athlete): CheckedAthlete => {
    const ownLimits = limits.filter(
      (one) => one.athleteId === athlete.id && limitHolds(one, today),
    );
    const own = squatMax(athlete);
    return {
      id: athlete.id,
      name: athlete.name,
      trainingYears: athlete.trainingYears,
      squatPerBody: own && athlete.bodyKg !== undefined ? own.kg / athlete.bodyKg : undefined,
      maxOf: new Set(
        Object.entries(athlete.byVariant).flatMap(([id, facts]) => (facts.workingMax ? [id] : [])),
      ),
      staleOf: new Set(
        Object.entries(athlete.byVariant).flatMap(([id, facts]) =>
          facts.workingMax?.stale ? [id] : [],
        ),
      ),
      refused: [undefined, ...lifts].flatMap((lift) =>
        refusals({
          // Of every lift once, and of each lift those that are its own.
          limits: ownLimits.filter((one) => one.lift === lift),
          birthYear: lift === undefined ? birthYears.get(athlete.id) : undefined,
          lift: lift ?? "",
          today,
        }).flatMap((one) => {
          const what = REFUSED[one.guarded];
          return what ? [{ what, lift, because: one.because }] : [];
        }),
      ),
      caps: ownLimits.flatMap((one) =>
        one.capPercent === undefined || one.lift === undefined
          ? []
          : [{ lift: one.lift, percent: one.capPercent }],
      ),
      schoolId: schoolIds.get(athlete.id),
      box: boxed?.get(athlete.id),
      returns: (histories?.get(athlete.id)?.faults ?? []).filter(
        (one) => one.returnsAt !== undefined,
      ),
    };
  });
  return {
    block,
    school: own ?? first,
    schools: Object.fromEntries(schools.map((one) => [one.id, one.school])),
    settings: room.settings,
    workOf: workLookup(table),
    liftOf: (variantId) => table.lifts.find((one) => one.id === variantId),
    variationsOf: (lift) => table.lifts.filter((one) => one.lift === lift).map((one) => one.name),
    coachValues: values,
    complexSettings: complexSettings(values),
    complexOf: (id) => complexes.find((one) => one.lineageId === id)?.complex,
    athletes: checked,
    heaviest: Object.fromEntries(
      Object.entries(block.slots).map(([slotId, slot]) => [
        slotId,
        heaviestSets({ block, slotId, slot, athletes, room, liftName: "" }),
      ]),
    ),
    notHung: notHung(block, athletes, room),
    noBar: Object.entries(block.slots).flatMap(([slotId, slot]) => {
      const rack = slot.work.kind === "lift" ? rackFor(room, slot.work.variantId) : undefined;
      return rack && !rack.ok ? [{ slotId, reason: rack.reason }] : [];
    }),
    before: wavesBefore(plans, row, table),
    overlaps: overlapping(plans, row, table),
    inRoom: others.flatMap(({ id, name, block }) =>
      dayTimes(block, room.settings).map((one) => ({ ...one, planId: id, plan: name })),
    ),
    competitionWeeks: near.map(({ week, words, factor }) => ({
      week,
      words,
      factorSet: factor !== undefined,
    })),
  };
}

/** By slot and reason, for whom nothing can be hung in the first week that asks for it. */
function notHung(
  block: Block,
  athletes: readonly Lifter[],
  room: BlockRoom,
): CheckInput["notHung"] {
  return Object.entries(block.slots).flatMap(([slotId, slot]) => {
    const weeks = Array.from({ length: block.weeks }, (_, i) =>
      slotWeek(block, slot, i + 1, room.settings),
    );
    const week = weeks.find((one) => one !== undefined && hangsIn(slot.recipe, one));
    const variantId = week && variantIn(slot, week);
    if (!week || variantId === undefined) return [];
    const rack = rackFor(room, variantId);
    if (!rack.ok) return [];
    const byReason = new Map<string, string[]>();
    for (const athlete of athletes) {
      const at = atLift(athlete, variantId);
      const rigging = riggingOf({
        recipe: slot.recipe,
        week,
        facts: basisFacts(at, variantId, room.metric),
        heights: at.heights,
        stock: rack.hang,
        gear: rack.gear,
      });
      if (rigging.kind !== "not-rigged") continue;
      byReason.set(rigging.reason, [...(byReason.get(rigging.reason) ?? []), athlete.id]);
    }
    return [...byReason].map(([reason, athleteIds]) => ({ slotId, athleteIds, reason }));
  });
}

/** Lifts of the squad's blocks that ended before this one, the newest first. */
function wavesBefore(plans: readonly PlanRow[], row: PlanRow, table: WorkTable) {
  const lookup = workLookup(table);
  return plans
    .filter((one) => lastDate(one.plan.block) < row.plan.startDate)
    .slice(0, 3)
    .map((one) =>
      Object.values(one.plan.block.slots).flatMap((slot) => {
        const name = lookup(slot, exerciseIn(one.plan.block, slot, slot.fromWeek))?.variation;
        return name ? [name] : [];
      }),
    );
}

/** Other blocks of the squad whose dates meet this one's, and the lifts that both train. */
function overlapping(plans: readonly PlanRow[], row: PlanRow, table: WorkTable) {
  const lookup = workLookup(table);
  const liftsOf = (plan: PlanRow) =>
    Object.values(plan.plan.block.slots).flatMap(
      (slot) => lookup(slot, undefined)?.variation ?? [],
    );
  const own = new Set(liftsOf(row));
  const last = lastDate(row.plan.block);
  const shared = (plan: PlanRow) => [...new Set(liftsOf(plan).filter((lift) => own.has(lift)))];
  // Blocks that were split off for other athletes do not meet.
  const apart = (plan: PlanRow) => Object.keys(plan.plan.block.apart).length > 0;
  return plans
    .filter(
      (plan) =>
        !apart(plan) &&
        !apart(row) &&
        plan.plan.block.startDate <= last &&
        lastDate(plan.plan.block) >= row.plan.block.startDate,
    )
    .map((plan) => ({
      name: plan.plan.name,
      from: plan.plan.block.startDate,
      to: lastDate(plan.plan.block),
      lifts: shared(plan),
    }));
}
