import type postgres from "postgres";
import { type KeptTable, quotedTable, readTables } from "./catalog.server";

/** Takes a transaction back that was only read in. */
class TakenBack extends Error {}

/**
 * The owner of the tables reads every team's rows: the forcing of row security is lifted inside a
 * transaction that is always taken back. It locks every table: for a database that nobody serves.
 */
export async function readAsOwner<T>(
  owner: postgres.Sql,
  work: (tx: postgres.TransactionSql, tables: KeptTable[]) => Promise<T>,
): Promise<T> {
  let result: { value: T } | undefined;
  await owner
    .begin(async (tx) => {
      const tables = await readTables(tx);
      for (const table of tables.filter((one) => one.ofTeam))
        await tx.unsafe(`ALTER TABLE ${quotedTable(table)} NO FORCE ROW LEVEL SECURITY`);
      result = { value: await work(tx, tables) };
      throw new TakenBack();
    })
    .catch((error: unknown) => {
      if (!(error instanceof TakenBack)) throw error;
    });
  if (!result) throw new Error("It was read.");
  return result.value;
}
