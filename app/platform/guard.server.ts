import { createContext, type RouterContextProvider, redirect } from "react-router";
import { orAway } from "./answers.server";
import { log, requestId } from "./log.server";
import { findPrincipal } from "./principal.server";
import { actorOf, isAllowed, type Principal, ROUTE_RIGHTS, type RouteRight } from "./rights";
import { asSubmission } from "./submission.server";

const principalContext = createContext<Principal | undefined>(undefined);

/** The signed-in person or paired tablet. Only behind the guard, so it is always there. */
export function principalOf(context: Readonly<RouterContextProvider>): Principal {
  const principal = context.get(principalContext);
  if (!principal) throw new Response("Sign in first.", { status: 401 });
  return principal;
}

export function maybePrincipal(context: Readonly<RouterContextProvider>): Principal | undefined {
  return context.get(principalContext);
}

/** The rule of a matched route; undefined for an address that no route has. */
export function ruleFor(pattern: string): RouteRight | undefined {
  const path = `/${pattern.replace(/^\/+|\/+$/g, "")}`;
  return ROUTE_RIGHTS.find((rule) => rule.path === path);
}

/** What the database takes for an id; anything else names nothing. */
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

function namesNothing(params: Guarded["params"]): boolean {
  return Object.entries(params).some(
    ([name, value]) => name.endsWith("Id") && value !== undefined && !UUID.test(value),
  );
}

/** Whether a changing request comes from a page of ours; a request without Origin is no browser's. */
function isOurs(origin: string | null, host: string): boolean {
  if (origin === null) return true;
  return URL.canParse(origin) && new URL(origin).host === host;
}

interface Guarded {
  request: Request;
  params: Readonly<Record<string, string | undefined>>;
  /** The page's own address and its matched pattern, as the router sees them. */
  url: URL;
  pattern: string;
  context: Readonly<RouterContextProvider>;
}

const SAFE = new Set(["GET", "HEAD"]);
const NOTHING_HERE = "There is no such page. Check the address.";

/** Whose submission it is; a sign-in is nobody's yet. */
function actorKey(principal: Principal | undefined): string {
  if (!principal) return "nobody";
  return principal.kind === "rack" ? `rack:${principal.deviceId}` : `person:${principal.userId}`;
}

/**
 * Runs before every loader and action. Finds out who asks, looks up the rule, and refuses what
 * the table does not allow. Changing requests must come from our own pages (Origin).
 */
export async function guard(
  { request, params, url, pattern, context }: Guarded,
  next: () => Promise<Response>,
): Promise<Response> {
  const rule = ruleFor(pattern);
  if (!rule) throw new Response(NOTHING_HERE, { status: 404 });
  const path = url.pathname;

  const reading = SAFE.has(request.method);
  if (!reading && !isOurs(request.headers.get("origin"), url.host)) {
    throw new Response("This came from another site and was not taken.", { status: 403 });
  }
  const allowed = reading ? rule.read : rule.write;
  const principal = await orAway(request, () => findPrincipal(request));
  context.set(principalContext, principal);
  const actor = principal && actorOf(principal);
  if (isAllowed(allowed, actor)) {
    if (namesNothing(params)) throw new Response(NOTHING_HERE, { status: 404 });
    return reading ? next() : asSubmission(`${actorKey(principal)} ${path}`, next);
  }

  log.info({ requestId: requestId(request), path: rule.path, actor, reading }, "refused");
  const machine = path.startsWith("/api/");
  if (!principal && !machine) {
    const back = reading ? `${path}${url.search}` : "/";
    throw redirect(`/sign-in?to=${encodeURIComponent(back)}`);
  }
  if (!principal) throw new Response("Sign in again to go on.", { status: 401 });
  if (allowed === undefined) throw new Response("Nothing to do here.", { status: 405 });
  throw new Response("Your role does not allow this. Ask the owner of your team.", { status: 403 });
}
