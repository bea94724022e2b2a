import { createContext, matchPath, type RouterContextProvider, redirect } from "react-router";
import { orAway } from "./answers.server";
import { log, requestId } from "./log.server";
import { findPrincipal } from "./principal.server";
import { actorOf, isAllowed, type Principal, ROUTE_RIGHTS, type RouteRight } from "./rights";

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

/** The rule for an address, most literal pattern first. */
export function ruleFor(pathname: string): RouteRight | undefined {
  return ROUTE_RIGHTS.find((rule) => matchPath({ path: rule.path, end: true }, pathname) !== null);
}

/** The page's own address: the router asks for data at `/plan.data` and `/_root.data`. */
export function pageAddress(url: URL): string {
  const path = url.pathname.replace(/\.data$/, "").replace(/^\/_root$/, "/");
  return path === "/" ? path : path.replace(/\/+$/, "");
}

const SAFE = new Set(["GET", "HEAD"]);

/**
 * Runs before every loader and action. Finds out who asks, looks up the rule, and refuses what
 * the table does not allow. Changing requests must come from our own pages (Origin).
 */
export async function guard(
  { request, context }: { request: Request; context: Readonly<RouterContextProvider> },
  next: () => Promise<Response>,
): Promise<Response> {
  const url = new URL(request.url);
  const path = pageAddress(url);
  const rule = ruleFor(path);
  // Unknown addresses go on to the router's own "not found"; no module runs for them.
  if (!rule) return next();

  const reading = SAFE.has(request.method);
  if (!reading) {
    const origin = request.headers.get("origin");
    if (origin !== null && new URL(origin).host !== url.host) {
      throw new Response("This came from another site and was not taken.", { status: 403 });
    }
  }
  const allowed = reading ? rule.read : rule.write;
  const principal = await orAway(request, () => findPrincipal(request));
  context.set(principalContext, principal);
  const actor = principal && actorOf(principal);
  if (isAllowed(allowed, actor)) return next();

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
