/**
 * Where a team's own data lives when no settings name a server: a PostgreSQL cluster of its own,
 * kept from one start to the next. Node's own modules only.
 */
import { randomBytes } from "node:crypto";
import { accessSync, constants, existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { parseEnv } from "node:util";
import { SetupProblem } from "./cluster.mjs";

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

/** Letters and digits that cannot be taken for one another. */
const CODE_LETTERS = "ABCDEFGHJKMNPQRSTVWXYZ23456789";

/** "ABCD-EFGH": opens the page that makes the first team. */
export function firstRunCode() {
  const letters = [...randomBytes(8)].map((byte) => CODE_LETTERS[byte % CODE_LETTERS.length]);
  return `${letters.slice(0, 4).join("")}-${letters.slice(4).join("")}`;
}
