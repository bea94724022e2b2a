import { auth } from "../../platform/auth.server";
import { inTeam } from "../../platform/database.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";

/** Where a person is signed in. */
export interface OwnSession {
  id: string;
  /** Browser and system, as far as the browser says them. */
  where: string;
  address: string;
  /** In words, by the team's clock. */
  since: string;
  lastUsed: string;
  /** The one that asks. */
  current: boolean;
}

/** A browser in a few words: what it is called, on what. */
export function browserWords(userAgent: string): string {
  const browser =
    [
      [/Edg\//, "Edge"],
      [/Firefox\//, "Firefox"],
      [/Chrom(e|ium)\//, "Chrome or Chromium"],
      [/Safari\//, "Safari"],
    ].find(([pattern]) => (pattern as RegExp).test(userAgent))?.[1] ?? "a browser";
  const system = [
    [/iPad|iPhone/, "iPad or iPhone"],
    [/Android/, "Android"],
    [/Windows/, "Windows"],
    [/Mac OS X/, "a Mac"],
    [/Linux/, "Linux"],
  ].find(([pattern]) => (pattern as RegExp).test(userAgent))?.[1];
  return system ? `${browser} on ${system}` : String(browser);
}

async function sessionsOf(request: Request) {
  const { headers } = request;
  const now = await auth().api.getSession({ headers });
  const all = now ? await auth().api.listSessions({ headers }) : [];
  return { current: now?.session.id, all };
}

/** A person's own sessions, the newest first. Tokens never leave the server. */
export async function readOwnSessions(
  principal: Principal,
  request: Request,
): Promise<OwnSession[]> {
  const { current, all } = await sessionsOf(request);
  const { zone } = await inTeam(principal, readPlaces);
  const time = new Intl.DateTimeFormat("en-GB", {
    dateStyle: "medium",
    timeStyle: "short",
    timeZone: zone,
  });
  return [...all]
    .sort((a, b) => Number(new Date(b.updatedAt)) - Number(new Date(a.updatedAt)))
    .map((one) => ({
      id: one.id,
      where: browserWords(one.userAgent ?? ""),
      address: one.ipAddress ?? "",
      since: time.format(new Date(one.createdAt)),
      lastUsed: time.format(new Date(one.updatedAt)),
      current: one.id === current,
    }));
}

/** Ends one of the person's own sessions, or all but this one. Its screens close at once. */
export async function endOwnSessions(
  request: Request,
  which: string | "others",
): Promise<Outcome<{ ended: number }>> {
  const { current, all } = await sessionsOf(request);
  const ending = all.filter((one) =>
    which === "others" ? one.id !== current : one.id === which && one.id !== current,
  );
  if (ending.length === 0)
    return failed("none", "There is no such session any more. The list was read again.");
  for (const { token } of ending)
    await auth().api.revokeSession({ headers: request.headers, body: { token } });
  return done({ ended: ending.length });
}
