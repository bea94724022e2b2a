import type { Principal } from "../../platform/rights";

/**
 * Whether a session is somebody's to see and to write to: a tablet knows what is on the floor of its
 * room, an athlete what they train alone, coaches everything of the team.
 */
export function mayKnow(
  principal: Principal,
  session: { roomId: string | null; ownOf: string | null },
): boolean {
  if (principal.kind === "rack")
    return session.ownOf === null && session.roomId === principal.roomId;
  if (principal.role !== "athlete") return true;
  return principal.athleteId !== undefined && session.ownOf === principal.athleteId;
}
