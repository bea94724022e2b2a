/**
 * Makes roles and a database where they are missing, and brings its tables up to date. Run with
 * ADMIN_DATABASE_URL (somebody who may make both), ROLES (role → password as JSON), DATABASE_NAME
 * and OWNER_DATABASE_URL. ROLES_ARE says what is known of roles that are there already: `known`
 * (their passwords are these), `new` (they should not be there), `renewed` (they get these).
 *
 * What a database holds is kept in UPGRADE_FOLDER (default: BACKUP_FOLDER, else
 * SPREZZA_DATA/upgrades) before it is changed, unless `--without-backup` says otherwise.
 */
import path from "node:path";
import postgres from "postgres";
import { KeptProblem } from "../db/kept/problem";
import { upgrade } from "../db/kept/upgrade.server";
import { makeRoles, type RolesAre } from "./roles";
import { serverWords } from "./server-words";

const { ADMIN_DATABASE_URL, ROLES, DATABASE_NAME, OWNER_DATABASE_URL, FRESH } = process.env;
const rolesAre = (process.env.ROLES_ARE ?? "known") as RolesAre;
const backupFolder = process.argv.includes("--without-backup")
  ? undefined
  : path.resolve(
      process.env.UPGRADE_FOLDER ??
        process.env.BACKUP_FOLDER ??
        path.join(process.env.SPREZZA_DATA ?? ".sprezza", "upgrades"),
    );
if (!OWNER_DATABASE_URL) {
  console.error("OWNER_DATABASE_URL is not set: the database as its owner. See docs/settings.md.");
  process.exit(1);
}

async function makeDatabase(adminUrl: string, passwords: Record<string, string>, name: string) {
  const admin = postgres(adminUrl, { max: 1, onnotice: () => {}, connect_timeout: 10 });
  try {
    const stranger = await makeRoles(admin, passwords, rolesAre);
    if (stranger) {
      console.error(
        `The role ${stranger} is on this server already. Start with the settings that were written when it was made, or give it a new password: npm run database:prepare -- --new-passwords (what else uses it then needs the new settings).`,
      );
      process.exit(1);
    }
    if (FRESH) await admin.unsafe(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    const [there] = await admin`SELECT 1 FROM pg_database WHERE datname = ${name}`;
    if (!there) await admin.unsafe(`CREATE DATABASE ${name} OWNER sprezza_owner`);
  } finally {
    await admin.end();
  }
}

try {
  if (ADMIN_DATABASE_URL && ROLES && DATABASE_NAME) {
    if (!/^[a-z_][a-z0-9_]{0,62}$/.test(DATABASE_NAME)) {
      console.error("DATABASE_NAME is small letters, digits and underscores, at most 63.");
      process.exit(1);
    }
    await makeDatabase(ADMIN_DATABASE_URL, JSON.parse(ROLES), DATABASE_NAME);
  }
  const owner = postgres(OWNER_DATABASE_URL, { max: 1, onnotice: () => {} });
  try {
    const { steps, backup } = await upgrade(owner, { folder: backupFolder, at: new Date() });
    if (backup)
      console.log(
        `Brought up to date by ${steps} ${steps === 1 ? "step" : "steps"}. As it was before (${backup.rows} ${backup.rows === 1 ? "row" : "rows"}): ${backup.file}`,
      );
  } finally {
    await owner.end();
  }
} catch (error) {
  const refused =
    (error as { code?: string }).code === "28P01"
      ? "The server refused the password. Correct ADMIN_DATABASE_URL, or run this with -- --new-passwords."
      : undefined;
  const words =
    error instanceof KeptProblem
      ? error.message
      : (refused ?? serverWords(error, "ADMIN_DATABASE_URL"));
  if (!words) throw error;
  console.error(words);
  process.exit(1);
}
