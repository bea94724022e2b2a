import { plainMax } from "../../../core/maxes/records";
import { competitionMark, describeMark } from "../../../core/maxes/season";
import type { Block } from "../../../core/plan/block";
import type { BlockAthlete, BlockRoom, LiftFacts } from "../../../core/plan/block-loads";
import type { RecipeSettings } from "../../../core/recipe/recipe";
import type { CoachValues } from "../../../core/settings/coach-values";
import { massKg } from "../../../core/units/mass";
import { addDays } from "../../../core/units/time";
import { racksOf } from "../../../db/queries/gear.server";
import { singlesOf } from "../../../db/queries/maxes.server";
import { competitions, instructionsOn, newestMasses } from "../../../db/queries/person.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import type { PlanRow } from "../../../db/queries/plans.server";
import { newestProfiles, profileTests } from "../../../db/queries/profiles.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { analyseTest } from "./analyse-test.server";
import { trainingYears } from "./plan-athletes.server";
import { readMaxes } from "./resolve-maxes.server";

export const recipeSettings = (values: CoachValues): RecipeSettings => ({
  deloadSets: values.deloadSets,
  deloadLoad: values.deloadLoad,
});

/** The lifts that a block uses, the methods of its rotations included. */
export function variantsUsed(block: Block): string[] {
  const used = Object.values(block.slots).flatMap((slot) => [
    ...(slot.work.kind === "lift" ? [slot.work.variantId] : []),
    ...[...slot.recipe.weeks, ...(slot.recipe.tail ?? [])].flatMap(
      (week) => week.method?.variantId ?? [],
    ),
  ]);
  return [...new Set(used)];
}

/**
 * Everybody of a plan's squad with what they bring to every lift of the block.
 * @param everybody the squad, where it was read already
 */
export async function blockAthletes(
  tx: TeamTransaction,
  row: PlanRow,
  block: Block,
  today: string,
  everybody?: Awaited<ReturnType<typeof listAthletes>>,
): Promise<BlockAthlete[]> {
  const used = variantsUsed(block);
  const squad = everybody ?? (await listAthletes(tx, row.plan.squadId));
  const people = squad.filter((one) => !block.apart[one.id]);
  const athleteIds = people.map((one) => one.id);
  const [maxes, instructions, newest, masses, peaks] = await Promise.all([
    readMaxes(tx, () => today, athleteIds, used, row.variants),
    instructionsOn(tx, today),
    newestProfiles(tx, { athleteIds, variantIds: used }),
    newestMasses(tx, athleteIds),
    peaksOf(tx, row, block),
  ]);
  const profiles = new Map(newest.map((one) => [`${one.athleteId}/${one.variantId}`, one]));
  const massOf = new Map(masses.map((one) => [one.athleteId, one]));
  return people.map((person) => {
    const own = maxes(person.id);
    const mass = massOf.get(person.id);
    return {
      id: person.id,
      name: person.name,
      unit: person.unit ?? undefined,
      instructions: instructions.get(person.id) ?? [],
      trainingYears: trainingYears(person.trainingSince, today),
      bodyKg: mass && massKg(mass.mass),
      byVariant: Object.fromEntries(
        used.map((variantId): [string, LiftFacts] => {
          const found = own.of(variantId);
          const profile = profiles.get(`${person.id}/${variantId}`);
          return [
            variantId,
            {
              workingMax: "max" in found ? plainMax(found.max) : undefined,
              profile: profile && {
                line: profile.line,
                variantId,
                testedOn: profile.testedOn,
              },
              ...peaks.get(`${person.id}/${variantId}`),
            },
          ];
        }),
      ),
    };
  });
}

/** Peak force and power of the newest tests, read only where a recipe asks for them. */
async function peaksOf(tx: TeamTransaction, row: PlanRow, block: Block) {
  const asks = Object.values(block.slots).filter((slot) =>
    ["peak-force", "peak-power"].includes(slot.recipe.basis),
  );
  const found = new Map<string, { peakForceMps?: number | undefined; peakPowerKg: number }>();
  if (asks.length === 0) return found;
  const singles = await singlesOf(tx);
  const wanted = new Set(
    asks.flatMap((slot) => (slot.work.kind === "lift" ? slot.work.variantId : [])),
  );
  for (const test of await profileTests(tx, {})) {
    const key = `${test.athleteId}/${test.variantId}`;
    const variant = row.variants.find((one) => one.id === test.variantId);
    if (!variant || !wanted.has(test.variantId) || found.has(key)) continue;
    const own = singles.filter((one) => one.athleteId === test.athleteId);
    const { power } = analyseTest(test, variant, own);
    if (!power) continue;
    found.set(key, {
      peakForceMps: power.peakForce?.velocityMps,
      peakPowerKg: power.peakPower.loadKg,
    });
  }
  return found;
}

/** Weeks near a competition, and what the team's coaches have set. */
export interface TeamValues {
  values: CoachValues;
  near: CompetitionWeek[];
}

export async function teamValues(tx: TeamTransaction, row: PlanRow): Promise<TeamValues> {
  const [values, events] = await Promise.all([coachValues(tx), competitions(tx)]);
  return { values, near: competitionWeeks(row, events, values) };
}

/**
 * The room of a plan: its first rack stands for all until a session starts.
 * @param known the team's values, where they were read already
 */
export async function blockRoom(
  tx: TeamTransaction,
  row: PlanRow,
  known?: TeamValues,
): Promise<(BlockRoom & { rackNumber: number }) | undefined> {
  const rack = (await racksOf(tx, row.plan.roomId))[0];
  if (!rack) return undefined;
  const { values, near } = known ?? (await teamValues(tx, row));
  return {
    gear: rack.gear,
    rackNumber: rack.number,
    rounding: row.plan.rounding,
    metric: row.plan.metric,
    settings: {
      ...recipeSettings(values),
      weekFactors: Object.fromEntries(
        near.flatMap(({ week, factor }) => (factor === undefined ? [] : [[week, factor]])),
      ),
    },
  };
}

type CompetitionWeek = { week: number; words: string; factor: number | undefined };

/** Weeks of the block near a competition of the squad, with the coach's factor where one is set. */
function competitionWeeks(
  row: PlanRow,
  ofTeam: Awaited<ReturnType<typeof competitions>>,
  values: CoachValues,
): CompetitionWeek[] {
  const { block } = row.plan;
  const events = ofTeam.filter((one) => one.squadId === row.plan.squadId);
  return Array.from({ length: block.weeks }, (_, i) => i + 1).flatMap((week) => {
    const mark = competitionMark(events, addDays(block.startDate, 7 * (week - 1)));
    if (!mark) return [];
    const key =
      mark.kind === "after"
        ? "afterCompetition"
        : mark.days <= 14
          ? "competitionFactor2"
          : "competitionFactor4";
    return [{ week, words: describeMark(mark), factor: values[key] }];
  });
}
