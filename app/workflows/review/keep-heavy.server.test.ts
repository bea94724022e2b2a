import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { afterAll, beforeAll, expect, it } from "vitest";
import { ENTRY_SCHEMA_VERSION, type EntryBody } from "../../../core/floor/entries";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { recordsOf, singlesOf } from "../../../db/queries/maxes.server";
import { closeDatabases, inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { appendEntries } from "../floor/append-entries.server";
import { keepHeavy } from "./keep-heavy.server";
import { readReview } from "./read-review.server";

let team: SecondTeam;
let coach: Principal;

beforeAll(async () => {
  team = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Heavy Team");
  coach = {
    kind: "person",
    userId: "nobody",
    teamId: team.teamId,
    role: "coach",
    name: "Heavy Coach",
    athleteId: undefined,
  };
  const database = new URL(process.env.OWNER_DATABASE_URL ?? "").pathname;
  const admin = postgres((process.env.ADMIN_DATABASE_URL ?? "").replace(/\/[^/]*$/, database), {
    max: 1,
    onnotice: () => {},
  });
  // The fixture's slot is made a heavy one, of its own lift: past the rule that it stays frozen.
  await admin.begin(async (sql) => {
    await sql`SET LOCAL session_replication_role = replica`;
    await sql`
      UPDATE training_session SET frozen = jsonb_set(frozen, '{slots,0}', frozen->'slots'->0 ||
        ${sql.json({ top: { reps: 1 }, variantId: team.variantId, metric: "MCV" })})
      WHERE id = ${team.sessionId}`;
  });
  await admin.end();
});
afterAll(closeDatabases);

async function lift(mcvMps: number, loadKg: number): Promise<void> {
  const at = {
    athleteId: team.athleteId,
    slotId: "main",
    stationId: team.rackId,
    setKey: "w1.s1.1",
  };
  const bodies: EntryBody[] = [
    { kind: "rep", ...at, rep: 1, mcvMps, outcome: "counted", source: "sensor" },
    { kind: "set-done", ...at, loadKg, endedBy: "hand", cut: false },
  ];
  const device = { deviceId: randomUUID(), bootId: randomUUID() };
  const wallMs = Date.parse("2026-03-10T16:29:00Z");
  const entries = bodies.map((body, i) => ({
    id: randomUUID(),
    ...device,
    deviceSeq: i + 1,
    monoMs: 1000 * i,
    wallTime: new Date(wallMs + 1000 * i).toISOString(),
    supersedes: [],
    schemaVersion: ENTRY_SCHEMA_VERSION,
    body,
  }));
  const answer = await appendEntries(coach, team.sessionId, entries, {
    ...device,
    monoMs: 5000,
    wallMs: wallMs + 5000,
  });
  if (!answer.ok) throw new Error(answer.message);
}

it("a heavy single becomes the record on the coach's word, and its speed the own threshold's", async () => {
  await lift(0.31, 120);
  const review = await readReview(coach, team.sessionId);
  expect(review.ok && review.value.heavy).toMatchObject([
    { athleteId: team.athleteId, loadKg: 120, reps: 1, singleMps: 0.31, kept: false },
  ]);
  const asked = { sessionId: team.sessionId, slotId: "main", athleteId: team.athleteId };
  expect((await keepHeavy(coach, { ...asked, wasAll: true })).ok).toBe(true);
  expect(await keepHeavy(coach, { ...asked, wasAll: true })).toMatchObject({ code: "kept" });
  const kept = await inTeam(coach, async (tx) => ({
    records: (await recordsOf(tx, team.athleteId)).filter((one) =>
      one.note.startsWith("Best set of a heavy slot"),
    ),
    singles: await singlesOf(tx, team.athleteId),
  }));
  expect(kept.records).toMatchObject([
    { variantId: team.variantId, load: { amount: 120, unit: "kg" }, kind: "tested" },
  ]);
  expect(kept.singles).toMatchObject([
    { variantId: team.variantId, velocityMps: 0.31, metric: "MCV", load: { amount: 120 } },
  ]);
  const nobody = { ...asked, athleteId: randomUUID(), wasAll: false };
  expect(await keepHeavy(coach, nobody)).toMatchObject({ code: "no-set" });
});
