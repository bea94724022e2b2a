/**
 * Runs a command with a test cluster: `with-database.mjs [--serve] COMMAND …`. The database is
 * made anew with the demo data on a fixed clock; `--serve` also starts the built application.
 */
import path from "node:path";
import { databaseEnvironment, startCluster } from "./cluster.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import { run, startServer } from "./run.mjs";

/** A Tuesday afternoon; the demo data and the pictures are relative to it. */
export const TEST_NOW = "2026-03-10T16:30:00Z";

const PORT = 54420;
/** Clusters that may stand beside the usual one. */
const APARTS = ["apart", "fuzz", "soak"];

/**
 * Starts a cluster and makes the test database; returns its environment and how to stop.
 * @param apart a name for a cluster of its own: what runs beside others may kill its database
 */
export async function testDatabase(database, apart = "") {
  const home = path.resolve(process.env.SPREZZA_DATA ?? ".sprezza");
  const folder = path.join(home, apart ? `test-${apart}` : "test");
  const cluster = await startCluster(
    folder,
    apart ? PORT + 100 * (APARTS.indexOf(apart) + 1) : PORT,
  );
  try {
    const env = {
      ...databaseEnvironment(cluster, database),
      ADMIN_DATABASE_URL: cluster.url("postgres", "postgres"),
      JOBS_DATABASE_URL: cluster.url("sprezza_jobs", database),
      CLUSTER_DATA: folder,
      SPREZZA_NOW: TEST_NOW,
      SESSION_SECRET: "only-for-tests-only-for-tests-only-for-tests",
      SIGN_IN_TRIES_A_MINUTE: "20",
      LOG_LEVEL: "error",
      SPREZZA_DEMO: "1",
    };
    const admin = {
      ...env,
      ROLES: JSON.stringify(cluster.roles),
      DATABASE_NAME: database,
      FRESH: "1",
    };
    if (run("tsx", ["scripts/prepare-database.ts"], admin) !== 0)
      throw new Error("The test database could not be prepared.");
    if (run("tsx", ["scripts/load-demo.ts"], env) !== 0)
      throw new Error("The demo data could not be loaded.");
    return { env, stop: () => cluster.stop() };
  } catch (error) {
    cluster.stop();
    throw error;
  }
}

/** The built application on the test database. */
export async function testServer(env, wishedPort = 4100) {
  const server = startServer({
    ...env,
    NODE_ENV: "production",
    PORT: String(wishedPort),
    PORT_OR_NEXT: "1",
    HOST: "127.0.0.1",
    SHOW_LOG: "1",
  });
  return { base: await server.address, stop: () => server.stop(), pids: () => server.pids() };
}

const isMain =
  process.argv[1] && path.resolve(process.argv[1]) === path.resolve("scripts/with-database.mjs");
if (isMain) {
  const serve = process.argv[2] === "--serve";
  const [command, ...args] = process.argv.slice(serve ? 3 : 2);
  await orSentence(async () => {
    ensurePackages();
    const { env, stop } = await testDatabase(serve ? "sprezza_browser" : "sprezza_test");
    let server;
    let code = 1;
    try {
      if (serve) server = await testServer(env);
      code = run(command, args, { ...env, ...(server ? { BASE_URL: server.base } : {}) });
    } finally {
      await server?.stop();
      stop();
    }
    process.exit(code);
  });
}
