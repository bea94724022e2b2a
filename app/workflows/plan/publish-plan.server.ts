import { uuidv7 } from "uuidv7";
import { checkPlan, openChecks } from "../../../core/checks/plan";
import { blockLoads } from "../../../core/plan/block-loads";
import { ensurePlanLibrary } from "../../../db/queries/plan-library.server";
import { addVersion, newestVersion, planById } from "../../../db/queries/plans.server";
import { localDate, now } from "../../platform/clock.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { checkInput } from "../lifters/plan-checks.server";
import { NO_PLAN } from "../lifters/plan-edit.server";
import { planLifters } from "../lifters/plan-lifters.server";
import { blockRoom } from "../lifters/plan-room.server";
import { readerUnit } from "../lifters/reader-unit.server";

/**
 * Makes a version of a plan: what athletes see from now on. Refused checks that nobody answered
 * with a reason stop it, and so does a slot without numbers.
 */
export function publishPlan(
  principal: Principal,
  input: { planId: string; base: number },
): Promise<Outcome<{ number: number }>> {
  return inTeamOnce(principal, async (tx) => {
    await ensurePlanLibrary(tx);
    const row = await planById(tx, input.planId);
    if (!row) return NO_PLAN;
    const { block } = row.plan;
    if (row.plan.version !== input.base) {
      return failed(
        "newer",
        `${row.plan.updatedBy} changed the plan meanwhile. Look at it again, then publish.`,
      );
    }
    if (Object.keys(block.slots).length === 0) {
      return failed("empty", "There is nothing to publish yet: put a slot on a day first.");
    }
    const today = localDate(row.zone);
    const room = await blockRoom(tx, row, await readerUnit(tx, principal));
    if (!room) return failed("no-rack", `${row.roomName} has no rack with a bar yet.`);
    const athletes = await planLifters(tx, row, block, today);
    const checks = checkPlan(await checkInput(tx, row, athletes, room, today));
    const refused = openChecks(block, checks).filter((one) => one.level === "refused");
    if (refused.length > 0) {
      return failed(
        "refused",
        `Not published: ${refused.length === 1 ? "one check is" : `${refused.length} checks are`} refused. ${refused[0]?.text} Change it, or answer it with a reason.`,
      );
    }
    const before = await newestVersion(tx, input.planId);
    const number = (before?.number ?? 0) + 1;
    await addVersion(tx, {
      id: uuidv7(),
      planId: input.planId,
      number,
      seq: row.plan.version,
      block,
      loads: blockLoads({ block, athletes, room }),
      enteredBy: principal.name,
      enteredAt: now(),
    });
    return done({ number });
  });
}
