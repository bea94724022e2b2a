/**
 * Brings a backup back as DATABASE_NAME on the server of ADMIN_DATABASE_URL, with the roles of
 * ROLES; see restore.mjs for what it is asked.
 */
import path from "node:path";
import postgres from "postgres";
import { erasedBeside } from "../db/kept/erasures.server";
import { KeptProblem } from "../db/kept/problem";
import { restore } from "../db/kept/restore.server";
import { makeRoles, type RolesAre } from "./roles";
import { serverWords } from "./server-words";

const { ADMIN_DATABASE_URL, ROLES, ROLES_ARE, DATABASE_NAME, OWNER_DATABASE_URL } = process.env;
const [file, ...flags] = process.argv.slice(2);
if (!ADMIN_DATABASE_URL || !ROLES || !DATABASE_NAME || !OWNER_DATABASE_URL || !file) {
  console.error("This is run by npm run restore -- FILE.");
  process.exit(1);
}
const passwords: Record<string, string> = JSON.parse(ROLES);

function urlOf(role: string, database: string): string {
  const url = new URL(OWNER_DATABASE_URL ?? "");
  url.username = role;
  url.password = passwords[role] ?? "";
  url.pathname = `/${database}`;
  return url.href;
}

try {
  const lists = flags.flatMap((flag, i) => (flag === "--erasures" ? (flags[i + 1] ?? []) : []));
  const erased = await erasedBeside(file, lists);
  const admin = postgres(ADMIN_DATABASE_URL, { max: 1, onnotice: () => {}, connect_timeout: 10 });
  const stranger = await makeRoles(admin, passwords, (ROLES_ARE ?? "known") as RolesAre).finally(
    () => admin.end(),
  );
  if (stranger) {
    throw new KeptProblem(
      "strange-role",
      `The role ${stranger} is on this server already, and its password is not known here: nothing was changed. Give it a new one with npm run database:prepare -- --new-passwords, then restore.`,
    );
  }
  const done = await restore(
    path.resolve(file),
    { adminUrl: ADMIN_DATABASE_URL, database: DATABASE_NAME, urlOf },
    { replace: flags.includes("--replace"), erased, at: new Date() },
  );
  console.log(
    `Restored ${done.rows} ${done.rows === 1 ? "row" : "rows"} of ${done.tables} tables, as of ${done.madeAt}; each table was compared with the file.`,
  );
  if (done.erasedAgain > 0)
    console.log(
      `${done.erasedAgain} ${done.erasedAgain === 1 ? "person" : "people"} who had been erased since ${done.erasedAgain === 1 ? "was" : "were"} erased again.`,
    );
  if (done.keptAs) console.log(`What was there before is kept as the database ${done.keptAs}.`);
} catch (error) {
  const words =
    error instanceof KeptProblem ? error.message : serverWords(error, "ADMIN_DATABASE_URL");
  if (!words) throw error;
  console.error(words);
  process.exit(1);
}
