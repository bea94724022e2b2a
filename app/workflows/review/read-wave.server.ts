import { loadBar } from "../../../core/barload/load";
import { barFits } from "../../../core/gear/bars";
import { type ReviewCall, rankCalls } from "../../../core/review/calls";
import type { EqualSpeed } from "../../../core/review/equal-speed";
import type { SquadMean } from "../../../core/review/squad-mean";
import type { PointDay, WaveRow } from "../../../core/review/squad-wave";
import { addDays } from "../../../core/units/time";
import { racksOf } from "../../../db/queries/gear.server";
import { listPlans } from "../../../db/queries/plans.server";
import { decidedCalls, type StoredCall } from "../../../db/queries/reviews.server";
import type { TeamTransaction } from "../../../db/team.server";
import type { Principal } from "../../platform/rights";
import { askingWaves, callsOfWave } from "../lifters/group-calls.server";
import { overSums } from "../lifters/session-sums.server";
import { callOf, decidedOf } from "../lifters/shown-call.server";
import { DECIDED_DAYS } from "../lifters/to-dos.server";
import { groupFacts, type WaveFacts, waveFacts } from "../lifters/wave-facts.server";
import { type Wave, waveName, wavesOf } from "../lifters/waves.server";
import { type BecameRow, becameFor } from "./became.server";

/** Waves that the chooser lists. */
const MOST_LISTED = 60;

export type Asked = { planId: string; slotId: string; run: number; athleteId: string };

/** A wave: the squad on one axis, everybody in a line, one athlete opened, what became of earlier calls. */
export async function readWave(principal: Principal, asked: Asked) {
  return overSums(principal, async (tx, moreBehind) => {
    const waves = wavesOf(await listPlans(tx));
    const wave =
      waves.find(
        (one) =>
          one.row.plan.id === asked.planId &&
          one.slotId === asked.slotId &&
          one.run.run === asked.run,
      ) ??
      waves.find((one) => one.run.to <= one.today) ??
      waves[0];
    const list = waves.slice(0, MOST_LISTED).map((one) => ({
      planId: one.row.plan.id,
      slotId: one.slotId,
      run: one.run.run,
      name: waveName(one),
      from: one.run.from,
      to: one.run.to,
    }));
    if (!wave) return { waves: list, wave: undefined, moreBehind };
    const shared = await groupFacts(tx, [wave]);
    const facts = waveFacts(shared, wave);
    const groupId = groupOf(wave);
    const asks = askingWaves(waves, groupId).get(wave);
    const calls = asks ? rankCalls(callsOfWave(shared, facts, asks)) : [];
    const decided = await decidedCalls(tx, addDays(wave.today, -DECIDED_DAYS));
    const ofAthlete = (id: string) => calls.filter((call) => call.athleteId === id);
    const rows = facts.squad.rows.map((row) =>
      rowOf(facts, row, ofAthlete(row.athleteId), decided),
    );
    const opened =
      facts.squad.rows.find((one) => one.athleteId === asked.athleteId) ??
      facts.squad.rows.find((one) => ofAthlete(one.athleteId).length > 0) ??
      facts.squad.rows[0];
    return {
      waves: list,
      moreBehind,
      wave: {
        planId: wave.row.plan.id,
        slotId: wave.slotId,
        run: wave.run.run,
        groupId,
        name: wave.slot.recipe.name,
        squadName: wave.row.squadName,
        liftName: wave.variant.name,
        metric: wave.row.plan.metric,
        basis: wave.slot.recipe.basis,
        from: wave.run.from,
        to: wave.run.to,
        over: wave.run.to <= wave.today,
        asks,
        towards: facts.squad.towards,
      },
      waveMean: meanOf(facts.squad.waveMean),
      longMean: meanOf(facts.squad.longMean),
      rows,
      squadCalls: calls
        .filter((call) => call.athleteId === undefined)
        .map((call) => callOf(call, decided)),
      opened: opened && (await openedOf(tx, facts, opened, ofAthlete(opened.athleteId), decided)),
      became: becameOf(facts, decided),
    };
  });
}

export type WavePage = Awaited<ReturnType<typeof readWave>>;

export const groupOf = ({ row }: Wave): string => row.plan.squadId ?? row.plan.athleteId ?? "";

const meanOf = (mean: SquadMean | undefined) =>
  mean && { estimate: mean.estimate, low: mean.low, high: mean.high, athletes: mean.athletes };

function rowOf(
  { wave }: WaveFacts,
  row: WaveRow,
  calls: readonly ReviewCall[],
  decided: readonly StoredCall[],
) {
  const { speed, fade } = row;
  const inWave = speed.ok
    ? speed.days.filter((day) => day.date >= wave.run.from && day.date <= wave.run.to)
    : [];
  const faults = new Map<string, number>();
  for (const week of row.weeks)
    for (const one of week.faults) faults.set(one.fault, (faults.get(one.fault) ?? 0) + one.times);
  return {
    athleteId: row.athleteId,
    name: row.name,
    loadKg: row.weeks.findLast((week) => week.loadKg !== undefined)?.loadKg,
    there: row.there,
    sessions: row.sessions,
    setsDone: row.setsDone,
    cut: row.cut,
    cutPercent: row.cutPercent,
    tonnageKg: row.tonnageKg,
    speeds: inWave.map((day) => ({ date: day.date, speedMps: day.speedMps })),
    speed: speed.ok
      ? {
          loadKg: speed.loadKg,
          filmed: speed.filmed,
          perWave: speed.perWave,
          chanceRises: speed.chanceRises,
          verdict: speed.verdict,
          sessionsMore: speed.sessionsMore,
          days: speed.days.length,
        }
      : undefined,
    fade: fade.ok
      ? {
          percent: fade.percent,
          low: fade.low,
          high: fade.high,
          fades: fade.fades,
          chanceOver: fade.chanceOver,
        }
      : undefined,
    lastSets: row.lastSets,
    faults: [...faults].map(([fault, times]) => ({ fault, times })),
    standing: row.standing,
    calls: calls.map((call) => callOf(call, decided)),
  };
}

async function openedOf(
  tx: TeamTransaction,
  facts: WaveFacts,
  row: WaveRow,
  calls: readonly ReviewCall[],
  decided: readonly StoredCall[],
) {
  const { wave } = facts;
  const history = facts.history.get(row.athleteId) ?? [];
  return {
    ...rowOf(facts, row, calls, decided),
    maxKg: row.maxKg,
    rule: row.rule,
    weeks: row.weeks.map((week) => ({
      week: week.week,
      date: week.date,
      present: week.present,
      plannedSets: week.plannedSets,
      doneSets: week.doneSets,
      reps: week.reps,
      loadKg: week.loadKg,
      percent: week.percent,
      speedMps: week.speedMps,
      onSpeed: week.onSpeed,
      judged: week.judged,
      cutSets: week.cutSets,
      faults: week.faults,
    })),
    tonnage: history
      .filter((day) => day.date >= wave.run.from && day.date <= wave.run.to)
      .map((day) => ({ date: day.date, kg: day.points.tonnageKg })),
    allDays: allDays(row.speed),
    daySdMps: row.speed.ok ? row.speed.daySdMps : undefined,
    earlier: earlierWaves(wave, history),
    raised: await raisedLoad(tx, wave, row, calls),
  };
}

const allDays = (speed: EqualSpeed) =>
  speed.ok
    ? speed.days.map((day) => ({
        date: day.date,
        speedMps: day.speedMps,
        sdMps: Math.sqrt(day.readingSdMps ** 2 + speed.daySdMps ** 2),
      }))
    : [];

/** What the base that is proposed would put on the bar, at the share of the max of the newest day. */
async function raisedLoad(
  tx: TeamTransaction,
  wave: Wave,
  row: WaveRow,
  calls: readonly ReviewCall[],
) {
  const action = calls.find((call) => call.action.type === "base")?.action;
  const percent = row.weeks.findLast((week) => week.percent !== undefined)?.percent;
  if (action?.type !== "base" || action.toKg === action.fromKg || percent === undefined)
    return undefined;
  // As near as plates let it come to what was asked: to the half per cent.
  const askedPercent = Math.round(2 * percent) / 2;
  const racks = await racksOf(tx, wave.row.plan.roomId);
  const rack = racks.find((one) => barFits(wave.variant.bar, one.bar));
  const wantedKg = (action.toKg * askedPercent) / 100;
  const loading = rack && loadBar(rack.gear, wantedKg, wave.row.plan.rounding);
  return {
    percent: askedPercent,
    toKg: action.toKg,
    wantedKg,
    barKg: loading?.ok ? loading.totalKg : undefined,
  };
}

/** Earlier times through any recipe of the same lift, by plan and slot, the newest first. */
function earlierWaves(
  wave: Wave,
  history: ReadonlyArray<PointDay & { planId: string | null; planSlotId: string | null }>,
) {
  const by = new Map<string, typeof history>();
  for (const day of history) {
    if (day.date >= wave.run.from) continue;
    const key = `${day.planId ?? ""}/${day.planSlotId ?? ""}`;
    by.set(key, [...(by.get(key) ?? []), day]);
  }
  return [...by.values()]
    .map((days) => ({
      from: days[0]?.date ?? wave.run.from,
      to: days.at(-1)?.date ?? wave.run.from,
      days: days.length,
      sets: days.reduce((n, day) => n + day.points.setsDone, 0),
      cut: days.reduce((n, day) => n + day.points.cut, 0),
      tonnageKg: days.reduce((n, day) => n + day.points.tonnageKg, 0),
    }))
    .sort((a, b) => b.from.localeCompare(a.from));
}

/** What became of the calls that were decided on this lift, this wave's own apart. */
function becameOf({ wave, squad }: WaveFacts, decided: readonly StoredCall[]): BecameRow[] {
  return decided
    .filter((call) => call.variantId === wave.variant.id && call.undoneAt === null)
    .flatMap((call): BecameRow[] => {
      const row = squad.rows.find((one) => one.athleteId === call.athleteId);
      if (!row) return [];
      return [
        {
          call: decidedOf(call),
          name: row.name,
          became: becameFor(call, row),
        },
      ];
    });
}
