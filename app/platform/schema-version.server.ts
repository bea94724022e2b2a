import type { Sql } from "postgres";
import journal from "../../db/migrations/meta/_journal.json";

/**
 * How the database's tables stand to this version.
 * @returns `behind`: how many migrations are still to come; `ahead`: how many it has that this
 *   version does not know
 * @param client a role that may read the list of migrations (the sign-in role)
 */
export async function schemaState(client: Sql): Promise<{ behind: number; ahead: number }> {
  const own = journal.entries.map((entry) => entry.when);
  const [row] = await client<Array<{ readable: boolean }>>`
    SELECT coalesce(has_schema_privilege(n.oid, 'USAGE'), false) AS readable
    FROM pg_namespace n WHERE n.nspname = 'drizzle'`;
  // Made before versions were asked for, or not made at all.
  if (!row?.readable) return { behind: own.length, ahead: 0 };
  const rows = await client<Array<{ at: string }>>`
    SELECT created_at::text AS at FROM drizzle.__drizzle_migrations`;
  const applied = new Set(rows.map((one) => Number(one.at)));
  return {
    behind: own.filter((at) => !applied.has(at)).length,
    ahead: [...applied].filter((at) => !own.includes(at)).length,
  };
}
