import { uuidv7 } from "uuidv7";
import {
  giveLink,
  keepInvitation,
  noteChange,
  signInOfAthlete,
  withdrawInvitation,
  withdrawOlder,
} from "../../../db/queries/members.server";
import { athleteById, readTeam } from "../../../db/queries/squads.server";
import { now } from "../../platform/clock.server";
import { mailIsSet, sendMail } from "../../platform/mail.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import { hashSecret, newToken } from "../../platform/rack-token.server";
import { type Reach, reach } from "../../platform/reach.server";
import { mayManage, type Role } from "../../platform/rights";
import { NOT_YOURS, type Person } from "./person.server";

/** How long an invitation waits, days: a squad is together once a week. */
export const INVITATION_DAYS = 14;

export interface Invited {
  link: Reach;
  name: string;
  role: Role;
  /** Where it was sent too; undefined where nothing was sent. */
  sentTo: string | undefined;
  /** Sending was asked for and did not work. */
  notSent: boolean;
}

const SHOWN_ONCE = failed(
  "shown-once",
  "This invitation was made and its link was shown once. Withdraw it below and make another.",
);

interface Invitation {
  name: string;
  role: Role;
  athleteId?: string;
  email: string;
}

/** Makes a link that lets one person in, once; sends it too where a mail server is set. */
export async function invite(
  principal: Person,
  request: Request,
  input: Omit<Invitation, "name"> & { name?: string },
): Promise<Outcome<Invited>> {
  if (!mayManage(principal.role, input.role)) return NOT_YOURS;
  const token = newToken();
  const made = await inTeamOnce(
    principal,
    async (tx) => {
      const at = now();
      let name = input.name ?? "";
      if (input.athleteId) {
        const athlete = await athleteById(tx, input.athleteId);
        if (!athlete || athlete.archivedAt)
          return failed("no-athlete", "This athlete is not on your lists any more.");
        const known = await signInOfAthlete(tx, athlete.id);
        if (known)
          return failed(
            "has-one",
            `${athlete.name} has a sign-in already. Give a new password link instead.`,
          );
        name = athlete.name;
        await withdrawOlder(tx, athlete.id, at);
      }
      await keepInvitation(tx, {
        id: uuidv7(),
        name,
        role: input.role,
        athleteId: input.athleteId ?? null,
        email: input.email,
        tokenHash: hashSecret(token),
        expiresAt: new Date(at.getTime() + INVITATION_DAYS * 86_400_000),
        enteredBy: principal.name,
        enteredAt: at,
      });
      await noteChange(tx, {
        kind: "invited",
        name,
        detail: input.role,
        athleteId: input.athleteId ?? null,
        by: principal.name,
        at,
      });
      return done({ name, team: (await readTeam(tx))?.name ?? "" });
    },
    SHOWN_ONCE,
  );
  if (!made.ok) return made;
  const { name, team } = made.value;
  const link = reach(request, `/join/${token}`);
  const send = input.email !== "" && mailIsSet();
  const sent =
    send &&
    (await sendMail({
      to: input.email,
      subject: `${team}: your way in`,
      text: `${principal.name} lets you into ${team} as ${input.role}.\n\nOpen this once, within ${INVITATION_DAYS} days:\n${link.url}\n`,
    }));
  return done({
    link,
    name,
    role: input.role,
    sentTo: sent ? input.email : undefined,
    notSent: send && !sent,
  });
}

/** Gives somebody who waits (who came with an archive, whose link is lost) a link, once shown. */
export async function handLink(
  principal: Person,
  request: Request,
  invitationId: string,
): Promise<Outcome<Invited>> {
  const token = newToken();
  const given = await inTeamOnce(
    principal,
    async (tx) => {
      const at = now();
      const row = await giveLink(tx, invitationId, {
        tokenHash: hashSecret(token),
        expiresAt: new Date(at.getTime() + INVITATION_DAYS * 86_400_000),
      });
      if (!row) return failed("over", "This invitation was used or withdrawn already.");
      if (!mayManage(principal.role, row.role)) return NOT_YOURS;
      const { name, role, athleteId } = row;
      await noteChange(tx, {
        kind: "invited",
        name,
        detail: role,
        athleteId,
        by: principal.name,
        at,
      });
      return done({ name, role });
    },
    SHOWN_ONCE,
  );
  if (!given.ok) return given;
  const link = reach(request, `/join/${token}`);
  return done({ link, ...given.value, sentTo: undefined, notSent: false });
}

export function withdraw(principal: Person, invitationId: string): Promise<Outcome<null>> {
  return inTeamOnce(principal, async (tx) => {
    const row = await withdrawInvitation(tx, invitationId, now());
    if (!row) return failed("over", "This invitation was used or withdrawn already.");
    if (!mayManage(principal.role, row.role)) return NOT_YOURS;
    const { name, athleteId } = row;
    await noteChange(tx, { kind: "withdrawn", name, athleteId, by: principal.name, at: now() });
    return done(null);
  });
}
