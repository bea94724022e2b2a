import { uuidv7 } from "uuidv7";
import type { PlanCheck } from "../../../core/checks/input";
import { checkPlan, openChecks } from "../../../core/checks/plan";
import { type DayPart, freezeDay, sessionTitle } from "../../../core/floor/freeze";
import { leadSlot } from "../../../core/plan/block";
import { coachValues, ensurePlanLibrary } from "../../../db/queries/plan-library.server";
import { lockPlan, type PlanRow, planById } from "../../../db/queries/plans.server";
import { insertSession } from "../../../db/queries/sessions.server";
import { localDate, now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { checkInput } from "../lifters/plan-checks.server";
import { planLifters } from "../lifters/plan-lifters.server";
import { blockRoom } from "../lifters/plan-room.server";
import { readerUnit } from "../lifters/reader-unit.server";
import { type GroupsBySlot, openPlanDay, type PlanDay, partsOfDay } from "./day-parts.server";
import { freeStations, type RoomStations, sharesOf } from "./free-stations.server";
import { ladderPart } from "./ladder.server";

/** A day of a plan, or some of its slots. */
export interface DayAsked {
  planId: string;
  week: number;
  /** Slots and pairings of it; the whole day of the plan's lead lift where left out. */
  slotIds?: string[] | undefined;
  /** With the squad's teaching ladder as a slot. */
  ladder?: boolean | undefined;
}

/**
 * Puts a day on the floor: one plan's or several plans' of one room, as they were published, or as
 * drafts by a coach who has seen their checks. An open refusal is lifted by neither: whom it names
 * is left out of that slot, and one of a slot itself stops the start.
 */
export function startSession(
  principal: Principal,
  input: {
    days: readonly DayAsked[];
    present: string[];
    /** Groups that somebody looked at; by load where left out. */
    groups?: GroupsBySlot | undefined;
    /** The checks were seen, and what was never published is to be run as a draft. */
    asDraft?: boolean;
  },
): Promise<Outcome<{ sessionId: string }>> {
  return inTeamOnce(principal, async (tx) => {
    await ensurePlanLibrary(tx);
    const unit = await readerUnit(tx, principal);
    const at = now();
    const days: PlanDay[] = [];
    for (const asked of input.days) {
      // Two who start the same day at once come one after the other.
      await lockPlan(tx, asked.planId);
      const opened = await openPlanDay(tx, asked, { unit, present: input.present, at });
      if (!opened.ok) return opened;
      days.push(opened.value);
    }
    const [lead] = days;
    if (!lead) return failed("no-week", "Nothing was chosen. Tick a day, then start.");
    const { room } = lead;
    if (days.some((day) => day.room.id !== room.id)) {
      return failed("two-rooms", "These days are in different rooms. Start each in its own.");
    }
    const drafts = days.some((day) => !day.published);
    if (drafts && !mayRunDrafts(principal)) {
      return failed("coach-first", "This plan was never published. A coach publishes it first.");
    }
    const stations = await freeStations(tx, room);
    const values = await coachValues(tx);
    const parts: DayPart[] = [];
    for (const [i, racks] of sharesOf(stations.racks, days).entries()) {
      const day = days[i] as PlanDay;
      const free: RoomStations = { ...stations, racks };
      /** One plan's slots keep their own names. */
      const how = { values, prefix: days.length > 1 ? `${i + 1}.` : "", groups: input.groups };
      const settled = await partsOfDay(tx, day, free, how);
      if (!settled.ok) return settled;
      parts.push(...settled.value);
      const ladder = input.days[i]?.ladder ? await ladderPart(tx, day, free, how) : undefined;
      if (ladder) parts.push(ladder);
    }
    if (days.some((day) => day.begun)) return STARTED;
    // After every refusal, so that nobody looks at checks of a plan that cannot be started.
    if (drafts && !input.asDraft) {
      return failed(NOT_PUBLISHED, "This plan was never published. Look at its checks first.");
    }
    const [first] = parts.flatMap((part) => part.slot.from ?? []);
    const sessionId = await insertSession(tx, {
      id: uuidv7(),
      planId: first?.planId ?? lead.row.plan.id,
      week: lead.week,
      slotId: first?.slotId ?? "",
      date: lead.date,
      roomId: room.id,
      status: "running",
      frozen: freezeDay(
        {
          title: days.map(titleOf).join(" + "),
          planVersion: Math.min(...days.map((day) => day.version)),
          date: lead.date,
          zone: room.zone,
          roomName: room.name,
        },
        parts,
      ),
      startedAt: at,
      startedBy: principal.name,
    });
    if (!sessionId) return STARTED;
    return done({ sessionId });
  });
}

const STARTED = failed("started", "This week was started already. It is in the list below.");

const titleOf = (day: PlanDay) =>
  sessionTitle({
    name: day.block.name,
    squadName: day.row.squadName,
    version: day.version,
    week: day.week,
    weeks: day.block.weeks,
  });

/** Why a start waits for a coach: the plan was never published. */
export const NOT_PUBLISHED = "not-published";

const mayRunDrafts = (principal: Principal) =>
  principal.kind === "person" && (principal.role === "owner" || principal.role === "coach");

/** The open checks of a plan's slots, for a coach who is about to run it as a draft. */
export function draftChecks(
  principal: Principal,
  days: readonly DayAsked[],
): Promise<Array<Pick<PlanCheck, "level" | "text">>> {
  return inTeam(principal, async (tx) => {
    const found: Array<Pick<PlanCheck, "level" | "text">> = [];
    for (const asked of days) {
      const row: PlanRow | undefined = await planById(tx, asked.planId);
      const room = row && (await blockRoom(tx, row, await readerUnit(tx, principal)));
      if (!row || !room) continue;
      const { block } = row.plan;
      const dayId = leadSlot(block)?.dayId;
      const slotIds = new Set(
        asked.slotIds ?? Object.keys(block.slots).filter((id) => block.slots[id]?.dayId === dayId),
      );
      const today = localDate(row.zone);
      const athletes = await planLifters(tx, row, block, today);
      const checks = checkPlan(await checkInput(tx, row, athletes, room, today));
      for (const { level, text, slotId } of openChecks(block, checks))
        if (slotId === undefined || slotIds.has(slotId)) found.push({ level, text });
    }
    return found;
  });
}
