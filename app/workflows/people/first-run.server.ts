import { uuidv7 } from "uuidv7";
import { addUser, claimInstallation } from "../../../db/queries/sign-ins.server";
import { waitTurn } from "../../../db/queries/stock.server";
import { hashPassword, signIn } from "../../platform/auth.server";
import { now } from "../../platform/clock.server";
import { databases } from "../../platform/database.server";
import { environment } from "../../platform/env.server";
import { isFirstRun } from "../../platform/installation.server";
import { inTeamWhole } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import { hashSecret, sameHash } from "../../platform/rack-token.server";
import { takeFirstRunTry } from "../../platform/tries.server";
import { makeOwnedTeam, type NewTeam } from "./teams.server";

/** Capitals, without what stands between: as somebody copies it from a terminal. */
const plainCode = (code: string) => code.toUpperCase().replace(/[^A-Z0-9]/g, "");

const MADE = failed("made", "A team was made here already. Sign in, or ask its owner for a link.");

/**
 * Makes the first team and its owner, once, for whoever holds the code that the terminal printed.
 * Everything of it or nothing: the owner's sign-in is made inside the team's transaction.
 */
export async function makeFirstTeam(
  request: Request,
  input: NewTeam & { code: string; name: string; email: string; password: string },
): Promise<Outcome<{ cookies: string[] }>> {
  const wanted = plainCode(environment().FIRST_RUN_CODE);
  if (wanted === "")
    return failed(
      "no-code",
      "This server was started without a code. Start it with npm start: the terminal prints one.",
    );
  const tries = await takeFirstRunTry(request);
  if (!tries.allowed)
    return failed("too-many", "Too many wrong codes. Wait a quarter of an hour, then try again.");
  if (!sameHash(hashSecret(plainCode(input.code)), hashSecret(wanted))) {
    tries.failed();
    return failed(
      "wrong-code",
      "This is not the code that the terminal printed. Look at its last lines; every start prints a new one.",
    );
  }
  await tries.succeeded();
  const { name, email, password } = input;
  const auth = databases().auth.database;
  const passwordHash = await hashPassword(password);
  const owner = { userId: uuidv7(), name };
  const made = await inTeamWhole({ teamId: uuidv7() }, async (tx): Promise<Outcome<null>> => {
    // Of two with the same code the second finds the first one's team.
    await waitTurn(tx, "first team");
    if (!(await isFirstRun())) return MADE;
    await makeOwnedTeam(tx, input, owner);
    return (await addUser(auth, { id: owner.userId, name, email, passwordHash }))
      ? done(null)
      : failed("known", "This address signs in here already. Use another.");
  });
  if (!made.ok) return made;
  await claimInstallation(auth, "own", now());
  const signed = await signIn(request, { email, password });
  return done({ cookies: signed.ok ? signed.cookies : [] });
}
