import {
  changeMember,
  listMembers,
  lockMember,
  membershipChanges,
  noteChange,
  openInvitations,
} from "../../../db/queries/members.server";
import { standingsOf } from "../../../db/queries/people.server";
import { emailsOf } from "../../../db/queries/sign-ins.server";
import { changeTeam, listAthletes, readTeam } from "../../../db/queries/squads.server";
import type { MembershipChange } from "../../../db/schema";
import { now } from "../../platform/clock.server";
import { brokenRule, databases, inTeam } from "../../platform/database.server";
import { mailIsSet } from "../../platform/mail.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import { mayGiveReset, mayManage, type Role } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";
import { KEEPS_OWNER, NOBODY, NOT_YOURS, type Person } from "./person.server";
import type { NewTeam } from "./teams.server";

/** Newest changes that are listed. */
const MOST_CHANGES = 60;

/** Who belongs to the team: owners see everybody and what changed, coaches the athletes. */
export async function readPeople(principal: Person) {
  const signIn = databases().auth.database;
  const { members, invitations, changes, athletes, team, dayOf, places } = await inTeam(
    principal,
    async (tx) => {
      const places = await readPlaces(tx);
      const time = new Intl.DateTimeFormat("en-GB", {
        dateStyle: "medium",
        timeStyle: "short",
        timeZone: places.zone,
      });
      return {
        members: await listMembers(tx),
        invitations: await openInvitations(tx, now()),
        changes: principal.role === "owner" ? await membershipChanges(tx, MOST_CHANGES) : [],
        athletes: await listAthletes(tx),
        team: await readTeam(tx),
        dayOf: (at: Date) => time.format(at),
        places,
      };
    },
  );
  const seen = members.filter((one) => mayManage(principal.role, one.role));
  const emails = await emailsOf(
    signIn,
    seen.map((one) => one.userId),
  );
  const standings = await standingsOf(signIn, [principal.userId, ...seen.map((one) => one.userId)]);
  const own = standings.filter((one) => one.userId === principal.userId);
  const taken = new Set(members.flatMap((one) => one.athleteId ?? []));
  const invited = new Set(
    invitations.flatMap((one) => (one.tokenHash === null ? [] : (one.athleteId ?? []))),
  );
  return {
    role: principal.role,
    team: team && { name: team.name, zone: team.zone, unit: team.unit },
    mail: mailIsSet(),
    people: seen.map((one) => ({
      id: one.id,
      name: one.name,
      role: one.role,
      email: emails.get(one.userId) ?? "",
      athleteId: one.athleteId,
      self: one.userId === principal.userId,
      since: dayOf(one.createdAt),
      suspended: one.suspendedAt !== null,
      mayReset:
        one.userId !== principal.userId &&
        mayGiveReset(
          own,
          standings.filter((place) => place.userId === one.userId),
        ),
    })),
    invitations: invitations
      .filter((one) => mayManage(principal.role, one.role))
      .map((one) => ({
        id: one.id,
        name: one.name,
        role: one.role,
        by: one.enteredBy,
        /** Undefined for somebody who came with an archive and was given no link yet. */
        until: one.tokenHash === null ? undefined : dayOf(one.expiresAt),
      })),
    /** Athletes without a sign-in of their own. */
    without: athletes
      .filter((one) => !taken.has(one.id))
      .map((one) => ({
        id: one.id,
        name: one.name,
        squad: places.squads.find((squad) => squad.id === one.squadId)?.name ?? "alone",
        invited: invited.has(one.id),
      })),
    changes: changes.map((one) => ({
      id: one.id,
      at: dayOf(one.enteredAt),
      by: one.enteredBy,
      kind: one.kind,
      name: one.name,
      detail: one.detail,
    })),
  };
}

type Row = NonNullable<Awaited<ReturnType<typeof lockMember>>>;

/** One change of one member, with its line in the list; the database keeps the last owner. */
async function change(
  principal: Person,
  memberId: string,
  work: (
    row: Row,
  ) =>
    | Outcome<never>
    | { kind: MembershipChange; detail?: string; set: Parameters<typeof changeMember>[2] },
): Promise<Outcome<null>> {
  try {
    return await inTeamOnce(principal, async (tx) => {
      const row = await lockMember(tx, memberId);
      if (!row) return NOBODY;
      if (!mayManage(principal.role, row.role)) return NOT_YOURS;
      const changed = work(row);
      if ("ok" in changed) return changed;
      await changeMember(tx, row.id, changed.set);
      await noteChange(tx, {
        kind: changed.kind,
        name: row.name,
        detail: changed.detail ?? "",
        athleteId: row.athleteId,
        by: principal.name,
        at: now(),
      });
      return done(null);
    });
  } catch (error) {
    if (brokenRule(error) === "membership_owner") return KEEPS_OWNER;
    throw error;
  }
}

export function changeRole(principal: Person, memberId: string, role: Role) {
  if (principal.role !== "owner") return Promise.resolve(NOT_YOURS);
  return change(principal, memberId, (row) => {
    if (row.role === role) return failed("so-already", `${row.name} is ${role} already.`);
    if (row.role === "athlete" || role === "athlete")
      return failed("athlete", "An athlete's sign-in opens a card. Invite them as staff instead.");
    return { kind: "role", detail: `${role}, was ${row.role}`, set: { role } };
  });
}

export function rename(principal: Person, memberId: string, name: string) {
  return change(principal, memberId, (row) =>
    row.athleteId
      ? failed("athlete", "An athlete is called as on the lists. Change the name on their page.")
      : { kind: "renamed", detail: `now ${name}`, set: { name } },
  );
}

export function suspend(principal: Person, memberId: string) {
  return change(principal, memberId, (row) =>
    row.suspendedAt
      ? failed("so-already", `${row.name} is suspended already.`)
      : { kind: "suspended", set: { suspendedAt: now() } },
  );
}

export function letIn(principal: Person, memberId: string) {
  return change(principal, memberId, (row) =>
    row.suspendedAt
      ? { kind: "let-in", set: { suspendedAt: null } }
      : failed("so-already", `${row.name} may sign in already.`),
  );
}

/** Ends somebody's place. What they logged keeps their name; the athlete of the card stays. */
export function remove(principal: Person, memberId: string) {
  return change(principal, memberId, (row) => ({
    kind: row.userId === principal.userId ? "left" : "removed",
    set: { removedAt: now(), athleteId: null },
  }));
}

/** What the team is called, its time zone and the unit in which it reads loads: the owner's. */
export function changeTeamFacts(
  principal: Person,
  { team: name, zone, unit }: NewTeam,
): Promise<Outcome<null>> {
  if (principal.role !== "owner") return Promise.resolve(NOT_YOURS);
  return inTeamOnce(principal, async (tx) => {
    await changeTeam(tx, { name, zone, unit });
    const detail = `the team is ${name}, ${zone}, ${unit}`;
    await noteChange(tx, { kind: "renamed", name, detail, by: principal.name, at: now() });
    return done(null);
  });
}

/** Leaves a team of one's own accord. */
export async function leaveTeam(principal: Person): Promise<Outcome<null>> {
  try {
    return await inTeamOnce(principal, async (tx) => {
      const row = (await listMembers(tx)).find((one) => one.userId === principal.userId);
      if (!row) return NOBODY;
      await changeMember(tx, row.id, { removedAt: now(), athleteId: null });
      const { name, athleteId } = row;
      await noteChange(tx, { kind: "left", name, athleteId, by: name, at: now() });
      return done(null);
    });
  } catch (error) {
    if (brokenRule(error) === "membership_owner") return KEEPS_OWNER;
    throw error;
  }
}
