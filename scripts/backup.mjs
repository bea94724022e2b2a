/**
 * `npm run backup -- FILE`: keeps the whole installation in one file. FILE may be a folder: then
 * the file is named after the moment. Works while the server runs.
 */
import { existsSync, statSync } from "node:fs";
import path from "node:path";
import { SetupProblem } from "./cluster.mjs";
import { backupName } from "./daily.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import { withInstallation } from "./own.mjs";
import { run } from "./run.mjs";

await orSentence(async () => {
  const wanted = process.argv[2];
  if (!wanted) {
    throw new SetupProblem(
      "Where to? npm run backup -- FILE, or a folder: npm run backup -- /backups",
    );
  }
  const isFolder = existsSync(wanted) && statSync(wanted).isDirectory();
  const file = isFolder ? path.join(wanted, backupName(new Date())) : wanted;
  ensurePackages();
  const code = await withInstallation((urlOf) =>
    run("tsx", ["scripts/backup-database.ts", path.resolve(file)], {
      BACKUP_DATABASE_URL: urlOf("sprezza_backup"),
    }),
  );
  process.exit(code);
});
