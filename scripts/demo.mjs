/**
 * `npm run demo`: installs what is missing, starts a PostgreSQL cluster of its own, loads Skerry
 * Coast, builds, serves, and stops what it started on Ctrl-C. `-- --fresh` starts over.
 */
import { randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { ensureBuild } from "./build.mjs";
import { databaseEnvironment, startCluster } from "./cluster.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import { run, startServer } from "./run.mjs";

const fresh = process.argv.includes("--fresh");
const home = path.resolve(process.env.SPREZZA_DATA ?? ".sprezza");

function secret(folder) {
  const file = path.join(folder, "session-secret");
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString("hex"), { mode: 0o600 });
  return readFileSync(file, "utf8");
}

await orSentence(async () => {
  ensurePackages();
  const folder = path.join(home, "demo");
  mkdirSync(folder, { recursive: true });
  const cluster = await startCluster(folder, 54320);
  let server;
  let stopWatching = () => {};
  const stopAll = async () => {
    await server?.stop();
    stopWatching();
    cluster.stop();
  };
  let leaving = false;
  const leave = async () => {
    if (leaving) return;
    leaving = true;
    console.log("\nStopping …");
    await stopAll();
    process.exit(0);
  };
  process.on("SIGINT", leave);
  process.on("SIGTERM", leave);

  try {
    const database = "sprezza_demo";
    const env = databaseEnvironment(cluster, database);
    const admin = {
      ...env,
      ADMIN_DATABASE_URL: cluster.url("postgres", "postgres"),
      ROLES: JSON.stringify(cluster.roles),
      DATABASE_NAME: database,
      ...(fresh ? { FRESH: "1" } : {}),
    };
    if (run("tsx", ["scripts/prepare-database.ts"], admin) !== 0)
      throw new Error("The database could not be prepared.");
    if (run("tsx", ["scripts/load-demo.ts"], env) !== 0)
      throw new Error("The demo data could not be loaded.");

    ensureBuild();

    const host = process.env.HOST ?? "127.0.0.1";
    stopWatching = cluster.keepUp((sentence) => console.error(sentence));
    server = startServer({
      ...env,
      NODE_ENV: "production",
      HOST: host,
      PORT: process.env.PORT ?? "3100",
      // Where nobody asked for a port, the next free one serves too.
      PORT_OR_NEXT: process.env.PORT ? "0" : "1",
      SESSION_SECRET: secret(folder),
      SPREZZA_DEMO: "1",
      LOG_LEVEL: process.env.LOG_LEVEL ?? "warn",
    });
    const address = await server.address;
    console.log(`\nSprezza is at ${address}\n`);
    console.log("Sign in as coach@skerry.example with the password skerry-coast-demo");
    console.log("(owner@, assistant@ and maren@skerry.example have the same password).");
    console.log("Ctrl-C stops everything that was started here.");
    const code = await server.ended;
    if (!leaving) {
      // Its supervisor has tried again and again, and said why it gave up.
      console.error(`The server could not be kept up (code ${code}).`);
      stopWatching();
      cluster.stop();
      process.exit(1);
    }
    await new Promise(() => {});
  } catch (error) {
    if (!leaving) {
      await stopAll();
      throw error;
    }
  }
});
