import { connect, type Socket } from "node:net";
import type { Readable, Writable } from "node:stream";
import postgres from "postgres";
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

/**
 * A connection that sends small pieces at once. Rows and the end of a copy go as two pieces: with the
 * system's usual way of waiting for an answer to the first, every table would cost a tenth of a
 * second. (The driver takes a connected socket; its types do not say so.)
 */
export function promptConnection(url: string): postgres.Sql {
  const socket = ({ host, port, path }: { host: string[]; port: number[]; path?: string }) =>
    new Promise<Socket>((resolve, reject) => {
      const [name = "localhost"] = host;
      const at = path ? connect({ path }) : connect({ host: name, port: port[0] ?? 5432 });
      at.setNoDelay(true);
      at.once("connect", () => resolve(at));
      at.once("error", reject);
    });
  return postgres(url, { max: 1, onnotice: () => {}, ...({ socket } as object) });
}

/** Where the rows of a COPY … FROM STDIN go. */
export function writeCopy(sql: Client, statement: string): Promise<Writable> {
  return sql.unsafe(statement).writable();
}
