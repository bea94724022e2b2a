import { mean } from "../../../core/numeric/statistics";
import { runsOf } from "../../../core/plan/runs";
import { equalSpeed } from "../../../core/review/equal-speed";
import { type TrialAsked, trialNeeds } from "../../../core/review/power";
import { setFade } from "../../../core/review/set-fade";
import { measuredSets, slopeKnown } from "../../../core/review/squad-wave";
import {
  aimWay,
  endingWay,
  restWay,
  sumWays,
  type WaveUnder,
  waysApart,
} from "../../../core/review/what-pays";
import { reviewDefault } from "../../../core/settings/usual-review";
import { addDays } from "../../../core/units/time";
import { coachValues } from "../../../db/queries/plan-library.server";
import { listPlans } from "../../../db/queries/plans.server";
import { groupById, listAthletes, listGroups } from "../../../db/queries/squads.server";
import { type LiftPoint, liftPoints } from "../../../db/queries/sums.server";
import type { Principal } from "../../platform/rights";
import { overSums } from "../lifters/session-sums.server";
import { readPlaces } from "../lifters/today.server";

/** Days that are compared over. */
const LOOK_BACK_DAYS = 730;

const QUESTIONS = [
  { id: "aim", name: "Speed waves against others", way: aimWay },
  { id: "rest", name: "Short rest against full rest", way: restWay },
  { id: "ending", name: "How sets end", way: endingWay },
] as const;

/** What happened under each way of training a squad's lift, and what a trial would need. */
export async function readPays(
  principal: Principal,
  asked: { groupId: string; variantId: string; trial: Partial<TrialAsked> },
) {
  return overSums(principal, async (tx) => {
    const [groups, places, rows, values] = await Promise.all([
      listGroups(tx),
      readPlaces(tx),
      listPlans(tx),
      coachValues(tx),
    ]);
    const group = groups.find((one) => one.id === asked.groupId) ?? groups[0];
    const kept = group && (await groupById(tx, group.id));
    if (!group || !kept) return { groups: [], group: undefined };
    const people = await listAthletes(tx, kept);
    const from = addDays(places.today, -LOOK_BACK_DAYS);
    const points = await liftPoints(tx, { athleteIds: people.map((one) => one.id), from });
    const variants = rows[0]?.variants ?? [];
    const days = (id: string | null) => points.filter((one) => one.variantId === id).length;
    const lifts = variants
      .filter((one) => days(one.id) > 0)
      .sort((a, b) => days(b.id) - days(a.id))
      .map(({ id, name }) => ({ id, name }));
    const lift = lifts.find((one) => one.id === asked.variantId) ?? lifts[0];
    const limit = reviewDefault(values, "fadePercent");
    const waves = rows.flatMap((row) =>
      Object.entries(row.plan.block.slots).flatMap(([slotId, slot]) =>
        runsOf(row.plan.block, slot).map((run) => ({ planId: row.plan.id, slotId, slot, run })),
      ),
    );
    const own = points.filter((one) => one.variantId === lift?.id);
    const spreads: number[] = [];
    const under = waves.flatMap(({ planId, slotId, slot, run }) =>
      people.flatMap((person) => {
        const done = own.filter(
          (one) =>
            one.athleteId === person.id &&
            one.planId === planId &&
            one.planSlotId === slotId &&
            one.week !== null &&
            run.weeks.includes(one.week),
        );
        if (done.length === 0) return [];
        return [{ athleteId: person.id, recipe: slot.recipe, ...waveFigures(done, limit) }];
      }),
    );
    for (const person of people) {
      const history = own.filter((one) => one.athleteId === person.id);
      const speed = equalSpeed(measuredSets(history), { slope: slopeKnown(history, undefined) });
      if (speed.ok) spreads.push(speed.daySdMps);
    }
    const daySdMps = mean(spreads);
    const trial: TrialAsked = {
      effectMps: asked.trial.effectMps ?? 0.03,
      weeks: asked.trial.weeks ?? 9,
      sessionsAWeek: asked.trial.sessionsAWeek ?? 1,
      sets: asked.trial.sets ?? 9,
      ...(daySdMps === undefined ? {} : { daySdMps }),
    };
    return {
      groups: groups.map(({ id, name }) => ({ id, name })),
      group: { id: group.id, name: group.name, athletes: people.length },
      lifts,
      liftId: lift?.id ?? "",
      questions: QUESTIONS.map(({ id, name, way }) => {
        const sums = sumWays(
          under.map(({ recipe, ...one }): WaveUnder => ({ ...one, way: way(recipe) })),
        );
        const [first, second] = sums;
        return {
          id,
          name,
          sums,
          apart:
            first && second
              ? { of: first.way, against: second.way, ...waysApart(first, second) }
              : undefined,
        };
      }),
      trial,
      needs: trialNeeds(trial),
      daySdMps,
    };
  });
}

/** One athlete's wave in three figures. */
function waveFigures(done: readonly LiftPoint[], limitPercent: number) {
  const sets = measuredSets(done);
  const speed = equalSpeed(sets, { slope: slopeKnown(done, undefined) });
  const last = sets.filter((set) => set.date === sets.at(-1)?.date);
  const fade = setFade(last, limitPercent);
  const all = done.reduce((n, day) => n + day.points.setsDone, 0);
  const cut = done.reduce((n, day) => n + day.points.cut, 0);
  return {
    change: speed.ok ? speed.alone : undefined,
    fadePercent: fade.ok ? fade.percent : undefined,
    cutPercent: all === 0 ? undefined : (100 * cut) / all,
  };
}

export type PaysPage = Awaited<ReturnType<typeof readPays>>;
