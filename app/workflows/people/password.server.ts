import { uuidv7 } from "uuidv7";
import { lockMember, noteChange } from "../../../db/queries/members.server";
import { standingsOf } from "../../../db/queries/people.server";
import {
  keepReset,
  resetByHash,
  setPasswordBy,
  userByEmail,
} from "../../../db/queries/sign-ins.server";
import { callAuth, hashPassword, signIn } from "../../platform/auth.server";
import { now } from "../../platform/clock.server";
import { databases, inTeam } from "../../platform/database.server";
import { mailIsSet, sendMail } from "../../platform/mail.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import { hashSecret, newToken } from "../../platform/rack-token.server";
import { type Reach, reach } from "../../platform/reach.server";
import { mayGiveReset } from "../../platform/rights";
import { takeResetTry, takeSignInTry } from "../../platform/tries.server";
import { NOBODY, type Person } from "./person.server";

/** How long a link to a new password works, hours: handed over, or sent to an own address. */
export const HANDED_RESET_HOURS = 24;
export const MAILED_RESET_HOURS = 1;
const HOUR_MS = 3_600_000;

const NOT_OVER_THEM = failed(
  "not-over-them",
  "A password opens every team of its person, and this one belongs to a team that is not yours. They get a link by their own mail, or from the server's terminal.",
);

/** Whether the giver stands over every team of a person now. */
async function standsOver(giverId: string, userId: string): Promise<boolean> {
  const rows = await standingsOf(databases().auth.database, [giverId, userId]);
  const of = (id: string) => rows.filter((one) => one.userId === id);
  return giverId !== userId && mayGiveReset(of(giverId), of(userId));
}

const SHOWN_ONCE = failed(
  "shown-once",
  "This link was made and shown once. Make another: it takes the first one's place.",
);

/** A link that sets one person's new password, once, to hand over. */
export async function giveReset(
  principal: Person,
  request: Request,
  memberId: string,
): Promise<Outcome<{ link: Reach; name: string; hours: number }>> {
  const token = newToken();
  const given = await inTeamOnce(
    principal,
    async (tx) => {
      const member = await lockMember(tx, memberId);
      if (!member) return NOBODY;
      if (member.userId === principal.userId)
        return failed("yourself", "Change your own password under Your sign-in.");
      if (!(await standsOver(principal.userId, member.userId))) return NOT_OVER_THEM;
      const at = now();
      await keepReset(databases().auth.database, {
        id: uuidv7(),
        userId: member.userId,
        tokenHash: hashSecret(token),
        by: "team",
        teamId: principal.teamId,
        givenBy: principal.userId,
        expiresAt: new Date(at.getTime() + HANDED_RESET_HOURS * HOUR_MS),
        createdAt: at,
      });
      const { name, athleteId } = member;
      await noteChange(tx, { kind: "reset-link", name, athleteId, by: principal.name, at });
      return done({ name });
    },
    SHOWN_ONCE,
  );
  if (!given.ok) return given;
  const { name } = given.value;
  return done({ link: reach(request, `/reset/${token}`), name, hours: HANDED_RESET_HOURS });
}

const OVER = failed(
  "over",
  "This link does not set a password: it was used, replaced by a newer one, or is too old. Ask for another.",
);

/** A reset that still works. One from a team ends where its giver no longer stands over the person. */
async function openReset(token: string) {
  const row = await resetByHash(databases().auth.database, hashSecret(token), now());
  if (!row) return OVER;
  if (row.by === "team" && !(await standsOver(row.givenBy, row.userId))) return OVER;
  return done(row);
}

export async function readReset(token: string): Promise<Outcome<{ name: string; email: string }>> {
  const open = await openReset(token);
  return open.ok ? done({ name: open.value.name, email: open.value.email }) : open;
}

/** Sets the password, ends every session of the person, and signs them in here. */
export async function useReset(
  request: Request,
  token: string,
  password: string,
): Promise<Outcome<{ cookies: string[] }>> {
  const open = await openReset(token);
  if (!open.ok) return open;
  const { id, userId, teamId, name, email } = open.value;
  const at = now();
  const passwordHash = await hashPassword(password);
  const set = await setPasswordBy(databases().auth.database, { id, userId }, passwordHash, at);
  if (!set) return OVER;
  if (teamId)
    await inTeam({ teamId }, (tx) => noteChange(tx, { kind: "password-set", name, by: name, at }));
  const signed = await signIn(request, { email, password });
  return done({ cookies: signed.ok ? signed.cookies : [] });
}

/** Sends a link to the person's own address. The answer is the same for an address nobody has. */
export async function askReset(
  request: Request,
  email: string,
): Promise<Outcome<{ minutes: number }>> {
  if (!mailIsSet())
    return failed(
      "no-mail",
      "No mail server is set here. Ask your coach or the owner of your team for a link.",
    );
  const tries = await takeResetTry(request);
  if (!tries.allowed)
    return failed("too-many", "Too many links were asked for. Wait a quarter of an hour.");
  const user = await userByEmail(databases().auth.database, email);
  if (user) {
    const token = newToken();
    const at = now();
    await keepReset(databases().auth.database, {
      id: uuidv7(),
      userId: user.id,
      tokenHash: hashSecret(token),
      by: "mail",
      expiresAt: new Date(at.getTime() + MAILED_RESET_HOURS * HOUR_MS),
      createdAt: at,
    });
    // Not waited for: how long it takes would say whether there is such an address.
    void sendMail({
      to: user.email,
      subject: "A new password for Sprezza",
      text: `Somebody asked for a new password for this address. If it was you, open this once, within the hour:\n${reach(request, `/reset/${token}`).url}\n\nIf it was not you, do nothing: your password stays.\n`,
    });
  }
  return done({ minutes: MAILED_RESET_HOURS * 60 });
}

/** A person's own new password; every other session of theirs ends. */
export async function changePassword(
  principal: Person,
  request: Request,
  email: string,
  input: { current: string; password: string },
): Promise<Outcome<{ cookies: string[] }>> {
  const tries = await takeSignInTry(request, email);
  if (!tries.allowed)
    return failed("too-many", "Too many tries. Wait a quarter of an hour, then try again.");
  const response = await callAuth(request, "/change-password", {
    currentPassword: input.current,
    newPassword: input.password,
    revokeOtherSessions: true,
  });
  if (!response.ok) {
    tries.failed();
    return response.status < 500
      ? failed("wrong", `That is not ${principal.name}'s password now. Nothing was changed.`)
      : failed("away", "The password could not be changed now. Try again in a moment.");
  }
  await tries.succeeded();
  return done({ cookies: response.headers.getSetCookie() });
}
