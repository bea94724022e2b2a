import type { Readable, Writable } from "node:stream";
import type { Client } from "./catalog.server";

/**
 * The rows of a COPY … TO STDOUT as they come, at the reader's pace.
 *
 * The driver stops its socket while nobody reads and starts it again when somebody does. Where the
 * last rows and the end of the copy came in one piece nobody reads any more, and the connection
 * would wait for ever: so it is started once more at the end.
 */
export async function readCopy(sql: Client, statement: string): Promise<Readable> {
  const rows: Readable = await sql.unsafe(statement).readable();
  rows.once("end", () => rows._read(0));
  return rows;
}

/** Where the rows of a COPY … FROM STDIN go. */
export function writeCopy(sql: Client, statement: string): Promise<Writable> {
  return sql.unsafe(statement).writable();
}
