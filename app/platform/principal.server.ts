import { membershipsOf } from "../../db/queries/people.server";
import { rackByToken } from "../../db/queries/tablets.server";
import { auth } from "./auth.server";
import { databases } from "./database.server";
import { hashSecret, RACK_COOKIE, readCookie } from "./rack-token.server";
import type { Principal } from "./rights";

/** Which of several teams this browser works in: an id, and only where the person belongs to it. */
export const TEAM_COOKIE = "sprezza_team";

export function teamCookie(teamId: string, secure: boolean): string {
  return `${TEAM_COOKIE}=${teamId}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${400 * 86400}${secure ? "; Secure" : ""}`;
}

/** Who asks: a signed-in person, else a paired tablet, else nobody. */
export async function findPrincipal(request: Request): Promise<Principal | undefined> {
  const cookies = request.headers.get("cookie") ?? "";
  const signIn = databases().auth.database;
  if (cookies.includes("sprezza.session_token")) {
    const session = await auth().api.getSession({ headers: request.headers });
    if (session) {
      const teams = await membershipsOf(signIn, session.user.id);
      const wanted = readCookie(request, TEAM_COOKIE);
      const member = teams.find((one) => one.teamId === wanted) ?? teams[0];
      if (member) {
        const { teamName: _, ...place } = member;
        return { kind: "person", userId: session.user.id, ...place };
      }
    }
  }
  const token = readCookie(request, RACK_COOKIE);
  if (token) {
    const device = await rackByToken(signIn, hashSecret(token));
    if (device) return { kind: "rack", ...device };
  }
  return undefined;
}
