import { membershipOf } from "../../db/queries/people.server";
import { rackByToken } from "../../db/queries/tablets.server";
import { auth } from "./auth.server";
import { databases } from "./database.server";
import { hashSecret, RACK_COOKIE, readCookie } from "./rack-token.server";
import type { Principal } from "./rights";

/** Who asks: a signed-in person, else a paired tablet, else nobody. */
export async function findPrincipal(request: Request): Promise<Principal | undefined> {
  const cookies = request.headers.get("cookie") ?? "";
  const signIn = databases().auth.database;
  if (cookies.includes("sprezza.session_token")) {
    const session = await auth().api.getSession({ headers: request.headers });
    if (session) {
      const member = await membershipOf(signIn, session.user.id);
      if (member) return { kind: "person", userId: session.user.id, ...member };
    }
  }
  const token = readCookie(request, RACK_COOKIE);
  if (token) {
    const device = await rackByToken(signIn, hashSecret(token));
    if (device) return { kind: "rack", ...device };
  }
  return undefined;
}
