import { uuidv7 } from "uuidv7";
import {
  addMember,
  lockOwnPlace,
  noteChange,
  signInOfAthlete,
  takeInvitation,
} from "../../../db/queries/members.server";
import { addUser, invitationByHash } from "../../../db/queries/sign-ins.server";
import type { Joining } from "../../forms/people";
import { hashPassword, signedInUser, signIn } from "../../platform/auth.server";
import { now } from "../../platform/clock.server";
import { databases } from "../../platform/database.server";
import { inTeamWhole } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import { hashSecret } from "../../platform/rack-token.server";
import type { Role } from "../../platform/rights";
import { takeSignInTry } from "../../platform/tries.server";

const ASK = "Ask whoever sent it for another.";
const UNKNOWN = failed("unknown", `This link opens nothing: a part of it may be missing. ${ASK}`);
const OVER = {
  used: failed("used", `This link was used already: each works once. If that was you, sign in.`),
  withdrawn: failed("withdrawn", `This invitation was withdrawn. ${ASK}`),
  expired: failed("expired", `This invitation is too old to be used. ${ASK}`),
};

async function openInvitation(token: string) {
  const row = await invitationByHash(databases().auth.database, hashSecret(token));
  if (!row) return UNKNOWN;
  if (row.usedAt) return OVER.used;
  if (row.withdrawnAt) return OVER.withdrawn;
  if (row.expiresAt <= now()) return OVER.expired;
  return done(row);
}

/** What an invitation offers, for the page that takes it. */
export async function readInvitation(
  request: Request,
  token: string,
): Promise<
  Outcome<{
    team: string;
    name: string;
    role: Role;
    by: string;
    email: string;
    /** The address that this browser is signed in with. */
    signedInAs: string | undefined;
  }>
> {
  const open = await openInvitation(token);
  if (!open.ok) return open;
  const { teamName: team, name, role, by, email } = open.value;
  return done({ team, name, role, by, email, signedInAs: (await signedInUser(request))?.email });
}

type Offer = Extract<Awaited<ReturnType<typeof openInvitation>>, { ok: true }>["value"];

/** Uses the invitation and gives the place, in one transaction with whatever `also` does. */
function takePlace(
  offer: Offer,
  person: { userId: string; name: string },
  also: () => Promise<boolean>,
): Promise<Outcome<null>> {
  return inTeamWhole({ teamId: offer.teamId }, async (tx) => {
    const at = now();
    const taken = await takeInvitation(tx, offer.id, at);
    if (!taken) return OVER.used;
    const place = await lockOwnPlace(tx, person.userId);
    if (place && !place.removedAt) {
      return place.suspendedAt
        ? failed("suspended", `You are suspended in ${offer.teamName}. Ask its owner.`)
        : failed("member", `You belong to ${offer.teamName} already. Sign in and go on.`);
    }
    if (offer.athleteId && (await signInOfAthlete(tx, offer.athleteId)))
      return failed("has-one", `${offer.name} has a sign-in already. Ask your coach.`);
    // An athlete is called as on the lists, a coach as they write themselves.
    const name = offer.athleteId ? offer.name : person.name;
    await addMember(tx, {
      userId: person.userId,
      name,
      role: offer.role,
      athleteId: offer.athleteId,
    });
    await noteChange(tx, {
      kind: "joined",
      name,
      detail: offer.role,
      athleteId: offer.athleteId,
      by: name,
      at,
    });
    return (await also()) ? done(null) : KNOWN;
  });
}

const KNOWN = failed(
  "known",
  "This address signs in here already. Choose “I have a password here” and use that.",
);
const TOO_MANY = failed("too-many", "Too many tries. Wait a quarter of an hour, then try again.");
const WRONG = failed("wrong", "Email and password do not match. Check both.");

/** Takes an invitation: as somebody new, or as somebody who signs in here already. */
export async function join(
  request: Request,
  token: string,
  input: Joining,
): Promise<Outcome<{ teamId: string; cookies: string[] }>> {
  const open = await openInvitation(token);
  if (!open.ok) return open;
  const offer = open.value;
  if (input.as === "signed-in") {
    const user = await signedInUser(request);
    if (!user)
      return failed("signed-out", "You were signed out meanwhile. Sign in, or join as new.");
    const taken = await takePlace(offer, { userId: user.id, name: offer.name }, async () => true);
    return taken.ok ? done({ teamId: offer.teamId, cookies: [] }) : taken;
  }
  const { email, password } = input;
  if (input.as === "known") {
    const tries = await takeSignInTry(request, email);
    if (!tries.allowed) return TOO_MANY;
    const signed = await signIn(request, { email, password });
    if (!signed.ok) {
      tries.failed();
      return signed.status === 429 ? TOO_MANY : WRONG;
    }
    await tries.succeeded();
    const person = { userId: signed.userId, name: offer.name };
    const taken = await takePlace(offer, person, async () => true);
    return taken.ok ? done({ teamId: offer.teamId, cookies: signed.cookies }) : taken;
  }
  const { name } = input;
  const userId = uuidv7();
  const passwordHash = await hashPassword(password);
  const taken = await takePlace(offer, { userId, name }, () =>
    addUser(databases().auth.database, { id: userId, name, email, passwordHash }),
  );
  if (!taken.ok) return taken;
  const signed = await signIn(request, { email, password });
  return done({ teamId: offer.teamId, cookies: signed.ok ? signed.cookies : [] });
}
