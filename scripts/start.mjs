/**
 * `npm start`: serves your own team. With DATABASE_URL (or after `npm run database:prepare`) on
 * that server; else on a PostgreSQL cluster of its own, which it makes, keeps and brings up to
 * date. A server without a team prints a code: the first page asks for it.
 */
import { existsSync } from "node:fs";
import path from "node:path";
import { ensureBuild } from "./build.mjs";
import { databaseEnvironment, startCluster } from "./cluster.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import {
  firstRunCode,
  home,
  keptSecret,
  namedDatabase,
  OWN_DATABASE,
  OWN_PORT,
  writableFolder,
} from "./own.mjs";
import { run, startServer } from "./run.mjs";
import { tlsFiles } from "./tls.mjs";

/** A cluster of its own, its roles and tables as this version wants them. */
async function ownDatabase() {
  const folder = path.join(home(), "own");
  writableFolder(folder);
  const cluster = await startCluster(folder, OWN_PORT, { kept: true });
  try {
    const env = databaseEnvironment(cluster, OWN_DATABASE);
    const admin = {
      ...env,
      ADMIN_DATABASE_URL: cluster.url("postgres", "postgres"),
      ROLES: JSON.stringify(cluster.roles),
      DATABASE_NAME: OWN_DATABASE,
    };
    if (run("tsx", ["scripts/prepare-database.ts"], admin) !== 0)
      throw new Error("The database could not be prepared.");
    const secret = process.env.SESSION_SECRET ?? keptSecret(folder);
    return {
      env: { ...env, SESSION_SECRET: secret },
      stop: () => cluster.stop(),
      keepUp: () => cluster.keepUp((sentence) => console.error(sentence)),
    };
  } catch (error) {
    cluster.stop();
    throw error;
  }
}

/** The certificate that `npm run certificate` made, where no other is named. */
function ownCertificate() {
  const files = tlsFiles(home());
  const authority = existsSync(files.authority) ? { TRUST_FILE: files.authority } : {};
  if (process.env.TLS_CERT || !existsSync(files.certificate)) return authority;
  return { ...authority, TLS_KEY: files.key, TLS_CERT: files.certificate };
}

async function database() {
  const named = namedDatabase();
  if (named === undefined) return ownDatabase();
  return { env: named, stop: () => {}, keepUp: () => () => {} };
}

await orSentence(async () => {
  ensurePackages();
  const data = await database();
  let server;
  let stopWatching = () => {};
  let leaving = false;
  const leave = async () => {
    if (leaving) return;
    leaving = true;
    await server?.stop();
    stopWatching();
    data.stop();
    process.exit(0);
  };
  process.on("SIGINT", leave);
  process.on("SIGTERM", leave);
  try {
    ensureBuild();
    const code = firstRunCode();
    stopWatching = data.keepUp();
    const tls = ownCertificate();
    server = startServer({
      ...data.env,
      ...tls,
      NODE_ENV: "production",
      FIRST_RUN_CODE: code,
      // The log of a server that runs for months goes where this process writes.
      SHOW_LOG: "1",
      LOG_LEVEL: process.env.LOG_LEVEL ?? "warn",
    });
    const address = await server.address;
    console.log(`\nSprezza is at ${address}`);
    if (server.isFirstRun()) {
      console.log(
        "It has no team yet. Open the address and make yours; the page asks for this code:",
      );
      console.log(`\n    ${code}\n`);
    }
    if (/\/\/(127\.|localhost)/.test(address))
      console.log("Tablets and phones reach it with HOST=0.0.0.0 (README, “Your own team”).");
    console.log("Ctrl-C stops everything that was started here.");
    const ended = await server.ended;
    if (leaving) await new Promise(() => {});
    console.error(`The server could not be kept up (code ${ended}).`);
    stopWatching();
    data.stop();
    process.exit(1);
  } catch (error) {
    if (leaving) await new Promise(() => {});
    await server?.stop();
    stopWatching();
    data.stop();
    // The server has said why by itself.
    if (/^The server ended with code/.test(error.message)) process.exit(1);
    throw error;
  }
});
