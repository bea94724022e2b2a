import postgres from "postgres";
import { type Connection, connect } from "../../db/connection.server";
import { type TeamTransaction, withTeam } from "../../db/team.server";
import { environment } from "./env.server";
import type { Principal } from "./rights";

interface Pools {
  app: Connection;
  auth: Connection;
  /** What racks send is written on connections of its own: no reader can hold it up. */
  log: Connection;
}

let pools: Pools | undefined;

/**
 * Connections of this process. Pages wait for one another in their own process rather than in the
 * database, where they would wait beside the log.
 */
function connections(): { app: number; auth: number } {
  return environment().SPREZZA_PROCESS === "pages" ? { app: 3, auth: 2 } : { app: 6, auth: 4 };
}

export function databases(): Pools {
  const most = connections();
  pools ??= {
    app: connect(environment().DATABASE_URL, most.app),
    auth: connect(environment().AUTH_DATABASE_URL, most.auth),
    log: connect(environment().DATABASE_URL, 4),
  };
  return pools;
}

/** One transaction in the principal's team: the only way a workflow reaches team tables. */
export function inTeam<T>(
  principal: Pick<Principal, "teamId">,
  work: (tx: TeamTransaction) => Promise<T>,
  snapshot?: string,
): Promise<T> {
  return withTeam(databases().app.database, principal.teamId, work, snapshot);
}

/**
 * A connection of its own for work that takes long (an archive out or in): pages and racks do not
 * wait for it.
 */
export async function onOwnConnection<T>(
  url: string,
  work: (client: postgres.Sql) => Promise<T>,
): Promise<T> {
  const client = postgres(url, { max: 1, connect_timeout: 5, onnotice: () => {} });
  try {
    return await work(client);
  } finally {
    await client.end({ timeout: 5 });
  }
}

/** The same on the connections that are kept for what racks send. */
export function loggingInTeam<T>(
  principal: Pick<Principal, "teamId">,
  work: (tx: TeamTransaction) => Promise<T>,
): Promise<T> {
  return withTeam(databases().log.database, principal.teamId, work);
}

const HEALTH_MS = 3000;

/** Whether both pools get an answer in time. */
export async function databaseAnswers(): Promise<boolean> {
  const { app, auth } = databases();
  const late = new Promise<never>((_, reject) => {
    setTimeout(() => reject(new Error("no answer in time")), HEALTH_MS).unref();
  });
  try {
    await Promise.race([Promise.all([app.client`SELECT 1`, auth.client`SELECT 1`]), late]);
    return true;
  } catch {
    return false;
  }
}

export async function closeDatabases(): Promise<void> {
  const open = pools;
  pools = undefined;
  await Promise.all([open?.app.close(), open?.auth.close(), open?.log.close()]);
}

const LOST = new Set([
  "ECONNREFUSED",
  "ECONNRESET",
  "CONNECT_TIMEOUT",
  "CONNECTION_CLOSED",
  "CONNECTION_ENDED",
  "CONNECTION_DESTROYED",
  "57P01",
  "57P03",
]);

/** Whether an error means that the database is away (as against a mistake of ours). */
export function isDatabaseAway(error: unknown): boolean {
  for (let at: unknown = error; at instanceof Error; at = at.cause) {
    const code = (at as { code?: string }).code;
    if (code !== undefined && LOST.has(code)) return true;
    if (at instanceof AggregateError && at.errors.some(isDatabaseAway)) return true;
  }
  return false;
}

const FOREIGN_KEY_VIOLATION = "23503";

/** The rule of the database that refused a row, by its name. */
export function brokenRule(error: unknown): string | undefined {
  for (let at: unknown = error; at instanceof Error; at = at.cause) {
    const rule = (at as { constraint_name?: string }).constraint_name;
    if (rule) return rule;
  }
  return undefined;
}

/** Whether the database refused a row because what it names is not in the team. */
export function refersToNothing(error: unknown): boolean {
  for (let at: unknown = error; at instanceof Error; at = at.cause)
    if ((at as { code?: string }).code === FOREIGN_KEY_VIOLATION) return true;
  return false;
}
