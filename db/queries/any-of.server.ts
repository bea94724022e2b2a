import { type Column, eq, type SQL, sql } from "drizzle-orm";

/** `column = ANY(ids)`: one parameter for a squad, where a list would bring one for each. */
export function anyOf(column: Column, ids: readonly string[]): SQL {
  return sql`${column} = ANY(${sql.param(`{${ids.join(",")}}`)}::uuid[])`;
}

/** Rows that one statement takes: the protocol holds 65,535 values. */
const ROWS_A_STATEMENT = 1000;

/** Many rows in parts that one statement each can take. */
export function* inParts<T>(rows: readonly T[]): Generator<T[]> {
  for (let i = 0; i < rows.length; i += ROWS_A_STATEMENT) yield rows.slice(i, i + ROWS_A_STATEMENT);
}

/** Rows of one athlete, of some, or of all where none is named. */
export function ofAthletes(column: Column, of: string | readonly string[] | undefined) {
  if (of === undefined) return undefined;
  return typeof of === "string" ? eq(column, of) : anyOf(column, of);
}
