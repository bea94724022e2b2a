import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ENTRY_SCHEMA_VERSION, type EntryBody, type LogEntry } from "../../../core/floor/entries";
import { reduceFloor } from "../../../core/floor/state";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import type { EntryAnswer } from "../../forms/entries";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { appendEntries } from "./append-entries.server";
import { readEntriesAfter, readSession } from "./read-session.server";

const ownerUrl = process.env.OWNER_DATABASE_URL ?? "";
let team: SecondTeam;
let coach: Principal;

beforeAll(async () => {
  team = await makeSecondTeam(ownerUrl, "Log Team");
  coach = {
    kind: "person",
    userId: "u1",
    teamId: team.teamId,
    role: "coach",
    name: "Log Coach",
    athleteId: undefined,
  };
});
afterAll(closeDatabases);

let deviceSeq = 0;
const deviceId = randomUUID();
const bootId = randomUUID();

function entry(patch: Partial<EntryBody> = {}, over: Partial<LogEntry> = {}) {
  deviceSeq++;
  return {
    id: randomUUID(),
    deviceId,
    bootId,
    deviceSeq,
    monoMs: 1000.25 * deviceSeq,
    wallTime: new Date(Date.parse("2026-03-10T16:30:00Z") + deviceSeq).toISOString(),
    supersedes: [],
    schemaVersion: ENTRY_SCHEMA_VERSION,
    body: {
      kind: "rep",
      athleteId: team.athleteId,
      slotId: "main",
      stationId: team.rackId,
      setKey: "w1.s1.1",
      rep: 1,
      mcvMps: 0.843,
      outcome: "counted",
      source: "simulated",
      ...patch,
    },
    ...over,
  };
}

async function send(entries: unknown[], who: Principal = coach): Promise<EntryAnswer[]> {
  const result = await appendEntries(who, team.sessionId, entries);
  if (!result.ok) throw new Error(result.message);
  return result.value.answers;
}

const logged = async (after = 0) =>
  (await readEntriesAfter(coach, team.sessionId, after))?.entries ?? [];

describe("appending", () => {
  it("acknowledges with the number under which it was read back", async () => {
    const one = entry();
    const [answer] = await send([one]);
    expect(answer).toMatchObject({ id: one.id, status: "stored" });
    const found = (await logged()).find((row) => row.id === one.id);
    const { seq, madeAt, by, ...rest } = found ?? { seq: 0 };
    expect(rest).toEqual(one);
    expect(by).toBe("u1");
    expect(answer).toMatchObject({ seq, madeAt });
  });

  it("stores the same entry once, however often it is sent", async () => {
    const one = entry();
    const answers = [...(await send([one])), ...(await send([one])), ...(await send([one, one]))];
    expect(new Set(answers.map((answer) => "seq" in answer && answer.seq)).size).toBe(1);
    expect((await logged()).filter((row) => row.id === one.id)).toHaveLength(1);
  });

  it("refuses another entry under a number that is taken", async () => {
    const one = entry();
    await send([one]);
    const [answer] = await send([{ ...one, monoMs: one.monoMs + 1 }]);
    expect(answer).toMatchObject({ status: "refused" });
    expect((await logged()).find((row) => row.id === one.id)?.monoMs).toBe(one.monoMs);
  });

  it("answers each entry on its own: a bad one blocks no other", async () => {
    const good = entry();
    const answers = await send([
      entry({ mcvMps: 17 }),
      "nonsense",
      entry({}, { schemaVersion: 99 }),
      good,
      entry({ kind: "dance" } as never),
    ]);
    const byId = new Map(answers.map((answer) => [answer.id, answer]));
    expect(byId.get(good.id)).toMatchObject({ status: "stored" });
    expect(answers.filter((answer) => answer.status === "refused")).toHaveLength(4);
    for (const answer of answers) {
      if (answer.status === "refused") expect(answer.reason.length).toBeGreaterThan(5);
    }
  });

  it("numbers entries without a gap when many writers come at once", async () => {
    const before = (await logged()).at(-1)?.seq ?? 0;
    const batches = Array.from({ length: 12 }, () => [entry(), entry(), entry()]);
    const answers = (await Promise.all(batches.map((batch) => send(batch)))).flat();
    const numbers = answers.map((answer) => ("seq" in answer ? answer.seq : -1));
    expect([...numbers].sort((a, b) => a - b)).toEqual(
      Array.from({ length: 36 }, (_, i) => before + 1 + i),
    );
    expect((await logged(before)).map((row) => row.seq)).toEqual(
      Array.from({ length: 36 }, (_, i) => before + 1 + i),
    );
  });

  it("stores once when the same batch comes twice at the same time", async () => {
    const batch = [entry(), entry()];
    const [first, again] = await Promise.all([send(batch), send(batch)]);
    expect(again).toEqual(first);
    const ids = (await logged()).map((row) => row.id);
    expect(ids.filter((id) => id === batch[0]?.id)).toHaveLength(1);
  });

  it("gives a reader everything after its cursor and nothing twice", async () => {
    const all = await logged();
    const middle = all[Math.floor(all.length / 2)]?.seq ?? 0;
    expect(await logged(middle)).toEqual(all.filter((row) => (row.seq ?? 0) > middle));
    expect(await logged(all.at(-1)?.seq)).toEqual([]);
  });

  it("folds to the same floor on the server as anywhere", async () => {
    const session = await readSession(coach, team.sessionId);
    if (!session.ok) throw new Error(session.message);
    const floor = reduceFloor(session.value.frozen, session.value.entries);
    expect(floor.racks[0]?.lifters[0]?.sets[0]?.stage).toBe("running");
    expect(floor.setAside).toEqual([]);
  });
});

describe("telling", () => {
  it("notifies with identifiers and a number, and no content", async () => {
    const client = postgres(process.env.DATABASE_URL ?? "", { max: 1 });
    const heard: string[] = [];
    await client.listen("sprezza_log", (payload) => heard.push(payload));
    const [answer] = await send([entry()]);
    await expect.poll(() => heard.length).toBeGreaterThan(0);
    expect(JSON.parse(heard.at(-1) ?? "{}")).toEqual({
      team: team.teamId,
      session: team.sessionId,
      seq: answer && "seq" in answer ? answer.seq : -1,
    });
    await client.end();
  });
});

describe("scope", () => {
  const rack = (patch: Partial<Extract<Principal, { kind: "rack" }>>): Principal => ({
    kind: "rack",
    deviceId: randomUUID(),
    teamId: team.teamId,
    roomId: team.roomId,
    rackId: team.rackId,
    name: "Tablet",
    revokedAt: undefined,
    ...patch,
  });

  it("lets a tablet write in its own room only", async () => {
    expect((await send([entry()], rack({})))[0]).toMatchObject({ status: "stored" });
    const elsewhere = await appendEntries(rack({ roomId: randomUUID() }), team.sessionId, [
      entry(),
    ]);
    expect(elsewhere).toMatchObject({ ok: false, code: "no-session" });
    expect(
      await readEntriesAfter(rack({ roomId: randomUUID() }), team.sessionId, 0),
    ).toBeUndefined();
  });

  it("hides a session from another team", async () => {
    const other = await makeSecondTeam(ownerUrl, "Other Log Team");
    const stranger: Principal = { ...coach, teamId: other.teamId } as Principal;
    expect(await appendEntries(stranger, team.sessionId, [entry()])).toMatchObject({ ok: false });
    expect(await readSession(stranger, team.sessionId)).toMatchObject({ ok: false });
  });
});
