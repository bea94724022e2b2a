import { anyTeam, installationKind } from "../../db/queries/sign-ins.server";
import { databases } from "./database.server";
import { environment } from "./env.server";

/** Whether there is no team yet: then, and only then, the first page makes one. */
export async function isFirstRun(): Promise<boolean> {
  const signIn = databases().auth.database;
  return !(await anyTeam(signIn)) && (await installationKind(signIn)) !== "demo";
}

/** Why this server must not run on this database: the demo's data and a team's own never mix. */
export async function mixedUp(): Promise<string | undefined> {
  const kind = await installationKind(databases().auth.database);
  const demo = environment().SPREZZA_DEMO === "1";
  if (kind === "demo" && !demo)
    return "This database holds the demo. A team of your own has its own: let DATABASE_URL and AUTH_DATABASE_URL name another, or leave them out and run npm start.";
  if (kind === "own" && demo)
    return "This database holds a team of its own: the demo does not run on it. Leave SPREZZA_DEMO out, or name another database.";
  return undefined;
}
