import type { Sql } from "postgres";
import journal from "../../db/migrations/meta/_journal.json";

/**
 * How many migrations of this version the database does not have yet.
 * @param client a role that may read the list of migrations (the sign-in role)
 */
export async function stepsBehind(client: Sql): Promise<number> {
  const [row] = await client<Array<{ readable: boolean }>>`
    SELECT coalesce(has_schema_privilege(n.oid, 'USAGE'), false) AS readable
    FROM pg_namespace n WHERE n.nspname = 'drizzle'`;
  // Made before versions were asked for, or not made at all.
  if (!row?.readable) return journal.entries.length;
  const [applied] = await client<Array<{ newest: string | null }>>`
    SELECT max(created_at)::text AS newest FROM drizzle.__drizzle_migrations`;
  const newest = Number(applied?.newest ?? 0);
  return journal.entries.filter((entry) => entry.when > newest).length;
}
