/** Loads the demo data into an empty database: OWNER_DATABASE_URL, and SPREZZA_NOW where fixed. */
import postgres from "postgres";
import { loadDemo } from "../db/demo/load.server";

const { OWNER_DATABASE_URL, SPREZZA_NOW } = process.env;
if (!OWNER_DATABASE_URL) throw new Error("OWNER_DATABASE_URL is not set.");

const client = postgres(OWNER_DATABASE_URL, { max: 1 });
const [row] = await client`SELECT count(*)::int AS people FROM auth."user"`;
await client.end();
if (row?.people === 0) {
  await loadDemo(OWNER_DATABASE_URL, SPREZZA_NOW ? new Date(SPREZZA_NOW) : new Date());
}
