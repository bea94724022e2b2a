import { uuidv7 } from "uuidv7";
import {
  addSessionChange,
  endSession,
  frozenById,
  lockSession,
  reopenSession,
  runningSessions,
  sessionChanges,
  sessionHead,
} from "../../../db/queries/sessions.server";
import type { TeamTransaction } from "../../../db/team.server";
import { localDate, now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { sumOne } from "../lifters/session-sums.server";
import { keepRungs } from "./ladder.server";
import { mayKnow } from "./may-know.server";

const NO_SESSION = failed("no-session", "This session is not in your team. Open the floor.");

/** Ends a running session. What tablets logged before this moment is still taken. */
export async function finishSession(
  principal: Principal,
  sessionId: string,
): Promise<Outcome<{ sessionId: string }>> {
  const ended = await inTeam(principal, async (tx): Promise<Outcome<{ sessionId: string }>> => {
    const session = await lockSession(tx, sessionId);
    if (!session || !mayKnow(principal, session)) return NO_SESSION;
    if (!(await closeSession(tx, principal, sessionId)))
      return failed("not-running", "This session has ended already. Its review is open.");
    return done({ sessionId });
  });
  // Its review is asked for next.
  if (ended.ok) await sumOne(principal, sessionId);
  return ended;
}

/** Ends a session, whoever asked was let to; false where it does not run. */
export async function closeSession(
  tx: TeamTransaction,
  principal: Principal,
  sessionId: string,
): Promise<boolean> {
  const at = now();
  if (!(await endSession(tx, sessionId, at))) return false;
  await keepRungs(tx, sessionId, principal.name, at);
  await keepChange(tx, principal, sessionId, "ended", "", at);
  return true;
}

/** Opens an ended session again, with a reason, within its day and where its racks are free. */
export function openAgain(
  principal: Principal,
  sessionId: string,
  reason: string,
): Promise<Outcome<{ sessionId: string }>> {
  return inTeam(principal, async (tx) => {
    const session = await lockSession(tx, sessionId);
    if (!session || !mayKnow(principal, session)) return NO_SESSION;
    const head = await sessionHead(tx, sessionId);
    if (!head) return NO_SESSION;
    if (reason.trim() === "")
      return failed("no-reason", "Say why it is opened again: it stays beside the session.");
    if (head.date !== localDate(head.zone))
      return failed("other-day", "A session is opened again on its own day only. Start a new one.");
    const busy = head.ownOf === null && (await rackInUse(tx, sessionId, head.roomId));
    if (busy)
      return failed("rack-in-use", `Rack ${busy} is used by another session. End that one first.`);
    if (!(await reopenSession(tx, sessionId)))
      return failed("running", "This session runs already. Open it from the floor.");
    await keepChange(tx, principal, sessionId, "reopened", reason.trim(), now());
    return done({ sessionId });
  });
}

/** Who ended a session or opened it again, when and why; the newest last. */
export function readChanges(principal: Principal, sessionId: string) {
  return inTeam(principal, async (tx) =>
    (await sessionChanges(tx, sessionId)).map(({ change, reason, enteredBy, enteredAt }) => ({
      change,
      reason,
      by: enteredBy,
      at: enteredAt.toISOString(),
    })),
  );
}

function keepChange(
  tx: TeamTransaction,
  principal: Principal,
  sessionId: string,
  change: "ended" | "reopened",
  reason: string,
  at: Date,
): Promise<void> {
  const enteredBy = principal.name;
  return addSessionChange(tx, {
    id: uuidv7(),
    sessionId,
    change,
    reason,
    enteredBy,
    enteredAt: at,
  });
}

/** The name of a rack of this session that another running one uses. */
async function rackInUse(
  tx: TeamTransaction,
  sessionId: string,
  roomId: string | null,
): Promise<string | undefined> {
  const others = (await runningSessions(tx)).filter(
    (other) => other.roomId === roomId && other.id !== sessionId,
  );
  if (roomId === null || others.length === 0) return undefined;
  const frozen = await frozenById(tx, [sessionId, ...others.map((other) => other.id)]);
  const stations = (id: string) => frozen.get(id)?.stations ?? [];
  const taken = new Set(others.flatMap((other) => stations(other.id).map((one) => one.id)));
  const racks = stations(sessionId).filter((one) => one.kind === "rack");
  return racks.find((rack) => taken.has(rack.id))?.name;
}
