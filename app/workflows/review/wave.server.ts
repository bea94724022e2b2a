import { limitHolds } from "../../../core/maxes/limits";
import { slotWeek } from "../../../core/plan/block";
import {
  reviewSquadWave,
  type SquadWave,
  type WavePerson,
  type WaveSession,
} from "../../../core/review/squad-wave";
import { type WaveRule, waveRule } from "../../../core/review/wave";
import type { CoachValues } from "../../../core/settings/coach-values";
import { teamDefault } from "../../../core/settings/usual";
import { massKg } from "../../../core/units/mass";
import { addDays, daysBetween, type LocalDate } from "../../../core/units/time";
import { limitsOf } from "../../../db/queries/person.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { newestProfiles } from "../../../db/queries/profiles.server";
import { listAthletes } from "../../../db/queries/squads.server";
import { type LiftPoint, liftDaysOfSlot, liftPoints } from "../../../db/queries/sums.server";
import type { TeamTransaction } from "../../../db/team.server";
import { recipeSettings } from "../lifters/plan-room.server";
import { readMaxes } from "../lifters/resolve-maxes.server";
import type { Wave } from "./waves.server";

export interface WaveFacts {
  wave: Wave;
  squad: SquadWave;
  rule: WaveRule;
  history: ReadonlyMap<string, LiftPoint[]>;
  /** What each athlete's loads stand on, with its dates. */
  standing: ReadonlyMap<
    string,
    {
      max: { kg: number; ageDays: number; stale: boolean; date: LocalDate } | undefined;
      profile: { testedOn: LocalDate; ageDays: number } | undefined;
    }
  >;
}

const earlierOf = (a: LocalDate, b: LocalDate): LocalDate => (a.localeCompare(b) < 0 ? a : b);

/** A squad's wave with everything that its rule reads; no log is opened for it. */
export async function waveFacts(
  tx: TeamTransaction,
  wave: Wave,
  known?: CoachValues,
): Promise<WaveFacts> {
  const { row, slotId, slot, variant, run, today } = wave;
  const values = known ?? (await coachValues(tx));
  const rule = waveRule(values);
  const squad = await listAthletes(tx, row.plan);
  const ids = squad.map((one) => one.id);
  const from = addDays(today, -7 * teamDefault(values, "trendWeeks"));
  const [points, days, maxes, profiles, limits] = [
    await liftPoints(tx, {
      athleteIds: ids,
      from: earlierOf(from, run.from),
      variantIds: [variant.id],
    }),
    await liftDaysOfSlot(tx, { planId: row.plan.id, slotId }),
    await readMaxes(tx, () => today, ids, [variant.id], row.variants),
    await newestProfiles(tx, { of: ids, variantIds: [variant.id] }),
    await limitsOf(tx, ids),
  ];
  const history = new Map<string, LiftPoint[]>();
  for (const one of points)
    if (one.date <= today) history.set(one.athleteId, [...(history.get(one.athleteId) ?? []), one]);
  const settings = recipeSettings(values);
  const people = squad.map((person): WavePerson => {
    const found = maxes(person.id).of(variant.id);
    const max = "max" in found ? found : undefined;
    const profile = profiles.find((one) => one.athleteId === person.id);
    const sessions = run.weeks.flatMap((week, i): WaveSession[] => {
      const done = days.find((one) => one.week === week && one.athleteId === person.id);
      const there = done ?? days.find((one) => one.week === week);
      const date = there?.date ?? addDays(run.from, 7 * (week - (run.weeks[0] ?? week)));
      const planned = slotWeek(row.plan.block, slot, week, settings)?.sets ?? [];
      if (date > today && !done) return [];
      return [
        {
          week: i + 1,
          date,
          kind: "work",
          planned: {
            sets: done?.sum.setsPlanned ?? planned.length,
            reps: done?.sum.repsPlanned ?? planned.reduce((n, set) => n + set.reps, 0),
          },
          sum: done?.sum,
        },
      ];
    });
    return {
      athleteId: person.id,
      name: person.name,
      history: history.get(person.id) ?? [],
      sessions,
      max: max && {
        kg: max.max.kg,
        baseKg: massKg(max.max.record.load) * max.max.factor,
        variantId: max.baseId,
        ageDays: max.max.ageDays,
        stale: max.max.stale,
      },
      profileAgeDays: profile ? daysBetween(profile.testedOn, today) : undefined,
      held: limits.filter(
        (limit) =>
          limit.athleteId === person.id && limit.lift === variant.lift && limitHolds(limit, today),
      ).length,
    };
  });
  return {
    wave,
    rule,
    history,
    standing: new Map(
      squad.map((person) => {
        const found = maxes(person.id).of(variant.id);
        const profile = profiles.find((one) => one.athleteId === person.id);
        return [
          person.id,
          {
            max: "max" in found ? { ...found.max, date: found.max.record.date } : undefined,
            profile: profile && {
              testedOn: profile.testedOn,
              ageDays: daysBetween(profile.testedOn, today),
            },
          },
        ];
      }),
    ),
    squad: reviewSquadWave({
      planId: row.plan.id,
      slotId,
      run: run.run,
      over: run.to <= today,
      variantId: variant.id,
      basis: slot.recipe.basis,
      smallestStopS: slot.box?.smallestStopS ?? values.smallestStopS,
      people: people.filter(
        (one) => one.sessions.some((session) => session.sum) || one.history.length > 0,
      ),
      rule,
    }),
  };
}
