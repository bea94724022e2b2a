import { type Column, type SQL, sql } from "drizzle-orm";

/** `column = ANY(ids)`: one parameter for a squad, where a list would bring one for each. */
export function anyOf(column: Column, ids: readonly string[]): SQL {
  return sql`${column} = ANY(${sql.param(`{${ids.join(",")}}`)}::uuid[])`;
}
