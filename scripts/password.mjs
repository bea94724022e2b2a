/**
 * `npm run password -- name@club.example`: prints a link that sets this person's new password,
 * once, within the hour. For whoever runs the server: an owner who has forgotten theirs.
 */
import { SetupProblem } from "./cluster.mjs";
import { ensurePackages, orSentence } from "./install.mjs";
import { withInstallation } from "./own.mjs";
import { run } from "./run.mjs";

await orSentence(async () => {
  const email = process.argv[2];
  if (!email) throw new SetupProblem("Whose? npm run password -- name@club.example");
  ensurePackages();
  const code = await withInstallation((urlOf) =>
    run("tsx", ["scripts/password-link.ts", email], { AUTH_DATABASE_URL: urlOf("sprezza_auth") }),
  );
  process.exit(code);
});
