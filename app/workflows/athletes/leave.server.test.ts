import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ENTRY_SCHEMA_VERSION, type EntryBody } from "../../../core/floor/entries";
import { reduceFloor } from "../../../core/floor/state";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { FactsForm, LimitForm } from "../../forms/athlete";
import { now } from "../../platform/clock.server";
import { closeDatabases } from "../../platform/database.server";
import type { Principal, Role } from "../../platform/rights";
import { appendEntries } from "../floor/append-entries.server";
import { readSession } from "../floor/read-session.server";
import { readReview } from "../review/read-review.server";
import { archive, erase } from "./leave.server";
import { readAthlete } from "./read-athlete.server";
import { readAthletes } from "./read-athletes.server";
import { addPerson, saveDayNote, saveFacts } from "./save-facts.server";
import { readReads, saveLimit, showReasons } from "./save-limits.server";
import { saveRecord } from "./save-max.server";

const NAME = 'Wenzel "Wenz" Auerdal';
let team: SecondTeam;
let other: SecondTeam;
let admin: postgres.Sql;
beforeAll(async () => {
  const ownerUrl = process.env.OWNER_DATABASE_URL ?? "";
  team = await makeSecondTeam(ownerUrl, "Leaving Team");
  other = await makeSecondTeam(ownerUrl, "Staying Team");
  admin = postgres((process.env.ADMIN_DATABASE_URL ?? "").replace(/\/postgres$/, "/sprezza_test"), {
    max: 1,
    onnotice: () => {},
  });
});
afterAll(async () => {
  await admin.end();
  await closeDatabases();
});

const person = (role: Role, of = team): Principal => ({
  kind: "person",
  userId: randomUUID(),
  teamId: of.teamId,
  role,
  name: `The ${role}`,
  athleteId: undefined,
});
const facts = (squadId: string, over: Record<string, string> = {}) =>
  FactsForm.parse({
    name: NAME,
    squadId,
    goal: "",
    seasonPhase: "",
    sport: "",
    roomId: "",
    unit: "",
    birthYear: "2009",
    statureCm: "181",
    trainingSince: "",
    ...over,
  });
async function squadOf(of: SecondTeam): Promise<string> {
  const [row] = await admin`SELECT squad_id FROM athlete WHERE id = ${of.athleteId}`;
  return row?.squad_id;
}

describe("an athlete of the same name", () => {
  it("is asked about first, however it is spaced and written, and not in another team", async () => {
    const squadId = await squadOf(team);
    const again = await addPerson(person("coach"), facts(squadId, { name: "second  ATHLETE" }));
    expect(again).toMatchObject({ ok: false, code: "same-name" });
    expect(again.ok ? "" : again.message).toContain("Second Athlete is here already (Squad)");
    const another = { ...facts(squadId, { name: "Second Athlete" }), another: "yes" as const };
    const added = await addPerson(person("coach"), another);
    expect(added).toMatchObject({ ok: true });
    await archive(person("coach"), added.ok ? added.value.athleteId : "", true);
  });
});

describe("who is archived", () => {
  it("is on no list and everything stays; brought back, it is as before", async () => {
    const names = async () => (await readAthletes(person("coach"))).rows.map((row) => row.name);
    expect(await names()).toContain("Second Athlete");
    expect(await archive(person("coach"), team.athleteId, true)).toMatchObject({ ok: true });
    expect(await names()).toEqual([]);
    const list = await readAthletes(person("coach"));
    expect(list.archived.map((one) => one.id)).toContain(team.athleteId);
    expect((await readAthletes(person("assistant"))).archived).toEqual([]);
    expect(await archive(person("coach"), team.athleteId, true)).toMatchObject({ ok: false });
    expect(await archive(person("coach"), team.athleteId, false)).toMatchObject({ ok: true });
    expect(await names()).toEqual(["Second Athlete"]);
  });
});

describe("reads of a reason", () => {
  it("are shown to the owner, with who and when, and to nobody else", async () => {
    await saveLimit(
      person("coach"),
      team.athleteId,
      LimitForm.parse({
        lift: "",
        instruction: "No jumps.",
        reasonKind: "injury",
        reason: "Ankle, twice.",
      }),
    );
    await showReasons(person("coach"), team.athleteId);
    const reads = await readReads(person("owner"), team.athleteId);
    expect(reads).toMatchObject({
      ok: true,
      value: [{ by: "The coach", instruction: "No jumps." }],
    });
    expect(await readReads(person("coach"), team.athleteId)).toMatchObject({ ok: false });
  });
});

describe("who is erased", () => {
  const at = () => ({
    athleteId: team.athleteId,
    slotId: "main",
    stationId: team.rackId,
    setKey: "w1.s1.1",
  });
  const entry = (deviceSeq: number, body: EntryBody, supersedes: string[] = []) => ({
    id: randomUUID(),
    deviceId: "0198c0de-0000-7000-8000-00000000e001",
    bootId: "0198c0de-0000-7000-8000-00000000e002",
    deviceSeq,
    monoMs: 1000 * deviceSeq,
    wallTime: now().toISOString(),
    supersedes,
    schemaVersion: ENTRY_SCHEMA_VERSION,
    body,
  });

  it("leaves log and numbers, and nothing else: no name, note, reason or age in any table", async () => {
    const squadId = await squadOf(team);
    await saveFacts(person("coach"), team.athleteId, facts(squadId, { note: "Marker-note" }));
    await saveDayNote(person("coach"), team.athleteId, {
      date: "2026-03-01",
      sleepH: 5.25,
      eating: undefined,
      soreness: 9,
    });
    await saveRecord(person("coach"), {
      athleteId: team.athleteId,
      variantId: team.variantId,
      load: { amount: 90, unit: "kg" },
      date: "2026-03-01",
      kind: "tested",
      note: "Marker-record",
      confirmed: true,
    });
    const lifted = {
      kind: "rep",
      ...at(),
      rep: 1,
      mcvMps: 0.84,
      outcome: "counted",
      source: "typed",
    } as const;
    const rep = entry(1, lifted);
    const sent = await appendEntries(person("coach"), team.sessionId, [
      rep,
      entry(2, { ...lifted, mcvMps: 0.8, why: "Marker-why" }, [rep.id]),
      entry(3, {
        kind: "call",
        ...at(),
        call: "lighten",
        decision: "decline",
        action: { type: "none" },
        reason: "Marker-reason",
      }),
    ]);
    expect(sent).toMatchObject({ ok: true });
    expect(JSON.stringify(sent)).not.toContain("refused");
    // The name as it stood when the session began, and in a plan's own words.
    await admin`UPDATE session_person SET name = ${NAME}, instructions = ${["Marker-instruction"]}
      WHERE athlete_id = ${team.athleteId}`;
    await admin`UPDATE plan SET name = ${`Wave, ${NAME}`}, block = jsonb_set(block, '{name}', ${admin.json(`Wave, ${NAME}`)})
      WHERE team_id = ${team.teamId}`;
    const userId = randomUUID();
    await admin`INSERT INTO auth."user" (id, name, email) VALUES (${userId}, ${NAME}, ${`${userId}@marker.example`})`;
    await admin`INSERT INTO membership (team_id, id, user_id, name, role, athlete_id)
      VALUES (${team.teamId}, ${randomUUID()}, ${userId}, 'Wenz Auerdal', 'athlete', ${team.athleteId})`;

    expect(await erase(person("coach"), team.athleteId, NAME)).toMatchObject({
      code: "owner-only",
    });
    expect(await erase(person("owner"), team.athleteId, "Wenzel")).toMatchObject({
      code: "other-name",
    });
    expect(await erase(person("owner", other), team.athleteId, NAME)).toMatchObject({
      code: "nobody",
    });
    expect(await erase(person("owner"), team.athleteId, NAME)).toMatchObject({ ok: true });
    expect(await erase(person("owner"), team.athleteId, "Erased athlete")).toMatchObject({
      ok: false,
    });

    const tables = await admin<Array<{ name: string }>>`
      SELECT table_schema || '.' || quote_ident(table_name) AS name FROM information_schema.tables
      WHERE table_schema IN ('public', 'auth') AND table_type = 'BASE TABLE'`;
    for (const { name } of tables) {
      const rows = await admin.unsafe(`SELECT to_jsonb(t)::text AS text FROM ${name} t`);
      const text = rows.map((row) => row.text).join("\n");
      expect(text, name).not.toMatch(/Auerdal|Marker-|Ankle, twice/i);
    }
    const [left] = await admin`
      SELECT birth_year, stature_cm, name, erased_at IS NOT NULL AS erased FROM athlete WHERE id = ${team.athleteId}`;
    expect(left).toEqual({
      birth_year: null,
      stature_cm: null,
      name: "Erased athlete",
      erased: true,
    });
    const [kept] = await admin`
      SELECT (SELECT count(*)::int FROM log_entry WHERE session_id = ${team.sessionId}) AS entries,
        (SELECT count(*)::int FROM max_record WHERE athlete_id = ${team.athleteId}) AS maxes,
        (SELECT count(*)::int FROM day_note WHERE athlete_id = ${team.athleteId}) AS notes,
        (SELECT count(*)::int FROM erasure WHERE id = ${team.athleteId}) AS erasures`;
    expect(kept).toMatchObject({ entries: 3, notes: 0, erasures: 1 });
    expect(kept?.maxes).toBeGreaterThan(0);
  });

  it("leaves sessions, reviews and pages that open, under nobody's name", async () => {
    const session = await readSession(person("coach"), team.sessionId);
    if (!session.ok) throw new Error(session.message);
    const floor = reduceFloor(session.value.frozen, session.value.entries);
    expect(floor.racks[0]?.lifters[0]?.lifter.name).toBe("Erased athlete");
    expect(floor.racks[0]?.lifters[0]?.sets[0]?.reps.map((one) => one.velocityMps)).toEqual([0.8]);
    expect(await readReview(person("coach"), team.sessionId)).toMatchObject({ ok: true });
    const page = await readAthlete(person("coach"), team.athleteId);
    expect(page).toMatchObject({ value: { person: { erased: true, name: "Erased athlete" } } });
    expect(await archive(person("coach"), team.athleteId, false)).toMatchObject({ code: "erased" });
  });

  it("cannot be taken out by the application in any other way", async () => {
    const app = postgres(process.env.DATABASE_URL ?? "", { max: 1 });
    const inTeam = (work: (sql: postgres.TransactionSql) => Promise<unknown>) =>
      app.begin(async (sql) => {
        await sql`SELECT set_config('app.team', ${other.teamId}, true)`;
        await work(sql);
      });
    for (const forbidden of [
      "DELETE FROM session_person",
      "UPDATE session_person SET name = 'x'",
      "DELETE FROM entry_words",
      "DELETE FROM erasure",
      "INSERT INTO erasure SELECT team_id, id, 'x', now() FROM athlete",
    ])
      await expect(
        inTeam((sql) => sql.unsafe(forbidden)),
        forbidden,
      ).rejects.toMatchObject({
        code: "42501",
      });
    await expect(
      inTeam((sql) => sql`UPDATE training_session SET frozen = '{}'`),
    ).rejects.toMatchObject({ code: "23001" });
    // Another team's athlete is nobody to the function.
    await inTeam(async (sql) => {
      const [row] = await sql`SELECT erase_athlete(${team.athleteId}, 'x', now()) AS users`;
      expect(row?.users).toBeNull();
    });
    await app.end();
  });
});
