import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { readAthlete } from "../athletes/read-athlete.server";
import { readNotes, saveNote } from "./notes.server";

const url = process.env.OWNER_DATABASE_URL ?? "";
let team: SecondTeam;
let strangers: SecondTeam;
let coach: Principal;
let sessionId: string;
let admin: postgres.Sql;

const principal = (of: SecondTeam, role: "coach" | "assistant" = "coach"): Principal => ({
  kind: "person",
  userId: "nobody",
  teamId: of.teamId,
  role,
  name: "Writing Coach",
  athleteId: undefined,
});
const write = (aboutId: string, words: string, kind: "note" | "hand-over" | "health" = "note") =>
  saveNote(coach, { intent: "note", aboutId, kind, words });
const notesOn = async (aboutId: string, words = "") =>
  (await readNotes(coach, { words, aboutId })).notes.map(({ about, words }) => ({ about, words }));

beforeAll(async () => {
  team = await makeSecondTeam(url, "Noting Team");
  strangers = await makeSecondTeam(url, "Noting Strangers");
  coach = principal(team);
  admin = postgres((process.env.ADMIN_DATABASE_URL ?? "").replace(/\/postgres$/, "/sprezza_test"), {
    max: 1,
    onnotice: () => {},
  });
  const [session] = await admin`
    SELECT id FROM training_session WHERE team_id = ${team.teamId} LIMIT 1`;
  sessionId = session?.id ?? "";
});
afterAll(async () => {
  await admin.end();
  await closeDatabases();
});

describe("notes", () => {
  it("are written on a session and on a plan, found by words, and stand under its name", async () => {
    expect((await write(sessionId, "Hall was cold, bars late")).ok).toBe(true);
    expect((await write(team.planId, "Ask for lighter first weeks")).ok).toBe(true);
    const [onSession] = await notesOn(sessionId);
    expect(onSession?.words).toBe("Hall was cold, bars late");
    expect(onSession?.about).toMatch(/, \d{4}-\d{2}-\d{2}$/);
    const [onPlan] = await notesOn(team.planId);
    expect(onPlan?.about).toMatch(/^Plan /);
    expect((await notesOn("", "COLD")).map((one) => one.words)).toEqual([
      "Hall was cold, bars late",
    ]);
  });

  it("take no health but an athlete's, and nothing of another team", async () => {
    expect(await write(sessionId, "sore elbow", "health")).toMatchObject({
      ok: false,
      code: "health-of-one",
    });
    expect(await write(strangers.planId, "whose?")).toMatchObject({ ok: false, code: "no-about" });
    expect(await write(randomUUID(), "nothing")).toMatchObject({ ok: false, code: "no-about" });
  });

  it("stand on the athlete's page without those on health, and for no assistant", async () => {
    await write(team.athleteId, "Left heel lifts on the box", "hand-over");
    await write(team.athleteId, "saw a doctor", "health");
    const page = await readAthlete(coach, team.athleteId);
    expect(page.ok && page.value.noted.map((one) => one.words)).toEqual([
      "Left heel lifts on the box",
    ]);
    const seen = await readAthlete(principal(team, "assistant"), team.athleteId);
    expect(seen.ok && seen.value.noted).toEqual([]);
  });
});
