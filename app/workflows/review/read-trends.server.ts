import { LIFT_WORK } from "../../../core/exercise/lift-work";
import { athleteWeeks, type DayWork } from "../../../core/review/athlete-weeks";
import { equalSpeed } from "../../../core/review/equal-speed";
import { type KnownLine, liftedSign, lineSdKg, speedSigns } from "../../../core/review/max-signs";
import { maxTrend } from "../../../core/review/max-trend";
import { measuredSets, slopeKnown } from "../../../core/review/squad-wave";
import { massKg } from "../../../core/units/mass";
import { addDays, type LocalDate } from "../../../core/units/time";
import { listExercises } from "../../../db/queries/library.server";
import {
  listVariants,
  recordsOf,
  singlesOf,
  type VariantRow,
} from "../../../db/queries/maxes.server";
import { bodyMasses, competitions, dayNotes } from "../../../db/queries/person.server";
import { plansInShort } from "../../../db/queries/plans.server";
import { profileTests } from "../../../db/queries/profiles.server";
import {
  athleteById,
  groupById,
  listAthletes,
  listGroups,
} from "../../../db/queries/squads.server";
import { type LiftPoint, liftPoints, otherWork } from "../../../db/queries/sums.server";
import type { TeamTransaction } from "../../../db/team.server";
import type { Principal } from "../../platform/rights";
import { analyseTest } from "../lifters/analyse-test.server";
import { mayKnowReasons } from "../lifters/public-words.server";
import { readMaxes } from "../lifters/resolve-maxes.server";
import { overSums } from "../lifters/session-sums.server";
import { readPlaces } from "../lifters/today.server";

/** Days that a trend looks back. */
const LOOK_BACK_DAYS = 365;
/** Weeks of the ledgers. */
const LEDGER_WEEKS = 12;

/** An athlete's lift over the year: max, speed at one load, weeks, ledgers, what happened beside. */
export async function readTrends(
  principal: Principal,
  asked: { groupId: string; athleteId: string; variantId: string },
) {
  return overSums(principal, async (tx) => {
    const [places, groups, known] = await Promise.all([
      readPlaces(tx),
      listGroups(tx),
      asked.athleteId ? athleteById(tx, asked.athleteId) : undefined,
    ]);
    const groupId = known?.squadId ?? known?.id ?? asked.groupId;
    const group = groups.find((one) => one.id === groupId) ?? groups[0];
    const kept = group && (await groupById(tx, group.id));
    const athletes = kept ? await listAthletes(tx, kept) : [];
    const person = athletes.find((one) => one.id === asked.athleteId) ?? athletes[0];
    const people = athletes.map(({ id, name }) => ({ id, name }));
    const shared = {
      people,
      groups: groups.map(({ id, name }) => ({ id, name })),
      groupId: group?.id ?? "",
    };
    if (!person) return { ...shared, athlete: undefined };
    const today = places.todayOf(person);
    const from = addDays(today, -LOOK_BACK_DAYS);
    const [variants, points] = await Promise.all([
      listVariants(tx),
      liftPoints(tx, { athleteIds: [person.id], from }),
    ]);
    const trained = [...new Set(points.flatMap((one) => one.variantId ?? []))];
    const lifts = variants.filter((one) => trained.includes(one.id));
    const variant = lifts.find((one) => one.id === asked.variantId) ?? mostTrained(lifts, points);
    const [lift, weeks, marks, recovery] = await Promise.all([
      variant && liftTrend(tx, person.id, variant, points, today),
      weeksOf(tx, person.id, points, variants, today),
      marksOf(tx, person, points, from, today),
      // As on the athlete's own page: what somebody notes of sleep is the coaches' to know.
      mayKnowReasons(principal) ? recoveryOf(tx, person.id, from) : undefined,
    ]);
    return {
      ...shared,
      athlete: {
        id: person.id,
        name: person.name,
        today,
        lifts: lifts.map(({ id, name }) => ({ id, name })),
        lift,
        weeks,
        marks,
        recovery,
      },
    };
  });
}

export type TrendsPage = Awaited<ReturnType<typeof readTrends>>;

function mostTrained(lifts: readonly VariantRow[], points: readonly LiftPoint[]) {
  const days = (id: string) => points.filter((one) => one.variantId === id).length;
  return [...lifts].sort((a, b) => days(b.id) - days(a.id))[0];
}

async function liftTrend(
  tx: TeamTransaction,
  athleteId: string,
  variant: VariantRow,
  points: readonly LiftPoint[],
  today: LocalDate,
) {
  const history = points.filter((one) => one.variantId === variant.id);
  const sets = measuredSets(history);
  const [maxes, singles, tested, allRecords] = await Promise.all([
    readMaxes(tx, () => today, athleteId, [variant.id]),
    singlesOf(tx, athleteId),
    profileTests(tx, { of: athleteId, variantIds: [variant.id] }, 3),
    recordsOf(tx, athleteId),
  ]);
  const found = maxes(athleteId).of(variant.id);
  const max = "max" in found ? found.max : undefined;
  const speed = equalSpeed(sets, { slope: slopeKnown(history, max?.kg) });
  const tests = tested.map((test) => analyseTest(test, variant, singles));
  const known = tests.flatMap((test): KnownLine[] =>
    test.result.ok && test.result.oneRepMax
      ? [
          {
            line: test.result.line,
            oneRepMaxKg: test.result.oneRepMax.kg,
            planning: test.result.oneRepMax.planning,
          },
        ]
      : [],
  )[0];
  const records = allRecords
    .filter((one) => one.variantId === variant.id)
    .map((one) => ({ date: one.date, kg: massKg(one.load), kind: one.kind }));
  const lifted = records.filter((one) => one.kind === "tested" || one.kind === "competition");
  const from = history[0]?.date ?? today;
  const signs = [
    ...(known
      ? speedSigns(
          sets,
          known,
          speed.ok ? speed.daySdMps : 0.05,
          speed.ok ? Math.max(0, speed.fade.estimate) : 0.005,
        )
      : []),
    ...lifted.map((one) => liftedSign(one.date, one.kg)),
  ];
  const trend = maxTrend(signs, known ? lineSdKg(known) : 0, today);
  return {
    variantId: variant.id,
    name: variant.name,
    metric: history.at(-1)?.points.metric ?? "MCV",
    days: history.length,
    from,
    bySpeed: known !== undefined,
    records,
    max: trend.ok
      ? {
          now: trend.now,
          working: trend.working,
          days: trend.days.map(({ date, estimate, low, high }) => ({ date, estimate, low, high })),
        }
      : undefined,
    speed: speed.ok
      ? {
          loadKg: speed.loadKg,
          filmed: speed.filmed,
          perWave: speed.perWave,
          chanceRises: speed.chanceRises,
          verdict: speed.verdict,
          daySdMps: speed.daySdMps,
          fade: speed.fade,
          days: speed.days.map((day) => ({
            date: day.date,
            speedMps: day.speedMps,
            sdMps: Math.sqrt(day.readingSdMps ** 2 + speed.daySdMps ** 2),
            sets: day.sets,
          })),
        }
      : undefined,
  };
}

async function weeksOf(
  tx: TeamTransaction,
  athleteId: string,
  points: readonly LiftPoint[],
  variants: readonly VariantRow[],
  today: LocalDate,
) {
  const from = addDays(today, -7 * LEDGER_WEEKS);
  const [other, library] = await Promise.all([
    otherWork(tx, { athleteIds: [athleteId], from }),
    listExercises(tx),
  ]);
  const exercises = new Map(library.rows.map((one) => [one.id, one]));
  const days = new Map<LocalDate, { -readonly [K in keyof DayWork]: DayWork[K] }>();
  const dayOf = (date: LocalDate) => {
    const there = days.get(date) ?? { date, lifts: [], exercises: [], pairings: [] };
    days.set(date, there);
    return there;
  };
  for (const one of points) {
    if (one.date < from) continue;
    const day = dayOf(one.date);
    const lift = variants.find((variant) => variant.id === one.variantId)?.lift ?? "";
    day.lifts = [...day.lifts, { points: one.points, muscles: LIFT_WORK[lift]?.muscles ?? [] }];
  }
  for (const one of other.exercises) {
    const exercise = exercises.get(one.exerciseId ?? "");
    const day = dayOf(one.date);
    day.exercises = [
      ...day.exercises,
      {
        muscles: exercise?.main ?? [],
        sum: one.sum,
      },
    ];
  }
  for (const one of other.pairings) {
    const day = dayOf(one.date);
    day.pairings = [...day.pairings, { sum: one.sum }];
  }
  return athleteWeeks([...days.values()]);
}

/** Competitions, absences and new plans: what a curve is read against. Reasons are in none of them. */
async function marksOf(
  tx: TeamTransaction,
  person: Awaited<ReturnType<typeof listAthletes>>[number],
  points: readonly LiftPoint[],
  from: LocalDate,
  today: LocalDate,
) {
  const marks: Array<{ date: LocalDate; kind: "competition" | "away" | "plan"; words: string }> =
    [];
  const plans = new Map<string, LocalDate>();
  for (const one of points)
    if (one.planId && !plans.has(one.planId)) plans.set(one.planId, one.date);
  const [events, short] = await Promise.all([
    competitions(tx, person),
    plansInShort(tx, [...plans.keys()]),
  ]);
  for (const one of events)
    if (one.date >= from && one.date <= today)
      marks.push({ date: one.date, kind: "competition", words: one.name });
  for (const row of short) {
    const date = plans.get(row.id);
    if (date) marks.push({ date, kind: "plan", words: row.name });
    for (const away of Object.values(row.away))
      if (away.athleteId === person.id && away.from <= today)
        marks.push({ date: away.from, kind: "away", words: `away until ${away.to}` });
  }
  return marks.sort((a, b) => a.date.localeCompare(b.date));
}

/** Sleep and body mass by day: on the coach's screen only, never on paper or in a file. */
async function recoveryOf(tx: TeamTransaction, athleteId: string, from: LocalDate) {
  const notes = (await dayNotes(tx, athleteId)).filter((one) => one.date >= from);
  const masses = (await bodyMasses(tx, athleteId)).filter((one) => one.date >= from);
  return {
    sleep: notes.flatMap((one) =>
      one.sleepH === null ? [] : [{ date: one.date, hours: one.sleepH }],
    ),
    masses: masses.map((one) => ({ date: one.date, kg: massKg(one.mass) })),
  };
}
