import { randomUUID } from "node:crypto";
import fc from "fast-check";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { userByEmail } from "../../../db/queries/sign-ins.server";
import { closeDatabases, databases } from "../../platform/database.server";
import type { Outcome } from "../../platform/outcome";
import { mayGiveReset, type Role, type Standing } from "../../platform/rights";
import { type Invited, invite, withdraw } from "./invite.server";
import { join, readInvitation } from "./join.server";
import { changeRole, leaveTeam, letIn, readPeople, remove, suspend } from "./members.server";
import { giveReset, readReset, useReset as setByReset } from "./password.server";
import type { Person } from "./person.server";
import { makeAnotherTeam, maySwitch, readTeams } from "./teams.server";

const ownerUrl = process.env.OWNER_DATABASE_URL ?? "";
const adminUrl = (process.env.ADMIN_DATABASE_URL ?? "").replace(/\/postgres$/, "/sprezza_test");
let team: SecondTeam;
let other: SecondTeam;
let admin: postgres.Sql;
let owner: Person;

const request = () =>
  new Request("http://127.0.0.1/people", {
    headers: { "x-client-address": `10.0.0.${Math.floor(Math.random() * 250)}` },
  });
const PASSWORD = "four words in a row";

function value<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(`${outcome.code}: ${outcome.message}`);
  return outcome.value;
}
const tokenOf = (handed: { link: { url: string } }) => handed.link.url.split("/").at(-1) as string;

/** Takes an invitation as somebody new; the person as the server then knows them. */
async function joined(invited: Invited, as: { email?: string } = {}): Promise<Person> {
  const email = as.email ?? `${randomUUID().slice(0, 8)}@people.example`;
  const name = invited.name;
  value(await join(request(), tokenOf(invited), { as: "new", name, email, password: PASSWORD }));
  const user = await userByEmail(databases().auth.database, email);
  const [row] = await admin`SELECT * FROM membership WHERE user_id = ${user?.id ?? ""}`;
  return {
    kind: "person",
    userId: row?.user_id,
    teamId: row?.team_id,
    role: row?.role,
    name: row?.name,
    athleteId: row?.athlete_id ?? undefined,
  };
}
const staff = async (role: Role, by = owner) =>
  joined(value(await invite(by, request(), { role, name: `The ${role}`, email: "" })));
const athlete = async (of: SecondTeam, by: Person) =>
  joined(
    value(await invite(by, request(), { role: "athlete", athleteId: of.athleteId, email: "" })),
  );
const placeOf = async (person: Person) => {
  const [row] = await admin`SELECT id FROM membership
    WHERE team_id = ${person.teamId} AND user_id = ${person.userId}`;
  return row?.id as string;
};

beforeAll(async () => {
  admin = postgres(adminUrl, { max: 1 });
  team = await makeSecondTeam(ownerUrl, "People Team");
  other = await makeSecondTeam(ownerUrl, "Strangers Team");
  owner = await ownerOf(team);
});
afterAll(async () => {
  await admin.end();
  await closeDatabases();
});

/** The fixture's coach, made owner. */
async function ownerOf(of: SecondTeam): Promise<Person> {
  const [row] = await admin`UPDATE membership SET role = 'owner'
    WHERE team_id = ${of.teamId} RETURNING user_id, name`;
  return {
    kind: "person",
    userId: row?.user_id,
    teamId: of.teamId,
    role: "owner",
    name: row?.name,
    athleteId: undefined,
  };
}

describe("an invitation", () => {
  it("works once, and says afterwards that it was used", async () => {
    const invited = value(
      await invite(owner, request(), { role: "coach", name: "Co Ach", email: "" }),
    );
    expect(invited.link.url).toMatch(/\/join\/[\w-]{40,}$/);
    expect(value(await readInvitation(request(), tokenOf(invited)))).toMatchObject({
      team: "People Team",
      role: "coach",
      name: "Co Ach",
    });
    const coach = await joined(invited);
    expect(coach).toMatchObject({ teamId: team.teamId, role: "coach", name: "Co Ach" });
    expect(await readInvitation(request(), tokenOf(invited))).toMatchObject({ code: "used" });
    const again = await join(request(), tokenOf(invited), {
      as: "new",
      name: "Another",
      email: "another@people.example",
      password: PASSWORD,
    });
    expect(again).toMatchObject({ code: "used" });
    expect(await userByEmail(databases().auth.database, "another@people.example")).toBeUndefined();
  });

  it("is taken by one of two who press at once", async () => {
    const token = tokenOf(
      value(await invite(owner, request(), { role: "assistant", name: "Race", email: "" })),
    );
    const taken = await Promise.all(
      [1, 2, 3].map((i) =>
        join(request(), token, {
          as: "new",
          name: "Race",
          email: `race${i}@people.example`,
          password: PASSWORD,
        }),
      ),
    );
    expect(taken.filter((one) => one.ok)).toHaveLength(1);
    const [row] = await admin`SELECT count(*)::int AS n FROM auth."user"
      WHERE email LIKE 'race%@people.example'`;
    expect(row?.n).toBe(1);
  });

  it("is over when withdrawn, too old, or cut short", async () => {
    const gone = value(await invite(owner, request(), { role: "coach", name: "Gone", email: "" }));
    const [row] = await admin`SELECT id FROM invitation WHERE name = 'Gone'`;
    value(await withdraw(owner, row?.id));
    expect(await readInvitation(request(), tokenOf(gone))).toMatchObject({ code: "withdrawn" });
    expect(await withdraw(owner, row?.id)).toMatchObject({ code: "over" });
    const old = value(await invite(owner, request(), { role: "coach", name: "Old", email: "" }));
    await admin`UPDATE invitation SET expires_at = '2026-03-01' WHERE name = 'Old'`;
    expect(await readInvitation(request(), tokenOf(old))).toMatchObject({ code: "expired" });
    expect(await readInvitation(request(), tokenOf(old).slice(1))).toMatchObject({
      code: "unknown",
    });
  });

  it("with an address that signs in already makes nothing, and stays open", async () => {
    const first = await joined(
      value(await invite(owner, request(), { role: "coach", name: "Known One", email: "" })),
      { email: "known@people.example" },
    );
    const token = tokenOf(
      value(await invite(await ownerOf(other), request(), { role: "coach", name: "K", email: "" })),
    );
    const input = {
      as: "new" as const,
      name: "K",
      email: "KNOWN@people.example ".trim(),
      password: PASSWORD,
    };
    expect(await join(request(), token, input)).toMatchObject({ code: "known" });
    const wrong = { as: "known" as const, email: "known@people.example", password: "not this one" };
    expect(await join(request(), token, wrong)).toMatchObject({ code: "wrong" });
    value(await join(request(), token, { ...wrong, password: PASSWORD }));
    const teams = await readTeams(first);
    expect(teams.map((one) => one.name)).toEqual(["People Team", "Strangers Team"]);
    expect(await maySwitch(first, other.teamId)).toMatchObject({ ok: true });
    expect(await maySwitch(first, randomUUID())).toMatchObject({ code: "no-team" });
  });

  it("of an athlete is the coach's too, for their own card, and one at a time", async () => {
    const coach = await staff("coach");
    expect(await invite(coach, request(), { role: "coach", name: "No", email: "" })).toMatchObject({
      code: "not-yours",
    });
    const older = value(
      await invite(coach, request(), { role: "athlete", athleteId: team.athleteId, email: "" }),
    );
    const person = await athlete(team, coach);
    expect(person).toMatchObject({ role: "athlete", athleteId: team.athleteId });
    expect(await readInvitation(request(), tokenOf(older))).toMatchObject({ code: "withdrawn" });
    const again = { role: "athlete" as const, athleteId: team.athleteId, email: "" };
    expect(await invite(coach, request(), again)).toMatchObject({ code: "has-one" });
    expect(await invite(coach, request(), { ...again, athleteId: other.athleteId })).toMatchObject({
      code: "no-athlete",
    });
    value(await remove(coach, await placeOf(person)));
    expect(await invite(coach, request(), again)).toMatchObject({ ok: true });
  });
});

describe("a team keeps an owner", () => {
  it("whoever leaves, is suspended, removed, or made something else", async () => {
    const own = await placeOf(owner);
    const LAST = { ok: false, code: "last-owner" };
    expect(await leaveTeam(owner)).toMatchObject(LAST);
    expect(await suspend(owner, own)).toMatchObject(LAST);
    expect(await remove(owner, own)).toMatchObject(LAST);
    expect(await changeRole(owner, own, "coach")).toMatchObject(LAST);
    const second = await staff("owner");
    value(await suspend(owner, await placeOf(second)));
    // A suspended owner cannot let anybody in: not counted.
    expect(await leaveTeam(owner)).toMatchObject(LAST);
    value(await letIn(owner, await placeOf(second)));
    value(await changeRole(owner, await placeOf(second), "coach"));
  });

  it("when two leave at once", async () => {
    const lone = await makeSecondTeam(ownerUrl, `Two Owners ${randomUUID().slice(0, 6)}`);
    const first = await ownerOf(lone);
    const second = await staff("owner", first);
    const left = await Promise.all([leaveTeam(first), leaveTeam(second)]);
    expect(left.filter((one) => one.ok)).toHaveLength(1);
    const [row] = await admin`SELECT count(*)::int AS n FROM membership
      WHERE team_id = ${lone.teamId} AND role = 'owner' AND removed_at IS NULL`;
    expect(row?.n).toBe(1);
  });
});

describe("what changed", () => {
  it("is listed for the owner alone, and nobody rewrites it", async () => {
    const assistant = await staff("assistant");
    value(await changeRole(owner, await placeOf(assistant), "coach"));
    value(await suspend(owner, await placeOf(assistant)));
    const people = await readPeople(owner);
    expect(people.changes.slice(0, 4).map((one) => [one.kind, one.name, one.detail])).toEqual([
      ["suspended", "The assistant", ""],
      ["role", "The assistant", "coach, was assistant"],
      ["joined", "The assistant", "assistant"],
      ["invited", "The assistant", "assistant"],
    ]);
    const coach = await staff("coach");
    const seen = await readPeople(coach);
    expect(seen.changes).toEqual([]);
    expect(seen.people.every((one) => one.role === "athlete")).toBe(true);
    await expect(
      databases().app.client.begin(async (sql) => {
        await sql`SELECT set_config('app.team', ${team.teamId}, true)`;
        await sql`DELETE FROM membership_change`;
      }),
    ).rejects.toMatchObject({ code: "42501" });
  });

  it("only owners change staff", async () => {
    const coach = await staff("coach");
    for (const act of [suspend, letIn, remove])
      expect(await act(coach, await placeOf(owner))).toMatchObject({ code: "not-yours" });
    expect(await changeRole(coach, await placeOf(coach), "owner")).toMatchObject({
      code: "not-yours",
    });
    // Another team's places are not even seen.
    const stranger = await ownerOf(other);
    expect(await remove(owner, await placeOf(stranger))).toMatchObject({ code: "nobody" });
  });
});

describe("a password link", () => {
  it("sets the password once and ends every session", async () => {
    const person = await staff("coach");
    const handed = value(await giveReset(owner, request(), await placeOf(person)));
    const token = tokenOf(handed);
    expect(value(await readReset(token)).name).toBe("The coach");
    value(await setByReset(request(), token, "a wholly new password"));
    expect(await setByReset(request(), token, "and once more so")).toMatchObject({ code: "over" });
    const [row] = await admin`SELECT count(*)::int AS n FROM auth.session
      WHERE user_id = ${person.userId} AND created_at < now() - interval '1 second'`;
    expect(row?.n).toBe(0);
  });

  it("a newer one ends the older", async () => {
    const person = await staff("coach");
    const older = tokenOf(value(await giveReset(owner, request(), await placeOf(person))));
    const newer = tokenOf(value(await giveReset(owner, request(), await placeOf(person))));
    expect(await readReset(older)).toMatchObject({ code: "over" });
    expect(await readReset(newer)).toMatchObject({ ok: true });
  });

  it("does not take over somebody who belongs to another team too", async () => {
    const coach = await staff("coach");
    const theirs = await ownerOf(other);
    // The other team's owner is an assistant here besides.
    const place = await admin`INSERT INTO membership (team_id, id, user_id, name, role)
      VALUES (${team.teamId}, ${randomUUID()}, ${theirs.userId}, 'Guest', 'assistant') RETURNING id`;
    expect(await giveReset(owner, request(), place[0]?.id)).toMatchObject({
      code: "not-over-them",
    });
    expect(await giveReset(coach, request(), await placeOf(owner))).toMatchObject({
      code: "not-over-them",
    });
  });

  it("ends when its person joins another team, or its giver loses the right", async () => {
    const person = await staff("assistant");
    const token = tokenOf(value(await giveReset(owner, request(), await placeOf(person))));
    await admin`INSERT INTO membership (team_id, id, user_id, name, role)
      VALUES (${other.teamId}, ${randomUUID()}, ${person.userId}, 'Mover', 'coach')`;
    expect(await readReset(token)).toMatchObject({ code: "over" });
    expect(await setByReset(request(), token, "a wholly new password")).toMatchObject({
      code: "over",
    });

    const boss = await staff("owner");
    const third = await staff("assistant");
    const given = tokenOf(value(await giveReset(boss, request(), await placeOf(third))));
    value(await suspend(owner, await placeOf(boss)));
    expect(await readReset(given)).toMatchObject({ code: "over" });
  });

  it("is given only by who stands over every team of the person", () => {
    const role = fc.constantFrom<Role>("owner", "coach", "assistant", "athlete");
    const standings = fc.array(
      fc.record({ teamId: fc.constantFrom("a", "b", "c"), role, suspended: fc.boolean() }),
      { maxLength: 4 },
    );
    fc.assert(
      fc.property(standings, standings, (giver: Standing[], person: Standing[]) => {
        if (!mayGiveReset(giver, person)) return;
        for (const place of person) {
          const over = giver.filter((own) => own.teamId === place.teamId && !own.suspended);
          expect(over.some((own) => own.role === "owner" || own.role === "coach")).toBe(true);
          if (place.role !== "athlete") expect(over.some((own) => own.role === "owner")).toBe(true);
        }
        expect(person.length).toBeGreaterThan(0);
      }),
    );
  });
});

describe("another team", () => {
  it("is an owner's to make, stocked, and once for two presses", async () => {
    const coach = await staff("coach");
    const input = { team: "Annexe", zone: "Europe/Oslo", unit: "lb" as const };
    expect(await makeAnotherTeam(coach, input)).toMatchObject({ code: "owner-only" });
    const made = await Promise.all([makeAnotherTeam(owner, input), makeAnotherTeam(owner, input)]);
    expect(made.filter((one) => one.ok)).toHaveLength(1);
    const teamId = made.flatMap((one) => (one.ok ? [one.value.teamId] : []))[0] as string;
    const [row] = await admin`SELECT
      (SELECT count(*)::int FROM exercise WHERE team_id = ${teamId}) AS exercises,
      (SELECT count(*)::int FROM lift_variant WHERE team_id = ${teamId} AND caution <> '') AS lifts,
      (SELECT count(*)::int FROM team_recipe WHERE team_id = ${teamId}) AS recipes,
      (SELECT count(*)::int FROM team_school WHERE team_id = ${teamId}) AS schools,
      (SELECT count(*)::int FROM team_complex WHERE team_id = ${teamId}) AS complexes,
      (SELECT count(*)::int FROM physical_test WHERE team_id = ${teamId}) AS tests,
      (SELECT count(*)::int FROM rack WHERE team_id = ${teamId}) AS racks,
      (SELECT count(*)::int FROM athlete WHERE team_id = ${teamId}) AS athletes`;
    expect(row).toMatchObject({ lifts: 12, schools: 7, racks: 4, athletes: 0 });
    expect(row?.exercises).toBeGreaterThan(90);
    expect(row?.recipes).toBeGreaterThan(10);
    expect(row?.complexes).toBeGreaterThan(3);
    expect(row?.tests).toBeGreaterThan(3);
  });
});
