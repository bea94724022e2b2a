import type postgres from "postgres";

/** A connection or a transaction of the driver itself: whole tables are read past the mapper. */
export type Client = postgres.ISql;

export interface KeptColumn {
  name: string;
  /** As PostgreSQL writes the type: "uuid", "timestamp with time zone", "text[]". */
  type: string;
  nullable: boolean;
}

export interface KeptTable {
  schema: string;
  name: string;
  /** Without those that the database computes by itself. */
  columns: KeptColumn[];
  key: string[];
  /** Whether its rows belong to a team: by their `team_id`, for the team itself by its `id`. */
  ofTeam: boolean;
}

export const fullName = (table: Pick<KeptTable, "schema" | "name">) =>
  `${table.schema}.${table.name}`;
export const quoted = (name: string) => `"${name.replaceAll('"', '""')}"`;
export const quotedTable = (table: Pick<KeptTable, "schema" | "name">) =>
  `${quoted(table.schema)}.${quoted(table.name)}`;

/** The schemas whose rows are kept; the list of migrations is made anew by the migrations. */
const SCHEMAS = ["public", "auth"];

interface Found {
  schema: string;
  name: string;
  columns: KeptColumn[];
  key: string[] | null;
  refers: string[] | null;
}

/**
 * Every table as the database itself describes it, those that others refer to first (a team refers
 * to one of its schools and a school to its team: the team comes first).
 */
export async function readTables(sql: Client): Promise<KeptTable[]> {
  const rows = await sql.unsafe<Found[]>(
    `SELECT n.nspname AS schema, c.relname AS name,
      (SELECT json_agg(json_build_object('name', a.attname, 'type',
          format_type(a.atttypid, a.atttypmod), 'nullable', NOT a.attnotnull) ORDER BY a.attnum)
        FROM pg_attribute a WHERE a.attrelid = c.oid AND a.attnum > 0 AND NOT a.attisdropped
          AND a.attgenerated = '') AS columns,
      (SELECT array_agg(a.attname::text ORDER BY array_position(k.conkey, a.attnum))
        FROM pg_constraint k JOIN pg_attribute a
          ON a.attrelid = k.conrelid AND a.attnum = ANY (k.conkey)
        WHERE k.conrelid = c.oid AND k.contype = 'p') AS key,
      (SELECT array_agg(DISTINCT fn.nspname || '.' || f.relname)
        FROM pg_constraint k JOIN pg_class f ON f.oid = k.confrelid
        JOIN pg_namespace fn ON fn.oid = f.relnamespace
        WHERE k.conrelid = c.oid AND k.contype = 'f' AND f.oid <> c.oid) AS refers
    FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
    WHERE n.nspname IN (${SCHEMAS.map((one) => `'${one}'`).join(", ")}) AND c.relkind IN ('r', 'p')
    ORDER BY n.nspname DESC, c.relname`,
  );
  return inOrder(rows).map(({ schema, name, columns, key }) => ({
    schema,
    name,
    columns,
    key: key ?? [],
    ofTeam:
      schema === "public" && (name === "team" || columns.some((one) => one.name === "team_id")),
  }));
}

/** Those that others refer to before them; where two refer to each other, the team first. */
function inOrder(rows: readonly Found[]): Found[] {
  const left = new Map(rows.map((row) => [fullName(row), row]));
  const out: Found[] = [];
  const take = (row: Found) => {
    left.delete(fullName(row));
    out.push(row);
  };
  const team = left.get("public.team");
  if (team) take(team);
  while (left.size > 0) {
    const ready = [...left.values()].filter((row) => !(row.refers ?? []).some((n) => left.has(n)));
    // A circle that nobody has made so far: by name, and the restore's own check says the rest.
    for (const row of ready.length > 0 ? ready : left.values()) take(row);
  }
  return out;
}

/**
 * The tables of which this role would read nothing, or only a part: no right, or row security
 * without a policy that lets it see every row.
 */
export async function tablesNotReadWhole(
  sql: Client,
  tables: readonly KeptTable[],
): Promise<string[]> {
  const rows = await sql.unsafe<Array<{ name: string }>>(
    `SELECT n.nspname || '.' || c.relname AS name
    FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
    WHERE n.nspname || '.' || c.relname = ANY ($1::text[]) AND (
      NOT has_schema_privilege(n.oid, 'USAGE')
      OR NOT has_table_privilege(c.oid, 'SELECT')
      OR (row_security_active(c.oid) AND NOT EXISTS (
        SELECT 1 FROM pg_policy p
        WHERE p.polrelid = c.oid AND p.polpermissive AND p.polcmd IN ('r', '*')
          AND pg_get_expr(p.polqual, p.polrelid) = 'true'
          AND EXISTS (SELECT 1 FROM unnest(p.polroles) r WHERE r = 0 OR pg_has_role(r, 'USAGE')))))`,
    [tables.map(fullName)],
  );
  return rows.map((row) => row.name);
}

/** Of a table's rows as text: one way to write every value, whatever the server's settings. */
export const PLAIN_TEXT = [
  "SET LOCAL timezone = 'UTC'",
  "SET LOCAL datestyle = 'ISO, YMD'",
  "SET LOCAL intervalstyle = 'postgres'",
  "SET LOCAL extra_float_digits = 1",
  "SET LOCAL bytea_output = 'hex'",
].join("; ");

/** Rows in the order of their key, whatever the database's language. */
export function keyOrder(table: KeptTable): string {
  const types = new Map(table.columns.map((one) => [one.name, one.type]));
  return table.key
    .map((name) => `${quoted(name)}${types.get(name) === "text" ? ' COLLATE "C"' : ""}`)
    .join(", ");
}

/** Reads a table whole as text, a row a line. */
export function copyOut(table: KeptTable, columns = table.columns.map((one) => one.name)): string {
  const order = keyOrder(table);
  return `COPY (SELECT ${columns.map(quoted).join(", ")} FROM ${quotedTable(table)}${order === "" ? "" : ` ORDER BY ${order}`}) TO STDOUT`;
}
