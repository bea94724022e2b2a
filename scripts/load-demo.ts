/** Loads the demo data into an empty database: OWNER_DATABASE_URL, and SPREZZA_NOW where fixed. */
import postgres from "postgres";
import { loadDemo } from "../db/demo/load.server";

const { OWNER_DATABASE_URL, SPREZZA_NOW } = process.env;
if (!OWNER_DATABASE_URL) throw new Error("OWNER_DATABASE_URL is not set.");

const client = postgres(OWNER_DATABASE_URL, { max: 1 });
const [row] = await client<Array<{ people: number; kind: string | null }>>`
  SELECT count(*)::int AS people, (SELECT kind FROM auth.installation) AS kind FROM auth."user"`;
await client.end();
if (row?.kind === "own") {
  console.error(
    "This database holds a team of its own: the demo is not loaded into it. Name another database.",
  );
  process.exit(1);
}
if (row?.people === 0) {
  await loadDemo(OWNER_DATABASE_URL, SPREZZA_NOW ? new Date(SPREZZA_NOW) : new Date());
}
