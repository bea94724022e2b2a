import { type CallKind, type ReviewCall, rankCalls } from "../../../core/review/calls";
import {
  deloadCalls,
  heavyCalls,
  staleCalls,
  stationCalls,
  stationDays,
} from "../../../core/review/standing-calls";
import type { CoachValues } from "../../../core/settings/coach-values";
import { massKg } from "../../../core/units/mass";
import { addDays, type LocalDate } from "../../../core/units/time";
import { racksOf } from "../../../db/queries/gear.server";
import { newestMasses } from "../../../db/queries/person.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { listPlans } from "../../../db/queries/plans.server";
import { decidedCalls, type StoredCall } from "../../../db/queries/reviews.server";
import type { TeamTransaction } from "../../../db/team.server";
import { type WaveFacts, waveFacts } from "./wave.server";
import { type Wave, wavesOf } from "./waves.server";

/** A wave that ended longer ago asks nothing any more, days. */
const ASKS_FOR_DAYS = 21;
/** Decisions that are looked back on, days. */
export const DECIDED_DAYS = 120;
/** Racks' speeds are compared over so many days. */
const SENSOR_LOOK_DAYS = 28;

/** What a wave may ask: everything, only what its end decides, or only what cannot wait for it. */
export type Asks = "everything" | "at-its-end" | "while-it-runs";

/** What is asked of the base and the variation is asked when a wave is over; the rest at any time. */
const AT_THE_END: ReadonlySet<CallKind> = new Set(["raise", "lower", "variation", "deload"]);

/**
 * Waves of a group that may ask something today: of each lift the newest that is over, and not for long,
 * and the one that runs. Where both are, the older asks only what its end decides.
 */
export function askingWaves(waves: readonly Wave[], groupId: string): Map<Wave, Asks> {
  const asking = new Map<Wave, Asks>();
  const running = new Set<string>();
  const over = new Set<string>();
  for (const wave of waves) {
    const { row, variant, run, today } = wave;
    if ((row.plan.squadId ?? row.plan.athleteId) !== groupId) continue;
    if (run.to > today) {
      if (running.has(variant.id)) continue;
      running.add(variant.id);
      asking.set(wave, "while-it-runs");
    } else if (run.to >= addDays(today, -ASKS_FOR_DAYS) && !over.has(variant.id)) {
      over.add(variant.id);
      asking.set(wave, running.has(variant.id) ? "at-its-end" : "everything");
    }
  }
  return asking;
}

/** Every call that a group's waves and facts ask for, decided or not, the weightiest first. */
export async function groupCalls(
  tx: TeamTransaction,
  waves: ReadonlyMap<Wave, Asks>,
  values: CoachValues,
): Promise<{ calls: ReviewCall[]; facts: WaveFacts[] }> {
  const facts: WaveFacts[] = [];
  const calls: ReviewCall[] = [];
  for (const [wave, asks] of waves) {
    const one = await waveFacts(tx, wave, values);
    facts.push(one);
    calls.push(...(await callsOfWave(tx, one, asks)));
  }
  // A call that two lifts of a day ask alike is asked once.
  const byAbout = new Map(calls.map((call) => [call.about, call]));
  return { calls: rankCalls([...byAbout.values()]), facts };
}

/** What a wave asks: of each athlete by the rule, and what stands beside it. */
export async function callsOfWave(
  tx: TeamTransaction,
  facts: WaveFacts,
  asks: Asks,
): Promise<ReviewCall[]> {
  const calls = await everyCall(tx, facts);
  if (asks === "everything") return calls;
  return calls.filter((call) => AT_THE_END.has(call.kind) === (asks === "at-its-end"));
}

async function everyCall(
  tx: TeamTransaction,
  { wave, squad, rule, history, standing }: WaveFacts,
): Promise<ReviewCall[]> {
  const { row, slotId, variant, run, today } = wave;
  const ids = squad.rows.map((one) => one.athleteId);
  const masses = new Map(
    (await newestMasses(tx, ids)).map((one) => [one.athleteId, massKg(one.mass)]),
  );
  const racks = new Map(
    (await racksOf(tx, row.plan.roomId)).map((rack) => [rack.rackId, `rack ${rack.number}`]),
  );
  const historyOf = (id: string) => history.get(id) ?? [];
  const next =
    row.plan.block.weeks > (run.weeks.at(-1) ?? 0) ? (run.weeks.at(-1) ?? 0) + 1 : undefined;
  return [
    ...squad.rows.flatMap((one) => one.calls),
    ...squad.rows.flatMap((one) => {
      const own = standing.get(one.athleteId);
      const asked = new Set(one.calls.map((call) => call.kind));
      return staleCalls({
        athleteId: one.athleteId,
        variantId: variant.id,
        liftName: variant.name,
        max: own?.max,
        profile: own?.profile,
        profileDays: rule.profileDays,
      }).filter((call) => !asked.has(call.kind));
    }),
    ...squad.rows.flatMap((one) =>
      heavyCalls({
        athleteId: one.athleteId,
        variantId: variant.id,
        liftName: variant.name,
        days: historyOf(one.athleteId),
        bodyKg: masses.get(one.athleteId),
        maxKg: one.maxKg,
        today,
      }),
    ),
    ...stationCalls(
      stationDays(squad.rows, historyOf, (id) => racks.get(id), addDays(today, -SENSOR_LOOK_DAYS)),
      row.plan.squadId ?? undefined,
    ),
    ...deloadCalls({
      squadId: row.plan.squadId ?? undefined,
      planId: row.plan.id,
      slotId,
      run: run.run,
      waveMean: run.to <= today ? squad.waveMean : undefined,
      week: next,
    }),
  ];
}

/** Everything that a group's page of calls asks for. */
export async function readGroupCalls(tx: TeamTransaction, groupId: string, today: LocalDate) {
  const values = await coachValues(tx);
  const waves = askingWaves(wavesOf(await listPlans(tx)), groupId);
  const { calls, facts } = await groupCalls(tx, waves, values);
  const decided = await decidedCalls(tx, addDays(today, -DECIDED_DAYS));
  return { calls: calls.filter((call) => !standsOn(decided, call.about)), facts, decided, values };
}

/** The decision that stands on a call. */
export const standsOn = (decided: readonly StoredCall[], about: string): StoredCall | undefined =>
  decided.find((one) => one.about === about && one.undoneAt === null);
