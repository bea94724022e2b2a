import { uuidv7 } from "uuidv7";
import { freezeSession } from "../../../core/floor/freeze";
import { leadSlot, slotWeek } from "../../../core/plan/block";
import { racksOf, roomById } from "../../../db/queries/gear.server";
import { coachValues } from "../../../db/queries/plan-library.server";
import { newestVersion, planById } from "../../../db/queries/plans.server";
import { frozenOf, insertSession, runningSessions } from "../../../db/queries/sessions.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate, now } from "../../platform/clock.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { blockRoom } from "../lifters/block-athletes.server";
import { rackSetups } from "../lifters/box-seat.server";
import { planAthletes, sessionPlan, slotOverrides } from "../lifters/plan-athletes.server";

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
    const plan = sessionPlan(row, slotId, block, published?.number);
    const settings = (await blockRoom(tx, row))?.settings ?? {};
    const week = slot && slotWeek(block, slot, input.week, settings);
    if (!plan || !week || week.sets.length === 0 || !room) {
      return failed("no-week", "This plan has no such week, or nothing to lift in it.");
    }
    const at = now();
    const date = localDate(room.zone, at);

    const racks = await freeRacks(tx, room.id);
    if (racks.length === 0) {
      return failed(
        "no-rack",
        `Every rack in ${room.name} is in use. End the running session first.`,
      );
    }
    const athletes = (
      await planAthletes(tx, {
        squadId: row.plan.squadId,
        variantId: plan.variant.id,
        today: date,
        block,
        date,
      })
    ).filter((athlete) => input.present.includes(athlete.id));
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
        : undefined;
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
        athletes: athletes.map((one) => ({ ...one, ...setups?.get(one.id) })),
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
async function freeRacks(tx: TeamTransaction, roomId: string) {
  const taken = new Set<string>();
  for (const other of await runningSessions(tx)) {
    if (other.roomId !== roomId) continue;
    const running = await frozenOf(tx, other.id);
    for (const rack of running?.frozen.racks ?? []) taken.add(rack.id);
  }
  return (await racksOf(tx, roomId)).filter((rack) => !taken.has(rack.rackId));
}
