/**
 * Where a team's own data lives when no settings name a server: a PostgreSQL cluster of its own,
 * kept from one start to the next. Node's own modules only.
 */
import { randomBytes } from "node:crypto";
import { accessSync, constants, existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { parseEnv } from "node:util";
import { SetupProblem, startCluster } from "./cluster.mjs";

export const OWN_DATABASE = "sprezza";
export const OWN_PORT = 54310;

/** The folder of everything that is kept. */
export const home = () => path.resolve(process.env.SPREZZA_DATA ?? ".sprezza");

/** Makes a folder that can be written, or says what to do. */
export function writableFolder(folder) {
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.W_OK);
  } catch (error) {
    throw new SetupProblem(
      `${folder} cannot be written (${error.code}). Set SPREZZA_DATA to a folder that you may write, for example SPREZZA_DATA=$HOME/sprezza.`,
    );
  }
  return folder;
}

/** A secret of this installation: made once, kept beside the data. */
export function keptSecret(folder) {
  const file = path.join(folder, "session-secret");
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString("hex"), { mode: 0o600 });
  return readFileSync(file, "utf8");
}

/** The settings that `npm run database:prepare` wrote. */
export const settingsFile = () => path.join(home(), "settings.env");

/** Settings of this start: the environment's, else those of the file; undefined for neither. */
export function namedDatabase() {
  if (process.env.DATABASE_URL) return {};
  const file = settingsFile();
  if (!existsSync(file)) return undefined;
  try {
    return parseEnv(readFileSync(file, "utf8"));
  } catch (error) {
    throw new SetupProblem(
      `${file} cannot be read (${error.code ?? error.message}). Start as the user who ran npm run database:prepare, or set DATABASE_URL.`,
    );
  }
}

/** Each role and the setting that names the database as it. */
export const ROLE_SETTINGS = {
  sprezza_owner: "OWNER_DATABASE_URL",
  sprezza_app: "DATABASE_URL",
  sprezza_auth: "AUTH_DATABASE_URL",
  sprezza_jobs: "JOBS_DATABASE_URL",
  sprezza_backup: "BACKUP_DATABASE_URL",
  sprezza_import: "IMPORT_DATABASE_URL",
};

/**
 * Does something with the installation's database: as the settings name it, else in the own
 * cluster, which is started where it is down and stopped again afterwards.
 * @param work gets the address as a role
 * @throws SetupProblem where there is none
 */
export async function withInstallation(work) {
  const named = namedDatabase();
  const setting = (role) => process.env[ROLE_SETTINGS[role]] ?? named?.[ROLE_SETTINGS[role]];
  const folder = path.join(home(), "own");
  const isOwn = named === undefined && existsSync(path.join(folder, "data", "PG_VERSION"));
  if (!isOwn) {
    return work((role) => {
      const url = setting(role);
      if (url) return url;
      throw new SetupProblem(
        `Whose data? Set ${ROLE_SETTINGS[role]} to your database as the role ${role} (npm run database:prepare makes it and writes the setting), or run this where npm start keeps its data.`,
      );
    });
  }
  const cluster = await startCluster(folder, OWN_PORT, { kept: true });
  try {
    return await work((role) => setting(role) ?? cluster.url(role, OWN_DATABASE));
  } finally {
    cluster.stop();
  }
}

/** Letters and digits that cannot be taken for one another. */
const CODE_LETTERS = "ABCDEFGHJKMNPQRSTVWXYZ23456789";

/** "ABCD-EFGH": opens the page that makes the first team. */
export function firstRunCode() {
  const letters = [...randomBytes(8)].map((byte) => CODE_LETTERS[byte % CODE_LETTERS.length]);
  return `${letters.slice(0, 4).join("")}-${letters.slice(4).join("")}`;
}
