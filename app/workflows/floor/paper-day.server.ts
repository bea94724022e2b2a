import { freezeDay, sessionTitle } from "../../../core/floor/freeze";
import type { FrozenSession } from "../../../core/floor/frozen";
import { type Block, type BlockDay, dateOf, daysOf } from "../../../core/plan/block";
import { instantAt } from "../../../core/units/time";
import { coachValues } from "../../../db/queries/plan-library.server";
import { newestVersion, type PlanRow, planById } from "../../../db/queries/plans.server";
import { frozenOf, sessionsOfPlan } from "../../../db/queries/sessions.server";
import type { TeamTransaction } from "../../../db/team.server";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { isOfFloor } from "../lifters/alone.server";
import { readerUnit } from "../lifters/reader-unit.server";
import { openPlanDay, partsOfDay } from "./day-parts.server";
import { stationsOfRoom } from "./free-stations.server";

/** A plan's day as paper shows it. */
export interface PaperDay {
  frozen: FrozenSession;
  /** As it is (or was) on the floor; else as one tap would start it with everybody here. */
  onFloor: boolean;
  /** The plan was changed since the version that is lifted. */
  changedSince: boolean;
}

const NOON_MIN = 720;

/**
 * A day of a plan, settled for the racks of its room: what stations show, for paper. Where it is on the
 * floor, its groups are the floor's.
 * @param asked as an address has it; the first week and day where it names none
 */
export function readPaper(
  principal: Principal,
  planId: string,
  asked: { week: string | null; day: string | null },
) {
  return inTeam(principal, async (tx) => {
    const row = await planById(tx, planId);
    if (!row) return failed("no-plan", "This plan is no longer there. Open the plan list.");
    const published = await newestVersion(tx, planId);
    const block = published?.block ?? row.plan.block;
    const week = Math.min(block.weeks, Math.max(1, Math.trunc(Number(asked.week)) || 1));
    const days = daysOf(block);
    const day = days.find((one) => one.id === asked.day) ?? days[0];
    const changedSince =
      published !== undefined && JSON.stringify(published.block) !== JSON.stringify(row.plan.block);
    const paper = day && (await paperOf(tx, principal, row, { block, week, day, changedSince }));
    return done({
      plan: { id: row.plan.id, name: block.name, weeks: block.weeks },
      days: days.map(({ id, name, startAt }) => ({ id, name, startAt })),
      week,
      dayId: day?.id ?? "",
      paper,
    });
  });
}

async function paperOf(
  tx: TeamTransaction,
  principal: Principal,
  row: PlanRow,
  of: { block: Block; week: number; day: BlockDay & { id: string }; changedSince: boolean },
): Promise<Outcome<PaperDay>> {
  const { block, week, day, changedSince } = of;
  const planId = row.plan.id;
  const inDay = (slotId: string) =>
    (block.slots[slotId] ?? block.pairings?.[slotId])?.dayId === day.id;
  const there = (await sessionsOfPlan(tx, planId))
    .filter(isOfFloor(row))
    .filter((one) =>
      one.parts.some((part) => part.planId === planId && part.week === week && inDay(part.slotId)),
    )
    .sort((a, b) => b.startedAt.getTime() - a.startedAt.getTime())[0];
  const session = there && (await frozenOf(tx, there.id));
  if (session) return done({ frozen: session.frozen, onFloor: true, changedSince });
  const opened = await openPlanDay(
    tx,
    { planId, week, dayId: day.id },
    {
      unit: await readerUnit(tx, principal),
      present: "everybody",
      at: instantAt(row.zone, dateOf(block, week, day), NOON_MIN),
    },
  );
  if (!opened.ok) return opened;
  const own = opened.value;
  const parts = await partsOfDay(tx, own, await stationsOfRoom(tx, own.room), {
    values: await coachValues(tx),
    prefix: "",
  });
  if (!parts.ok) return parts;
  const title = sessionTitle({
    name: own.block.name,
    squadName: own.row.squadName,
    version: own.version,
    week,
    weeks: own.block.weeks,
  });
  const { room, date, version } = own;
  const facts = { title, planVersion: version, date, zone: room.zone, roomName: room.name };
  return done({ frozen: freezeDay(facts, parts.value), onFloor: false, changedSince });
}
