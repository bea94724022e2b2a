import { loadableTable } from "../../../core/barload/loadable";
import type { LoadingGear } from "../../../core/barload/loading-gear";
import { barFits, noBarWords } from "../../../core/gear/bars";
import { type HandKind, handKindOf, handStock } from "../../../core/gear/hand";
import { competitionMark, describeMark } from "../../../core/maxes/season";
import type { BlockRoom, LiftRack, OtherRack } from "../../../core/plan/block-loads";
import type { RecipeSettings } from "../../../core/recipe/recipe";
import type { CoachValues } from "../../../core/settings/coach-values";
import type { MassUnit } from "../../../core/units/mass";
import { addDays } from "../../../core/units/time";
import { itemsOf, racksWithHang } from "../../../db/queries/gear.server";
import { listExercises } from "../../../db/queries/library.server";
import { competitions } from "../../../db/queries/person.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import type { PlanRow } from "../../../db/queries/plans.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate } from "../../platform/clock.server";

export const recipeSettings = (values: CoachValues): RecipeSettings => ({
  deloadSets: values.deloadSets,
  deloadLoad: values.deloadLoad,
});

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
 * @param unit of who reads what is said of it
 * @param known the team's values, where they were read already
 */
export async function blockRoom(
  tx: TeamTransaction,
  row: PlanRow,
  unit: MassUnit,
  known?: TeamValues,
): Promise<(BlockRoom & { rackNumber: number }) | undefined> {
  const racks = await racksWithHang(tx, row.plan.roomId, localDate(row.zone));
  const rack = fullest(racks);
  if (!rack) return undefined;
  // A lift stands on the fullest rack that has its kind of bar.
  const forLift = row.variants.flatMap((variant): Array<[string, LiftRack]> => {
    const fitting = racks.filter((one) => barFits(variant.bar, one.bar));
    const own = fullest(fitting);
    if (own === rack && fitting.length === racks.length) return [];
    return [
      [
        variant.id,
        own
          ? { ok: true, gear: own.gear, hang: own.hang, others: othersThan(own, fitting) }
          : { ok: false, reason: noBarWords(variant.bar, row.roomName) },
      ],
    ];
  });
  const { values, near } = known ?? (await teamValues(tx, row));
  return {
    gear: rack.gear,
    hang: rack.hang,
    others: othersThan(rack, racks),
    forLift: Object.fromEntries(forLift),
    rackNumber: rack.number,
    ...(await handWeights(tx, row)),
    unit,
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

/** The rack that builds the most totals stands for all until a session starts; of equals the first. */
function fullest<Rack extends { gear: LoadingGear }>(racks: readonly Rack[]): Rack | undefined {
  const totals = (rack: Rack) => loadableTable(rack.gear).totals.length;
  return racks.reduce<Rack | undefined>(
    (best, one) => (best === undefined || totals(one) > totals(best) ? one : best),
    undefined,
  );
}

/** Racks whose bar or plates differ from one, the first of each way in which they do. */
function othersThan<Rack extends { number: number; gear: LoadingGear }>(
  rack: Rack,
  racks: readonly Rack[],
): OtherRack[] {
  const { bar, collar, plates } = rack.gear;
  const kindOf = (gear: LoadingGear) =>
    JSON.stringify([gear.bar.mass, gear.bar.rated, gear.bar.sleeveMm, gear.collar, gear.plates]);
  const seen = new Set([kindOf({ bar, collar, plates })]);
  return racks.flatMap(({ number, gear }) => {
    const kind = kindOf(gear);
    if (seen.has(kind)) return [];
    seen.add(kind);
    return [{ number, gear }];
  });
}

/** The room's dumbbells and kettlebells, and which exercises of the block are done with them. */
async function handWeights(
  tx: TeamTransaction,
  row: PlanRow,
): Promise<Pick<BlockRoom, "hand" | "handOf">> {
  const exercised = Object.values(row.plan.block.slots).some((one) => one.work.kind === "exercise");
  if (!exercised) return { hand: undefined, handOf: {} };
  const there = (await itemsOf(tx, row.plan.roomId)).filter((one) => one.awayOn === null);
  const hand = handStock(there);
  if (hand.length === 0) return { hand: undefined, handOf: {} };
  const handOf = (await listExercises(tx)).rows.flatMap((one): Array<[string, HandKind]> => {
    const kind = handKindOf(one.gear);
    return kind ? [[one.id, kind]] : [];
  });
  return { hand, handOf: Object.fromEntries(handOf) };
}

type CompetitionWeek = { week: number; words: string; factor: number | undefined };

/** Weeks of the block near a competition of the squad, with the coach's factor where one is set. */
function competitionWeeks(
  row: PlanRow,
  ofTeam: Awaited<ReturnType<typeof competitions>>,
  values: CoachValues,
): CompetitionWeek[] {
  const { block } = row.plan;
  const events = ofTeam.filter((one) =>
    row.plan.athleteId === null
      ? one.squadId === row.plan.squadId
      : one.athleteId === row.plan.athleteId,
  );
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
