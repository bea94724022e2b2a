import { drizzle, type PostgresJsDatabase } from "drizzle-orm/postgres-js";
import postgres from "postgres";
import * as schema from "./schema";

export type Schema = typeof schema;
export type Database = PostgresJsDatabase<Schema>;
export type Transaction = Parameters<Parameters<Database["transaction"]>[0]>[0];

export interface Connection {
  database: Database;
  client: postgres.Sql;
  close(): Promise<void>;
}

/** A pool for one role. Waiting for a lost database ends after a few seconds with an error. */
export function connect(url: string, most: number): Connection {
  const client = postgres(url, {
    max: most,
    connect_timeout: 5,
    idle_timeout: 60,
    onnotice: () => {},
  });
  return {
    client,
    database: drizzle(client, { schema }),
    close: () => client.end({ timeout: 5 }),
  };
}
