/**
 * `npm run team:export -- "NAME" FILE` and `npm run team:import -- FILE`: a team's own archive at the
 * server, of any size. The second makes a team of it and prints a link for its owner.
 */
import path from "node:path";
import { SetupProblem } from "./cluster.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import { withInstallation } from "./own.mjs";
import { run } from "./run.mjs";

await orSentence(async () => {
  const [what, ...args] = process.argv.slice(2);
  const file = args.at(-1);
  if (!file || (what === "export" && args.length < 2)) {
    throw new SetupProblem(
      what === "export"
        ? 'Which team, and where to? npm run team:export -- "Harbour Barbell" FILE'
        : "Which archive? npm run team:import -- FILE",
    );
  }
  ensurePackages();
  const code = await withInstallation((urlOf) =>
    run("tsx", ["scripts/team-archive.ts", what, ...args.slice(0, -1), path.resolve(file)], {
      DATABASE_URL: urlOf("sprezza_app"),
      AUTH_DATABASE_URL: urlOf("sprezza_auth"),
      IMPORT_DATABASE_URL: urlOf("sprezza_import"),
    }),
  );
  process.exit(code);
});
