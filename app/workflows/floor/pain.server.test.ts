import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ENTRY_SCHEMA_VERSION, type EntryBody } from "../../../core/floor/entries";
import { reduceFloor } from "../../../core/floor/state";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { now } from "../../platform/clock.server";
import { closeDatabases } from "../../platform/database.server";
import type { Principal, Role } from "../../platform/rights";
import { readAthlete } from "../athletes/read-athlete.server";
import { showReasons } from "../athletes/save-limits.server";
import { appendEntries } from "./append-entries.server";
import { readSession } from "./read-session.server";

let team: SecondTeam;
beforeAll(async () => {
  team = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Pain Team");
});
afterAll(closeDatabases);

const person = (role: Role): Principal => ({
  kind: "person",
  userId: role,
  teamId: team.teamId,
  role,
  name: `The ${role}`,
  athleteId: undefined,
});
const rack = (): Principal => ({
  kind: "rack",
  deviceId: randomUUID(),
  teamId: team.teamId,
  roomId: team.roomId,
  rackId: team.rackId,
  name: "Tablet",
  revokedAt: undefined,
});
const at = () => ({
  athleteId: team.athleteId,
  slotId: "main",
  stationId: team.rackId,
  setKey: "w1.s1.1",
});
let seq = 0;
const entry = (body: EntryBody) => ({
  id: randomUUID(),
  deviceId: "0198c0de-0000-7000-8000-000000000001",
  bootId: "0198c0de-0000-7000-8000-000000000002",
  deviceSeq: ++seq,
  monoMs: 1000 * seq,
  wallTime: now().toISOString(),
  supersedes: [],
  schemaVersion: ENTRY_SCHEMA_VERSION,
  body,
});
async function send(who: Principal, one: ReturnType<typeof entry>) {
  const sent = await appendEntries(who, team.sessionId, [one]);
  if (!sent.ok) throw new Error(sent.message);
  return sent.value.answers[0];
}
const limits = async (who: Principal) => {
  const page = await readAthlete(who, team.athleteId);
  if (!page.ok) throw new Error(page.message);
  return page.value.limits;
};

describe("a pain flagged at a rack", () => {
  const said = () => entry({ kind: "pain", ...at(), place: "knee" });
  let first: ReturnType<typeof entry>;

  it("is stored once, and its place is in no log that anybody reads", async () => {
    first = said();
    expect(await send(rack(), first)).toMatchObject({ status: "stored" });
    expect(await send(rack(), first)).toMatchObject({ status: "stored" });
    for (const who of [person("assistant"), person("coach"), rack()]) {
      const session = await readSession(who, team.sessionId);
      if (!session.ok) throw new Error(session.message);
      expect(JSON.stringify(session.value)).not.toMatch(/knee/i);
      const floor = reduceFloor(session.value.frozen, session.value.entries);
      expect(floor.racks[0]?.lifters[0]?.held).toEqual([first.id]);
    }
  });

  it("holds in every later session as a limit, whose reason coaches read", async () => {
    const [limit] = await limits(person("assistant"));
    expect(limit).toMatchObject({
      id: first.id,
      instruction: "Held by coach: no heavier on bench.",
      lift: "bench",
      liftedOn: undefined,
    });
    expect(JSON.stringify(await limits(person("assistant")))).not.toMatch(/knee/i);
    expect(await showReasons(person("assistant"), team.athleteId)).toMatchObject({ ok: false });
    const reasons = await showReasons(person("coach"), team.athleteId);
    expect(reasons).toMatchObject({
      value: [{ reason: "Pain flagged at the rack: knee.", kind: "injury" }],
    });
  });

  it("is over by a coach's word only, and the limit is lifted with it", async () => {
    const word = () => entry({ kind: "pain-over", of: [first.id], ...at() });
    expect(await send(rack(), word())).toMatchObject({ status: "refused" });
    expect(await send(person("assistant"), word())).toMatchObject({ status: "refused" });
    expect((await limits(person("coach")))[0]?.liftedOn).toBeUndefined();
    expect(await send(person("coach"), word())).toMatchObject({ status: "stored" });
    expect((await limits(person("coach")))[0]).toMatchObject({ liftedBy: "The coach" });
  });

  it("of somebody who is not in the session makes no limit", async () => {
    const stranger = entry({ kind: "pain", ...at(), athleteId: randomUUID(), place: "back" });
    expect(await send(rack(), stranger)).toMatchObject({ status: "stored" });
    expect((await limits(person("coach"))).map((one) => one.id)).toEqual([first.id]);
  });
});
