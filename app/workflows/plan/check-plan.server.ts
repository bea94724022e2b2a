import type { CheckedAthlete, CheckedWork, CheckInput } from "../../../core/checks/input";
import type { School } from "../../../core/checks/school";
import { limitHolds, refusals } from "../../../core/maxes/limits";
import type { BlockAthlete, BlockRoom } from "../../../core/session/blocknumbers";
import type { Muscle, Pattern, SpeedClass } from "../../../core/session/exercise";
import { LIFT_WORK, UPPER_PATTERNS } from "../../../core/session/liftwork";
import { exerciseIn, lastDate, type Slot } from "../../../core/wave/block";
import { listExercises } from "../../../db/queries/library.server";
import { limitsOf } from "../../../db/queries/person.server";
import { listSchools } from "../../../db/queries/plan-library.server";
import { listPlans, type PlanRow } from "../../../db/queries/plans.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { competitionWeeks } from "./block-athletes.server";

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
      const fast = slot.recipe.aim === "speed" || slot.recipe.aim === "power";
      return {
        name: lift.name,
        variation: lift.name,
        speedClass: fast ? "strength-speed" : "absolute-strength",
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

const REFUSED: Record<string, "heavy" | "bands-chains" | "max-test"> = {
  "max-test": "max-test",
  "heavy-single": "heavy",
  "bands-chains": "bands-chains",
};

/** Everything that the checks of a plan read. */
export async function checkInput(
  tx: TeamTransaction,
  row: PlanRow,
  athletes: readonly BlockAthlete[],
  room: BlockRoom,
  today: string,
  school?: School,
): Promise<CheckInput> {
  const { block } = row.plan;
  const [table, schools, people, limits, near] = await Promise.all([
    workTable(tx, row),
    listSchools(tx),
    listAthletes(tx, row.plan.squadId),
    limitsOf(tx),
    competitionWeeks(tx, row),
  ]);
  const plans = await listPlans(tx);
  const birthYears = new Map(people.map((one) => [one.id, one.birthYear ?? undefined]));
  const own = school ?? schools.find((one) => one.school.name === block.school)?.school;
  const first = schools[0]?.school as School;
  const squats = new Set(row.variants.filter((one) => one.lift === "squat").map((one) => one.id));
  const checked = athletes.map((athlete): CheckedAthlete => {
    const ownLimits = limits.filter(
      (one) => one.athleteId === athlete.id && limitHolds(one, today),
    );
    const squat = Object.entries(athlete.byVariant).find(([id]) => squats.has(id))?.[1].workingMax;
    return {
      id: athlete.id,
      name: athlete.name,
      trainingYears: athlete.trainingYears,
      squatPerBody: squat && athlete.bodyKg !== undefined ? squat.kg / athlete.bodyKg : undefined,
      maxOf: new Set(
        Object.entries(athlete.byVariant).flatMap(([id, facts]) => (facts.workingMax ? [id] : [])),
      ),
      staleOf: new Set(
        Object.entries(athlete.byVariant).flatMap(([id, facts]) =>
          facts.workingMax?.stale ? [id] : [],
        ),
      ),
      refused: refusals({
        limits: ownLimits,
        birthYear: birthYears.get(athlete.id),
        lift: "",
        today,
      }).flatMap((one) => {
        const what = REFUSED[one.guarded];
        return what ? [{ what, because: one.because }] : [];
      }),
      caps: ownLimits.flatMap((one) =>
        one.capPercent === undefined || one.lift === undefined
          ? []
          : [{ lift: one.lift, percent: one.capPercent }],
      ),
    };
  });
  return {
    block,
    school: own ?? first,
    settings: room.settings,
    workOf: workLookup(table),
    liftOf: (variantId) => table.lifts.find((one) => one.id === variantId),
    athletes: checked,
    before: wavesBefore(plans, row, table),
    overlaps: overlapping(plans, row, table),
    competitionWeeks: near.map(({ week, words, factor }) => ({
      week,
      words,
      factorSet: factor !== undefined,
    })),
  };
}

/** Lifts of the squad's blocks that ended before this one, the newest first. */
function wavesBefore(plans: readonly PlanRow[], row: PlanRow, table: WorkTable) {
  const lookup = workLookup(table);
  return plans
    .filter(
      (one) =>
        one.plan.id !== row.plan.id &&
        one.plan.squadId === row.plan.squadId &&
        lastDate(one.plan.block) < row.plan.startDate,
    )
    .sort((a, b) => b.plan.startDate.localeCompare(a.plan.startDate))
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
        plan.plan.id !== row.plan.id &&
        plan.plan.squadId === row.plan.squadId &&
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
