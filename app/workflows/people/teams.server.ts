import { uuidv7 } from "uuidv7";
import { addMember, noteChange } from "../../../db/queries/members.server";
import { membershipsOf } from "../../../db/queries/people.server";
import { makeTeam, waitTurn } from "../../../db/queries/stock.server";
import type { TeamTransaction } from "../../../db/team.server";
import { now } from "../../platform/clock.server";
import { databases } from "../../platform/database.server";
import { inTeamWhole } from "../../platform/once.server";
import { done, type Failure, failed, type Outcome } from "../../platform/outcome";
import type { Person } from "./person.server";

/** Teams that one person may make on one installation. */
const MOST_TEAMS = 20;

/** The teams of a person, and which is open. */
export async function readTeams(principal: Person) {
  const teams = await membershipsOf(databases().auth.database, principal.userId);
  return teams.map(({ teamId, teamName, role }) => ({
    id: teamId,
    name: teamName,
    role,
    open: teamId === principal.teamId,
  }));
}

/** Whether any team lets a person in. */
export async function hasTeam(userId: string): Promise<boolean> {
  return (await membershipsOf(databases().auth.database, userId)).length > 0;
}

/** Whether this browser may go on in another team of the person. */
export async function maySwitch(principal: Person, teamId: string): Promise<Outcome<string>> {
  const teams = await readTeams(principal);
  return teams.some((one) => one.id === teamId)
    ? done(teamId)
    : failed("no-team", "You do not belong to this team any more.");
}

export interface NewTeam {
  team: string;
  zone: string;
  unit: "kg" | "lb";
}

/** A stocked team with its first owner, in the new team's own transaction. */
export async function makeOwnedTeam(
  tx: TeamTransaction,
  input: NewTeam,
  owner: { userId: string; name: string },
): Promise<void> {
  const at = now();
  await makeTeam(tx, {
    name: input.team,
    zone: input.zone,
    unit: input.unit,
    enteredBy: owner.name,
    enteredAt: at,
  });
  await addMember(tx, { ...owner, role: "owner" });
  await noteChange(tx, { kind: "team-made", name: owner.name, by: owner.name, at });
}

/** Why a person makes no team of this name; undefined where they may. */
export async function mayMakeTeam(principal: Person, name: string): Promise<Failure | undefined> {
  const teams = await readTeams(principal);
  if (!teams.some((one) => one.role === "owner"))
    return failed("owner-only", "Only the owner of a team makes another.");
  if (teams.length >= MOST_TEAMS)
    return failed("enough", `${MOST_TEAMS} teams are the most of one person here.`);
  const same = teams.find((one) => one.name.toLowerCase() === name.toLowerCase());
  return same
    ? failed("same-name", `${same.name} is one of your teams already. Give this one another name.`)
    : undefined;
}

/** Another team for somebody who owns one. */
export async function makeAnotherTeam(
  principal: Person,
  input: NewTeam,
): Promise<Outcome<{ teamId: string }>> {
  const teamId = uuidv7();
  return inTeamWhole({ teamId }, async (tx) => {
    // One after the other: a second press finds the team that the first one made.
    await waitTurn(tx, `teams of ${principal.userId}`);
    const refused = await mayMakeTeam(principal, input.team);
    if (refused) return refused;
    await makeOwnedTeam(tx, input, { userId: principal.userId, name: principal.name });
    return done({ teamId });
  });
}
