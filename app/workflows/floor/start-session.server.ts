import { uuidv7 } from "uuidv7";
import { freezeSession } from "../../../core/session/freeze";
import { expandRecipe } from "../../../core/wave/recipe";
import { racksOf, roomById } from "../../../db/queries/gear.server";
import { planById } from "../../../db/queries/plans.server";
import { frozenOf, insertSession, runningSessions } from "../../../db/queries/sessions.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate, now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { planAthletes, planOverrides, sessionPlan } from "../plan/prescribe-plan.server";

/** Puts one week of a plan on the floor. */
export function startSession(
  principal: Principal,
  input: { planId: string; week: number; present: string[] },
): Promise<Outcome<{ sessionId: string }>> {
  return inTeam(principal, async (tx) => {
    const row = await planById(tx, input.planId);
    if (!row) return failed("no-plan", "This plan is no longer there. Open the plan list.");
    const room = await roomById(tx, row.plan.roomId);
    const week = expandRecipe(row.plan.recipe)[input.week - 1];
    if (!week || !room) return failed("no-week", "This plan has no such week.");
    const at = now();
    const date = localDate(room.zone, at);

    const racks = await freeRacks(tx, room.id);
    if (racks.length === 0) {
      return failed(
        "no-rack",
        `Every rack in ${room.name} is in use. End the running session first.`,
      );
    }
    const athletes = (await planAthletes(tx, row, date)).filter((athlete) =>
      input.present.includes(athlete.id),
    );
    if (athletes.length === 0) {
      return failed("nobody", "Nobody is ticked as here. Tick who is, then start.");
    }
    const sessionId = await insertSession(tx, {
      id: uuidv7(),
      planId: row.plan.id,
      week: week.number,
      date,
      roomId: room.id,
      status: "running",
      frozen: freezeSession({
        plan: sessionPlan(row),
        week,
        athletes,
        racks,
        overrides: await planOverrides(tx, row.plan.id),
        date,
        zone: room.zone,
        roomName: room.name,
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
