/**
 * `npm run restore -- FILE`: brings a backup back as the database that `npm start` serves (its own
 * cluster), or as DATABASE_NAME on the server that ADMIN_DATABASE_URL names. What is there is left
 * alone unless `--replace` says otherwise; then it is kept under another name. `--erasures FILE`
 * adds people who were erased since (the list beside the daily backups is read by itself).
 */
import { existsSync } from "node:fs";
import path from "node:path";
import { SetupProblem, startCluster } from "./cluster.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import { home, OWN_DATABASE, OWN_PORT, settingsFile, writableFolder } from "./own.mjs";
import { run } from "./run.mjs";
import { serverSettings, writeSettings } from "./server-settings.mjs";

/** The server that is named, with its roles; else the own cluster, which is made where it is not. */
async function target() {
  const admin = process.env.ADMIN_DATABASE_URL;
  if (admin) {
    const settings = serverSettings(admin, { newPasswords: false });
    return {
      env: settings.env,
      done: () => writeSettings(settings),
      where: `${new URL(admin).host}, database ${settings.name}`,
      stop: () => {},
    };
  }
  if (existsSync(settingsFile()) || process.env.DATABASE_URL) {
    throw new SetupProblem(
      "This installation is on a server of its own: set ADMIN_DATABASE_URL to it as somebody who may make databases, then restore.",
    );
  }
  const folder = writableFolder(path.join(home(), "own"));
  const cluster = await startCluster(folder, OWN_PORT, { kept: true });
  return {
    env: {
      ADMIN_DATABASE_URL: cluster.url("postgres", "postgres"),
      ROLES: JSON.stringify(cluster.roles),
      ROLES_ARE: "known",
      DATABASE_NAME: OWN_DATABASE,
      OWNER_DATABASE_URL: cluster.url("sprezza_owner", OWN_DATABASE),
    },
    done: () => {},
    where: folder,
    stop: () => cluster.stop(),
  };
}

await orSentence(async () => {
  const [file, ...flags] = process.argv.slice(2);
  if (!file || file.startsWith("--"))
    throw new SetupProblem("Which backup? npm run restore -- FILE [--replace] [--erasures FILE]");
  ensurePackages();
  const { env, done, where, stop } = await target();
  let code = 1;
  try {
    code = run("tsx", ["scripts/restore-database.ts", path.resolve(file), ...flags], env);
    if (code === 0) {
      done();
      console.log(`It is in ${where}. npm start serves it; everybody signs in as before.`);
    }
  } finally {
    stop();
  }
  process.exit(code);
});
