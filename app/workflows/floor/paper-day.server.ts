import { freezeDay, sessionTitle } from "../../../core/floor/freeze";
import type { FrozenSession } from "../../../core/floor/frozen";
import { forPaper } from "../../../core/floor/on-paper";
import {
  type Block,
  type BlockDay,
  dateOf,
  daysOf,
  pairingsOf,
  slotsOf,
} from "../../../core/plan/block";
import { instantAt } from "../../../core/units/time";
import { coachValues } from "../../../db/queries/plan-library.server";
import { newestVersion, type PlanRow, planById } from "../../../db/queries/plans.server";
import { frozenById, sessionsOfPlan } from "../../../db/queries/sessions.server";
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
    const found = day && (await paperOf(tx, principal, row, { block, week, day, changedSince }));
    const paper = found?.ok
      ? done({ ...found.value, frozen: forPaper(found.value.frozen) })
      : found;
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
  const begun = await begunOf(tx, row, of);
  const slotIds = [...slotsOf(block, day.id), ...pairingsOf(block, day.id)]
    .map((one) => one.id)
    .filter((id) => !begun.slotIds.has(id));
  const [first] = begun.sessions;
  if (first && slotIds.length === 0)
    return done({ frozen: joined(first, begun.sessions), onFloor: true, changedSince });
  const planned = await settledOf(tx, principal, row, { block, week, day, slotIds });
  // What is on the floor hangs on the wall, whatever stops the rest of its day.
  if (!planned.ok && first)
    return done({ frozen: joined(first, begun.sessions), onFloor: true, changedSince });
  if (!planned.ok) return planned;
  return done({
    frozen: first ? joined(first, [...begun.sessions, planned.value]) : planned.value,
    onFloor: first !== undefined,
    changedSince,
  });
}

/** What of a day is on the floor already, or was. */
async function begunOf(
  tx: TeamTransaction,
  row: PlanRow,
  { block, week, day }: { block: Block; week: number; day: { id: string } },
): Promise<{ sessions: FrozenSession[]; slotIds: Set<string> }> {
  const planId = row.plan.id;
  const isOfDay = (from: { planId: string; week: number; slotId: string } | undefined) =>
    from?.planId === planId &&
    from.week === week &&
    (block.slots[from.slotId] ?? block.pairings?.[from.slotId])?.dayId === day.id;
  const heads = (await sessionsOfPlan(tx, planId))
    .filter(isOfFloor(row))
    .filter((one) => one.parts.some(isOfDay));
  const frozen = await frozenById(
    tx,
    heads.map((one) => one.id),
  );
  const slotIds = new Set<string>();
  const sessions = heads.flatMap((head) => {
    const session = frozen.get(head.id);
    if (!session) return [];
    for (const part of head.parts) if (isOfDay(part)) slotIds.add(part.slotId);
    // Of several plans' day only this one's; a session from before slots said whose they are is one's.
    const slots = session.slots.filter((slot) => !slot.from || isOfDay(slot.from));
    return [{ ...session, slots }];
  });
  return { sessions, slotIds };
}

/** A day's parts on one paper. */
const joined = (head: FrozenSession, all: readonly FrozenSession[]): FrozenSession => ({
  ...head,
  cautions: [...new Set(all.flatMap((one) => one.cautions))],
  stations: [...new Map(all.flatMap((one) => one.stations).map((one) => [one.id, one])).values()],
  slots: all.flatMap((one) => one.slots),
});

/** A day, or some of its slots, as one tap would start it with everybody here. */
async function settledOf(
  tx: TeamTransaction,
  principal: Principal,
  row: PlanRow,
  of: { block: Block; week: number; day: BlockDay & { id: string }; slotIds: string[] },
): Promise<Outcome<FrozenSession>> {
  const { block, week, day, slotIds } = of;
  const opened = await openPlanDay(
    tx,
    { planId: row.plan.id, week, dayId: day.id, slotIds },
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
  return done(freezeDay(facts, parts.value));
}
