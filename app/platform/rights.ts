/**
 * Who may do what: one table. The guard (guard.server.ts) runs before every loader and action and
 * looks the address up here; an address that is not here is refused, so a new route cannot be
 * forgotten (and a test compares this table with app/routes.ts).
 */
export type Role = "owner" | "coach" | "assistant" | "athlete";

export type Principal =
  | {
      kind: "person";
      userId: string;
      teamId: string;
      role: Role;
      name: string;
      athleteId: string | undefined;
    }
  | {
      kind: "rack";
      deviceId: string;
      teamId: string;
      roomId: string;
      rackId: string;
      name: string;
      /** A revoked tablet may still hand in what it logged before. */
      revokedAt: Date | undefined;
    };

/** What a principal is for the table below. */
export type Actor = Role | "rack" | "revoked-rack";

export function actorOf(principal: Principal): Actor {
  if (principal.kind === "person") return principal.role;
  return principal.revokedAt ? "revoked-rack" : "rack";
}

export type Allowed = "anyone" | readonly Actor[];

export interface RouteRight {
  /** Address pattern as in app/routes.ts. */
  path: string;
  read: Allowed;
  /** Absent: the address takes no action. */
  write?: Allowed;
}

const staff: readonly Actor[] = ["owner", "coach", "assistant"];
const coaches: readonly Actor[] = ["owner", "coach"];
const floor: readonly Actor[] = ["owner", "coach", "assistant", "rack"];
const logging: readonly Actor[] = [...floor, "athlete"];
const people: readonly Actor[] = ["owner", "coach", "assistant", "athlete"];
const signedIn: readonly Actor[] = [...people, "rack"];

export const ROUTE_RIGHTS: readonly RouteRight[] = [
  { path: "/", read: signedIn },
  { path: "/sign-in", read: "anyone", write: "anyone" },
  { path: "/sign-out", read: "anyone", write: "anyone" },
  { path: "/pair", read: "anyone", write: "anyone" },
  { path: "/first-run", read: "anyone", write: "anyone" },
  { path: "/join/:token", read: "anyone", write: "anyone" },
  { path: "/reset/:token", read: "anyone", write: "anyone" },
  { path: "/forgot", read: "anyone", write: "anyone" },
  { path: "/health", read: "anyone" },
  { path: "/health/live", read: "anyone" },
  { path: "/floor", read: staff, write: ["owner", "coach", "assistant"] },
  { path: "/floor/pairing", read: staff, write: staff },
  { path: "/floor/groups", read: staff },
  { path: "/floor/pairing/:runId", read: staff, write: coaches },
  { path: "/floor/:sessionId", read: staff, write: coaches },
  { path: "/rack/:sessionId/:rackId", read: floor },
  { path: "/rack/offline", read: "anyone" },
  { path: "/floor/offline", read: "anyone" },
  { path: "/card/offline", read: "anyone" },
  { path: "/plan", read: staff, write: coaches },
  { path: "/plan/:planId", read: staff, write: coaches },
  { path: "/plan/:planId/print", read: staff, write: coaches },
  { path: "/plan/:planId/out/:planFile", read: staff },
  { path: "/feed/:token", read: "anyone" },
  { path: "/api/plan/:planId", read: staff, write: coaches },
  { path: "/athletes", read: staff, write: coaches },
  { path: "/athletes/profiles", read: staff },
  { path: "/athletes/box", read: staff, write: coaches },
  { path: "/athletes/squads", read: staff, write: coaches },
  { path: "/athletes/add", read: coaches, write: coaches },
  { path: "/athletes/testing-day", read: coaches, write: coaches },
  { path: "/athletes/:athleteId", read: staff, write: coaches },
  { path: "/athletes/:athleteId/box", read: staff, write: coaches },
  { path: "/athletes/:athleteId/profiles/:testId", read: staff, write: coaches },
  { path: "/lab", read: staff, write: coaches },
  { path: "/lab/gap", read: staff, write: staff },
  { path: "/lab/profile", read: staff, write: staff },
  { path: "/review", read: staff, write: coaches },
  { path: "/review/box", read: staff, write: coaches },
  { path: "/review/wave", read: staff, write: coaches },
  { path: "/review/trends", read: staff },
  { path: "/review/pays", read: staff },
  { path: "/review/block", read: staff, write: coaches },
  { path: "/review/week", read: staff },
  { path: "/review/week/out/:weekFile", read: staff },
  { path: "/review/notes", read: staff, write: coaches },
  { path: "/review/:sessionId/out/:reviewFile", read: staff },
  { path: "/review/:sessionId", read: staff, write: coaches },
  { path: "/gear", read: staff, write: coaches },
  { path: "/gear/:roomId", read: staff, write: coaches },
  { path: "/gear/:roomId/out/:roomFile", read: staff },
  { path: "/library", read: staff, write: coaches },
  { path: "/library/lifts", read: staff, write: coaches },
  { path: "/library/recipes", read: staff, write: coaches },
  { path: "/library/own-table", read: coaches, write: coaches },
  { path: "/library/recipes/:recipeFile", read: staff },
  { path: "/library/complexes", read: staff, write: coaches },
  { path: "/library/faults", read: staff, write: coaches },
  { path: "/library/schools", read: staff, write: coaches },
  { path: "/library/coach-set", read: staff, write: coaches },
  { path: "/data", read: coaches, write: coaches },
  { path: "/data/earlier", read: coaches, write: coaches },
  { path: "/data/records", read: coaches, write: coaches },
  { path: "/data/backup", read: ["owner"] },
  { path: "/data/archive", read: ["owner"] },
  { path: "/account/archive", read: [], write: ["owner"] },
  { path: "/data/out/:file", read: coaches },
  { path: "/people", read: coaches, write: coaches },
  { path: "/first-hour", read: coaches, write: coaches },
  { path: "/tablets", read: coaches, write: coaches },
  { path: "/card", read: ["athlete"], write: ["athlete"] },
  { path: "/card/:sessionId", read: ["athlete"], write: ["athlete"] },
  { path: "/api/at-rack", read: ["rack"] },
  // Of sessions an athlete sees what they train alone, and nothing else (see may-know.server.ts).
  { path: "/api/session/:sessionId", read: logging },
  { path: "/kept", read: signedIn },
  { path: "/account", read: people, write: people },
  { path: "/api/log/:sessionId", read: logging, write: [...logging, "revoked-rack"] },
  { path: "/api/live/:sessionId", read: logging, write: logging },
  // Whoever has a rack's sensor token sends its frames: the token is asked for there.
  { path: "/api/sensor", read: [], write: "anyone" },
  { path: "/api/sensor/:rackId", read: floor },
  { path: "/api/find", read: staff },
  { path: "/api/unit", read: people, write: people },
  { path: "/api/bench/:athleteId/:variantId", read: staff },
];

export function isAllowed(allowed: Allowed | undefined, actor: Actor | undefined): boolean {
  if (allowed === undefined) return false;
  if (allowed === "anyone") return true;
  return actor !== undefined && allowed.includes(actor);
}

/** Whether a principal may act on a page: for showing or leaving out what changes it. */
export function mayWrite(principal: Principal, path: string): boolean {
  return isAllowed(ROUTE_RIGHTS.find((rule) => rule.path === path)?.write, actorOf(principal));
}

/** A person's place in one team. */
export interface Standing {
  teamId: string;
  role: Role;
  suspended: boolean;
}

/**
 * Whether somebody may give a link that sets another's password. A password opens every team of
 * its person: so the giver must stand over each of them, as its owner, or as a coach where the
 * person is an athlete there. Nobody takes over another team's person by a reset.
 */
export function mayGiveReset(giver: readonly Standing[], person: readonly Standing[]): boolean {
  return (
    person.length > 0 &&
    person.every((place) =>
      giver.some(
        (own) =>
          own.teamId === place.teamId &&
          !own.suspended &&
          (own.role === "owner" || (own.role === "coach" && place.role === "athlete")),
      ),
    )
  );
}

/** Whom a role may invite, suspend or remove: owners everybody, coaches the athletes. */
export function mayManage(role: Role, of: Role): boolean {
  return role === "owner" || (role === "coach" && of === "athlete");
}

/** Where an actor starts. */
export function homeOf(principal: Principal): string {
  if (principal.kind === "rack") return "/";
  return principal.role === "athlete" ? "/card" : "/floor";
}
