import { uuidv7 } from "uuidv7";
import { freezeSession, type LifterSetup } from "../../../core/floor/freeze";
import { isIn, leadSlot, slotWeek } from "../../../core/plan/block";
import type { LocalDate } from "../../../core/units/time";
import { racksWithHang, roomById } from "../../../db/queries/gear.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { newestVersion, planById } from "../../../db/queries/plans.server";
import { frozenById, insertSession, runningSessions } from "../../../db/queries/sessions.server";
import { listAthletes } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate, now } from "../../platform/clock.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { rackSetups } from "../lifters/box-seat.server";
import { planLifters, sessionPlan, slotOverrides } from "../lifters/plan-lifters.server";
import { blockRoom } from "../lifters/plan-room.server";

/** Puts one week of a plan on the floor. */
export function startSession(
  principal: Principal,
  input: { planId: string; week: number; slotId?: string | undefined; present: string[] },
): Promise<Outcome<{ sessionId: string }>> {
  return inTeamOnce(principal, async (tx) => {
    const row = await planById(tx, input.planId);
    if (!row) return failed("no-plan", "This plan is no longer there. Open the plan list.");
    const room = await roomById(tx, row.plan.roomId);
    // What was published is done; before the first publication the plan as it stands.
    const published = await newestVersion(tx, row.plan.id);
    const { block } = published ?? row.plan;
    const slotId = input.slotId ?? leadSlot(block)?.id ?? "";
    const slot = block.slots[slotId];
    const settings = (await blockRoom(tx, row))?.settings ?? {};
    const week = slot && slotWeek(block, slot, input.week, settings);
    const plan = week && sessionPlan(row, slotId, block, week, published?.number ?? 0);
    if (!plan || !week || week.sets.length === 0 || !room) {
      return failed("no-week", "This plan has no such week, or nothing to lift in it.");
    }
    const at = now();
    const date = localDate(room.zone, at);

    const racks = await freeRacks(tx, room.id, date);
    if (racks.length === 0) {
      return failed(
        "no-rack",
        `Every rack in ${room.name} is in use. End the running session first.`,
      );
    }
    const here = (await listAthletes(tx, row.plan.squadId)).filter(
      (person) => input.present.includes(person.id) && isIn(block, person.id, date),
    );
    const athletes = await planLifters(tx, row, block, date, here, [slot]);
    if (athletes.length === 0) {
      return failed("nobody", "Nobody is ticked as here. Tick who is, then start.");
    }
    const setups =
      plan.variant.lift === "box-squat"
        ? await rackSetups(tx, {
            athleteIds: athletes.map((one) => one.id),
            variantId: plan.variant.id,
            roomId: room.id,
          })
        : new Map<string, LifterSetup>();
    const sessionId = await insertSession(tx, {
      id: uuidv7(),
      planId: row.plan.id,
      week: week.number,
      slotId,
      date,
      roomId: room.id,
      status: "running",
      frozen: freezeSession({
        plan,
        week,
        athletes,
        setups,
        racks,
        overrides: slotOverrides(block, slotId),
        date,
        zone: room.zone,
        roomName: room.name,
        coachValues: await coachValues(tx),
      }),
      startedAt: at,
      startedBy: principal.name,
    });
    if (!sessionId) {
      return failed("started", "This week was started already. It is in the list below.");
    }
    return done({ sessionId });
  });
}

/** Racks of a room that no running session uses. */
async function freeRacks(tx: TeamTransaction, roomId: string, date: LocalDate) {
  const running = (await runningSessions(tx)).filter((one) => one.roomId === roomId);
  const frozen = await frozenById(
    tx,
    running.map((one) => one.id),
  );
  const taken = new Set(
    [...frozen.values()].flatMap((session) => session.stations.map((station) => station.id)),
  );
  return (await racksWithHang(tx, roomId, date)).filter((rack) => !taken.has(rack.rackId));
}
