import { sql } from "drizzle-orm";
import type { Database, Transaction } from "./connection.server";
import { invariant } from "./invariant";

/** All access to team tables goes through here. */
export type TeamTransaction = Transaction & { readonly teamId: string };

/**
 * Runs `work` in one transaction that sees one team. The team is set for this transaction only
 * (a pooled connection keeps nothing afterwards), and row-level security does the rest.
 */
export async function withTeam<T>(
  database: Database,
  teamId: string,
  work: (tx: TeamTransaction) => Promise<T>,
): Promise<T> {
  invariant(/^[0-9a-f-]{36}$/.test(teamId), "a team id is a UUID");
  return database.transaction(async (tx) => {
    await tx.execute(sql`SELECT set_config('app.team', ${teamId}, true)`);
    return work(Object.assign(tx, { teamId }));
  });
}
