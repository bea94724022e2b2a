import { sql } from "drizzle-orm";
import type { Database, Transaction } from "./connection.server";
import { invariant } from "./invariant";

/** All access to team tables goes through here. */
export type TeamTransaction = Transaction & { readonly teamId: string };

/**
 * Runs `work` in one transaction that sees one team. The team is set for this transaction only
 * (a pooled connection keeps nothing afterwards), and row-level security does the rest.
 * @param snapshot the moment that another transaction holds: both read the same rows
 */
export async function withTeam<T>(
  database: Database,
  teamId: string,
  work: (tx: TeamTransaction) => Promise<T>,
  snapshot?: string,
): Promise<T> {
  invariant(/^[0-9a-f-]{36}$/.test(teamId), "a team id is a UUID");
  const isolation =
    snapshot === undefined ? undefined : ({ isolationLevel: "repeatable read" } as const);
  return database.transaction(async (tx) => {
    if (snapshot !== undefined) {
      invariant(/^[0-9A-F-]+$/.test(snapshot), "a snapshot is named by the database");
      await tx.execute(sql.raw(`SET TRANSACTION SNAPSHOT '${snapshot}'`));
    }
    await tx.execute(sql`SELECT set_config('app.team', ${teamId}, true)`);
    return work(Object.assign(tx, { teamId }));
  }, isolation);
}
