/**
 * Keeps the database that BACKUP_DATABASE_URL names in the file given, and writes down how it went.
 * Prints one line; ends with 1 and a sentence where nothing was kept.
 */
import postgres from "postgres";
import { backUp } from "../db/kept/backup.server";
import { noteBackup } from "../db/kept/backup-runs.server";
import { KeptProblem } from "../db/kept/problem";
import { serverWords } from "./server-words";

const { BACKUP_DATABASE_URL } = process.env;
const file = process.argv[2];
if (!BACKUP_DATABASE_URL || !file) {
  console.error("BACKUP_DATABASE_URL or the file is missing. Use npm run backup -- FILE.");
  process.exit(1);
}
const client = postgres(BACKUP_DATABASE_URL, { max: 2, onnotice: () => {}, connect_timeout: 10 });
const startedAt = new Date();
try {
  const kept = await backUp(client, file, { madeAt: startedAt });
  const noted = await noteBackup(client, { startedAt, endedAt: new Date(), ...kept });
  console.log(
    `Kept ${kept.rows} ${kept.rows === 1 ? "row" : "rows"} of ${kept.tables} tables in ${file} (${Math.ceil(kept.bytes / 1024)} kB). Read back and compared.`,
  );
  if (!noted) console.log("The page that says when the last backup was does not know of it.");
} catch (error) {
  const words =
    error instanceof KeptProblem ? error.message : serverWords(error, "BACKUP_DATABASE_URL");
  await noteBackup(client, {
    startedAt,
    endedAt: new Date(),
    file,
    bytes: 0,
    rows: 0,
    failed: words ?? "It failed for a reason that the log says.",
  });
  if (!words) throw error;
  console.error(words);
  process.exitCode = 1;
} finally {
  await client.end({ timeout: 5 });
}
