import { endSession } from "../../../db/queries/sessions.server";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";

/** Ends a running session. What tablets logged before this moment is still taken. */
export function finishSession(
  principal: Principal,
  sessionId: string,
): Promise<Outcome<{ sessionId: string }>> {
  return inTeam(principal, async (tx) => {
    const ended = await endSession(tx, sessionId, now());
    return ended
      ? done({ sessionId })
      : failed("not-running", "This session has ended already. Its review is open.");
  });
}
