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
import { reviewDefault } from "../../../core/settings/usual-review";
import { massKg } from "../../../core/units/mass";
import { addDays, daysBetween, type LocalDate } from "../../../core/units/time";
import { foundWeights } from "../../../db/queries/box.server";
import { rackNumbers } from "../../../db/queries/gear.server";
import { limitsOf, newestMasses } from "../../../db/queries/person.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { newestTestDays } from "../../../db/queries/profiles.server";
import { listAthletes } from "../../../db/queries/squads.server";
import {
  type LiftDay,
  type LiftPoint,
  liftDaysOfWeeks,
  liftPoints,
} from "../../../db/queries/sums.server";
import type { TeamTransaction } from "../../../db/team.server";
import { recipeSettings } from "./plan-room.server";
import { readMaxes } from "./resolve-maxes.server";
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

/** What a group brings to all of its waves: read once, however many of them are looked at. */
export interface GroupFacts {
  values: CoachValues;
  athletes: Awaited<ReturnType<typeof listAthletes>>;
  maxes: Awaited<ReturnType<typeof readMaxes>>;
  profiles: Awaited<ReturnType<typeof newestTestDays>>;
  limits: Awaited<ReturnType<typeof limitsOf>>;
  /** Found speed weights, where a wave stands on them. */
  found: Awaited<ReturnType<typeof foundWeights>>;
  /** Body masses by athlete, kg, and racks' names by id. */
  bodyKg: ReadonlyMap<string, number>;
  racks: ReadonlyMap<string, string>;
  /** Days of the waves' own slots and weeks, with every set. */
  days: readonly LiftDay[];
  /** Days of a lift by athlete from a date on: two waves of it share them. */
  historyOf: (variantId: string, from: LocalDate) => ReadonlyMap<string, LiftPoint[]>;
}

/** Reads what some waves of one group ask for. */
export async function groupFacts(
  tx: TeamTransaction,
  waves: readonly [Wave, ...Wave[]],
  known?: CoachValues,
): Promise<GroupFacts> {
  const [first] = waves;
  const { today } = first;
  const [values, athletes] = await Promise.all([
    known ?? coachValues(tx),
    listAthletes(tx, first.row.plan),
  ]);
  const ids = athletes.map((one) => one.id);
  const variantIds = [...new Set(waves.map((wave) => wave.variant.id))];
  const back = addDays(today, -7 * reviewDefault(values, "trendWeeks"));
  const from = waves.reduce((least, wave) => earlierOf(least, wave.run.from), back);
  const onFound = waves.some((wave) => wave.slot.recipe.basis === "found");
  // Asked together: on one connection they wait for one way there and back.
  const [points, days, maxes, profiles, limits, masses, racks, found] = await Promise.all([
    liftPoints(tx, { athleteIds: ids, from, variantIds }),
    liftDaysOfWeeks(
      tx,
      waves.map((wave) => ({
        planId: wave.row.plan.id,
        slotId: wave.slotId,
        weeks: wave.run.weeks,
      })),
    ),
    readMaxes(tx, () => today, ids, variantIds, first.row.variants),
    newestTestDays(tx, { athleteIds: ids, variantIds }),
    limitsOf(tx, ids),
    newestMasses(tx, ids),
    rackNumbers(tx, [...new Set(waves.map((wave) => wave.row.plan.roomId))]),
    onFound ? foundWeights(tx, ids) : [],
  ]);
  return {
    values,
    athletes,
    maxes,
    profiles,
    limits,
    found,
    bodyKg: new Map(masses.map((one) => [one.athleteId, massKg(one.mass)])),
    racks: new Map(racks.map((rack) => [rack.id, `rack ${rack.number}`])),
    days,
    historyOf: historiesOf(points.filter((one) => one.date <= today)),
  };
}

function historiesOf(points: readonly LiftPoint[]): GroupFacts["historyOf"] {
  const made = new Map<string, Map<string, LiftPoint[]>>();
  return (variantId, from) => {
    const key = `${variantId}/${from}`;
    const there = made.get(key);
    if (there) return there;
    const history = new Map<string, LiftPoint[]>();
    for (const one of points) {
      if (one.variantId !== variantId || one.date < from) continue;
      const own = history.get(one.athleteId);
      if (own) own.push(one);
      else history.set(one.athleteId, [one]);
    }
    made.set(key, history);
    return history;
  };
}

/** A squad's wave with everything that its rule reads; no log is opened for it. */
export function waveFacts(shared: GroupFacts, wave: Wave): WaveFacts {
  const { row, slotId, slot, variant, run, today } = wave;
  const { values, athletes, profiles } = shared;
  const rule = waveRule(values);
  const from = earlierOf(addDays(today, -7 * reviewDefault(values, "trendWeeks")), run.from);
  const history = shared.historyOf(variant.id, from);
  const standing = new Map(
    athletes.map((person) => {
      const found = shared.maxes(person.id).of(variant.id);
      const max = "max" in found ? { ...found.max, baseId: found.baseId } : undefined;
      const profile = profiles.find(
        (one) => one.athleteId === person.id && one.variantId === variant.id,
      );
      return [
        person.id,
        {
          max: max && { ...max, date: max.record.date },
          profile: profile && {
            testedOn: profile.testedOn,
            ageDays: daysBetween(profile.testedOn, today),
          },
        },
      ] as const;
    }),
  );
  const people = athletes.map((person): WavePerson => {
    const own = standing.get(person.id);
    return {
      athleteId: person.id,
      name: person.name,
      history: history.get(person.id) ?? [],
      sessions: sessionsOf(shared, wave, person.id),
      max: own?.max && {
        kg: own.max.kg,
        baseKg: massKg(own.max.record.load) * own.max.factor,
        variantId: own.max.baseId,
        ageDays: own.max.ageDays,
        stale: own.max.stale,
      },
      profileAgeDays: own?.profile?.ageDays,
      held: shared.limits.filter(
        (limit) =>
          limit.athleteId === person.id && limit.lift === variant.lift && limitHolds(limit, today),
      ).length,
    };
  });
  return {
    wave,
    rule,
    history,
    standing,
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

/** The wave's sessions as planned, and as one athlete did them. */
function sessionsOf(shared: GroupFacts, wave: Wave, athleteId: string): WaveSession[] {
  const { row, slotId, slot, run, today } = wave;
  const settings = recipeSettings(shared.values);
  const days = shared.days.filter((one) => one.planId === row.plan.id && one.planSlotId === slotId);
  return run.weeks.flatMap((week, i): WaveSession[] => {
    const done = days.find((one) => one.week === week && one.athleteId === athleteId);
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
}
