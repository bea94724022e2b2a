import { LINE_GRACE_MPS } from "../../../core/liverules/rep";
import { ownInSlot } from "../../../core/plan/block";
import { weekAhead } from "../../../core/plan/runs";
import { stopOf } from "../../../core/recipe/speeds";
import { type CallKind, type ReviewCall, rankCalls } from "../../../core/review/calls";
import { floorCalls } from "../../../core/review/own-floor";
import {
  deloadCalls,
  heavyCalls,
  speedWeightCalls,
  staleCalls,
  stationCalls,
  stationDays,
} from "../../../core/review/standing-calls";
import { teamDefault } from "../../../core/settings/usual";
import { reviewDefault } from "../../../core/settings/usual-review";
import { massKg } from "../../../core/units/mass";
import { addDays, type LocalDate } from "../../../core/units/time";
import { listPlans, type PlanRow } from "../../../db/queries/plans.server";
import { decidedCalls, type StoredCall } from "../../../db/queries/reviews.server";
import type { TeamTransaction } from "../../../db/team.server";
import { DECIDED_DAYS } from "./to-dos.server";
import { type GroupFacts, groupFacts, type WaveFacts, waveFacts } from "./wave-facts.server";
import { type Wave, wavesOf } from "./waves.server";

/** A wave that ended longer ago asks nothing any more, days. */
const ASKS_FOR_DAYS = 21;
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
async function groupCalls(
  tx: TeamTransaction,
  waves: ReadonlyMap<Wave, Asks>,
): Promise<{ calls: ReviewCall[]; facts: WaveFacts[] }> {
  const [first, ...more] = waves.keys();
  if (!first) return { calls: [], facts: [] };
  const shared = await groupFacts(tx, [first, ...more]);
  const facts = [...waves.keys()].map((wave) => waveFacts(shared, wave));
  const calls = facts.flatMap((one) =>
    callsOfWave(shared, one, waves.get(one.wave) ?? "everything"),
  );
  // A call that two waves of a lift ask alike is asked once.
  const byAbout = new Map(calls.map((call) => [call.about, call]));
  return { calls: rankCalls([...byAbout.values()]), facts };
}

/** What a wave asks: of each athlete by the rule, and what stands beside it. */
export function callsOfWave(shared: GroupFacts, facts: WaveFacts, asks: Asks): ReviewCall[] {
  const calls = everyCall(shared, facts);
  if (asks === "everything") return calls;
  return calls.filter((call) => AT_THE_END.has(call.kind) === (asks === "at-its-end"));
}

function everyCall(shared: GroupFacts, facts: WaveFacts): ReviewCall[] {
  const { wave, squad, rule, history, standing } = facts;
  const { row, slotId, slot, variant, run, today } = wave;
  const historyOf = (id: string) => history.get(id) ?? [];
  const next = weekAhead(row.plan.block, run, today);
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
        bodyKg: shared.bodyKg.get(one.athleteId),
        maxKg: one.maxKg,
        today,
      }),
    ),
    ...floorsOf(shared, facts),
    ...(slot.recipe.basis === "found"
      ? squad.rows.flatMap((one) => {
          const found = shared.found.find(
            (weight) => weight.athleteId === one.athleteId && weight.variantId === variant.id,
          );
          return speedWeightCalls({
            athleteId: one.athleteId,
            variantId: variant.id,
            liftName: variant.name,
            found: found && { kg: massKg(found.load), date: found.date },
            holdWeeks: teamDefault(shared.values, "holdWeeksMost"),
            today,
          });
        })
      : []),
    ...stationCalls(
      stationDays(
        squad.rows,
        historyOf,
        (id) => shared.racks.get(id),
        addDays(today, -SENSOR_LOOK_DAYS),
      ),
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

/** Floors of athletes' own, where the slot has one and its load does not follow the speed anyway. */
function floorsOf(shared: GroupFacts, { wave, squad, history }: WaveFacts): ReviewCall[] {
  const { row, slotId, slot, variant, run } = wave;
  const { recipe } = slot;
  const slotFloorMps = stopOf(recipe).floorMps;
  if (slotFloorMps === undefined || recipe.lead === "velocity" || recipe.basis === "found")
    return [];
  const { floors } = ownInSlot(row.plan.block, slotId);
  return squad.rows.flatMap(({ athleteId }) => {
    const floorMps = floors.get(athleteId) ?? slotFloorMps;
    const sets = shared.days
      .filter((day) => day.planId === row.plan.id && day.planSlotId === slotId)
      .flatMap((day) => (day.athleteId === athleteId ? day.sum.sets : []))
      .filter((set) => set.reps.length > 0 && !set.older);
    return floorCalls({
      athleteId,
      planId: row.plan.id,
      slotId,
      variantId: variant.id,
      run: run.run,
      floorMps,
      underPercent: reviewDefault(shared.values, "floorUnderPercent"),
      days: (history.get(athleteId) ?? []).flatMap((day) =>
        day.planId === row.plan.id && day.planSlotId === slotId
          ? [{ date: day.date, bestsMps: day.points.sets.map(([, , bestMps]) => bestMps) }]
          : [],
      ),
      under: {
        sets: sets.filter((set) =>
          set.reps.some((rep) => rep.velocityMps < floorMps - LINE_GRACE_MPS),
        ).length,
        of: sets.length,
      },
    });
  });
}

/** Everything that a group's page of calls asks for. */
export async function readGroupCalls(
  tx: TeamTransaction,
  groupId: string,
  today: LocalDate,
  plans?: readonly PlanRow[],
) {
  const waves = askingWaves(wavesOf(plans ?? (await listPlans(tx))), groupId);
  const [{ calls, facts }, decided] = await Promise.all([
    groupCalls(tx, waves),
    decidedCalls(tx, addDays(today, -DECIDED_DAYS)),
  ]);
  return { calls: calls.filter((call) => !standsOn(decided, call.about)), facts, decided };
}

/** The decision that stands on a call. */
export const standsOn = (decided: readonly StoredCall[], about: string): StoredCall | undefined =>
  decided.find((one) => one.about === about && one.undoneAt === null);
