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

/** Statements with more parameters than this (long lists, batches) have too many shapes to keep. */
const PREPARED_UP_TO = 12;

/**
 * Lets the database keep its statements prepared: a repeated one then costs a single round trip
 * and no planning of the policies anew. The mapper asks the driver never to; here that is decided
 * by the statement.
 */
function prepared<T extends postgres.ISql>(client: T): T {
  const { unsafe } = client;
  client.unsafe = (text, values = [], options) => {
    const reads = /^\s*select\b/i.test(text);
    const kept = reads || values.length > 0;
    return unsafe(text, values, {
      ...options,
      prepare: kept && values.length <= PREPARED_UP_TO,
      simple: !kept,
    } as postgres.UnsafeQueryOptions);
  };
  return client;
}

/** A pool for one role. Waiting for a lost database ends after a few seconds with an error. */
export function connect(url: string, most: number): Connection {
  const client = postgres(url, {
    max: most,
    connect_timeout: 5,
    idle_timeout: 60,
    onnotice: () => {},
  });
  const { begin } = client;
  const work = prepared(client);
  work.begin = ((run: (sql: postgres.TransactionSql) => unknown) =>
    begin((sql) => run(prepared(sql)))) as typeof begin;
  return {
    client: work,
    database: drizzle(work, { schema }),
    close: () => client.end({ timeout: 5 }),
  };
}
