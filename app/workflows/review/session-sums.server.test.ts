import { randomUUID } from "node:crypto";
import fc from "fast-check";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ENTRY_SCHEMA_VERSION, type EntryBody } from "../../../core/floor/entries";
import { reduceFloor } from "../../../core/floor/state";
import { sumSession } from "../../../core/review/session-sum";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { entriesAfter, frozenOf } from "../../../db/queries/sessions.server";
import { sumOfSession } from "../../../db/queries/sums.server";
import { closeDatabases, inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { appendEntries } from "../floor/append-entries.server";
import { finishSession } from "../floor/end-session.server";
import { bringUpSums, overSums, sumOne } from "../lifters/session-sums.server";
import { readReview } from "./read-review.server";

const url = process.env.OWNER_DATABASE_URL ?? "";
let team: SecondTeam;
let coach: Principal;
let owner: postgres.Sql;

beforeAll(async () => {
  team = await makeSecondTeam(url, "Sums Team");
  owner = postgres((process.env.ADMIN_DATABASE_URL ?? "").replace(/\/postgres$/, "/sprezza_test"), {
    max: 1,
    onnotice: () => {},
  });
  coach = {
    kind: "person",
    userId: "nobody",
    teamId: team.teamId,
    role: "coach",
    name: "Sums Coach",
    athleteId: undefined,
  };
});
afterAll(async () => {
  await owner.end();
  await closeDatabases();
});

let deviceSeq = 0;
const device = { deviceId: randomUUID(), bootId: randomUUID() };
async function log(bodies: EntryBody[], supersedes: string[] = []): Promise<string[]> {
  const entries = bodies.map((body) => {
    deviceSeq++;
    return {
      id: randomUUID(),
      ...device,
      deviceSeq,
      monoMs: 1000 * deviceSeq,
      wallTime: new Date(Date.parse("2026-03-10T16:20:00Z") + 1000 * deviceSeq).toISOString(),
      supersedes,
      schemaVersion: ENTRY_SCHEMA_VERSION,
      body,
    };
  });
  const clock = { ...device, monoMs: 600_000, wallMs: Date.parse("2026-03-10T16:30:00Z") };
  const answer = await appendEntries(coach, team.sessionId, entries, clock);
  if (!answer.ok) throw new Error(answer.message);
  return entries.map((one) => one.id);
}

const at = (n: number) => ({
  athleteId: team.athleteId,
  slotId: "main",
  stationId: team.rackId,
  setKey: `w1.s1.${n}`,
});

/** The sum as the whole log gives it, worked out anew. */
const afresh = () =>
  inTeam(coach, async (tx) => {
    const row = await frozenOf(tx, team.sessionId);
    if (!row) throw new Error("the session is there");
    const entries = await entriesAfter(tx, team.sessionId, 0);
    const sum = sumSession(row.frozen, reduceFloor(row.frozen, entries));
    return JSON.parse(JSON.stringify(sum)) as typeof sum;
  });

const kept = () => inTeam(coach, (tx) => sumOfSession(tx, team.sessionId));

describe("sums of sessions", () => {
  it("are behind from the start of a session, and whenever its log goes on", async () => {
    expect((await kept())?.seq).toBeUndefined();
    expect(await bringUpSums(coach)).toBeGreaterThan(0);
    expect(await kept()).toMatchObject({ behind: false, seq: 0 });
    expect(await bringUpSums(coach)).toBe(0);
    await log([
      { kind: "rep", ...at(1), rep: 1, mcvMps: 0.8, outcome: "counted", source: "typed" },
    ]);
    expect((await kept())?.behind).toBe(true);
    // A session that runs is not worked out with every rep.
    expect(await bringUpSums(coach)).toBe(0);
    await sumOne(coach, team.sessionId);
    expect(await kept()).toMatchObject({ behind: false });
  });

  it("are brought up before a page is read over them, and the page is read once", async () => {
    const read = () => {
      let times = 0;
      return overSums(coach, async (tx, more) => {
        times++;
        return { behind: (await sumOfSession(tx, team.sessionId))?.behind, more, times };
      });
    };
    await inTeam(coach, (tx) =>
      tx.execute(`UPDATE session_sum SET behind = true, summed_at = NULL
        WHERE session_id = '${team.sessionId}'`),
    );
    const fresh = { behind: false, more: false, times: 1 };
    expect(await read()).toEqual(fresh);
    expect(await read()).toEqual(fresh);
  });

  it("equal what the whole log gives, entry by entry, corrections and faults among them", async () => {
    const word = fc.oneof(
      fc.record({
        what: fc.constant("rep" as const),
        set: fc.integer({ min: 1, max: 3 }),
        rep: fc.integer({ min: 1, max: 4 }),
        mcvMps: fc.integer({ min: 300, max: 1200 }).map((mm) => mm / 1000),
      }),
      fc.record({ what: fc.constant("done" as const), set: fc.integer({ min: 1, max: 3 }) }),
      fc.record({ what: fc.constant("fault" as const), set: fc.integer({ min: 1, max: 3 }) }),
      fc.record({ what: fc.constant("void" as const) }),
    );
    const words = fc.sample(word, { numRuns: 60, seed: 36 });
    const sent: string[] = [];
    for (let i = 0; i < words.length; i += 4) {
      for (const one of words.slice(i, i + 4)) {
        if (one.what === "rep")
          sent.push(
            ...(await log([
              {
                kind: "rep",
                ...at(one.set),
                rep: one.rep,
                mcvMps: one.mcvMps,
                outcome: "counted",
                source: "typed",
              },
            ])),
          );
        else if (one.what === "done")
          sent.push(
            ...(await log([
              { kind: "set-done", ...at(one.set), loadKg: 40, endedBy: "hand", cut: false },
            ])),
          );
        else if (one.what === "fault")
          sent.push(
            ...(await log([
              { kind: "fault", ...at(one.set), fault: "Uneven lockout", cut: false },
            ])),
          );
        else {
          const last = sent.pop();
          if (last) await log([{ kind: "void" }], [last]);
        }
      }
      await sumOne(coach, team.sessionId);
      const now = await kept();
      const anew = await afresh();
      expect(now?.lines.map((line) => line.sum)).toEqual(anew.lines.map((line) => line.sum));
      expect(now?.facts).toMatchObject({
        slots: anew.slots,
        callsWaiting: anew.callsWaiting,
        callsDecided: anew.callsDecided,
      });
    }
  });

  it("write only the lines that changed, and never go back", async () => {
    const stamp = async () =>
      (await owner`SELECT xmin::text FROM work_sum WHERE session_id = ${team.sessionId}`)[0]?.xmin;
    const before = await stamp();
    await sumOne(coach, team.sessionId);
    expect(await stamp()).toBe(before);
    // A reader that was slow keeps nothing over a newer sum.
    await owner`UPDATE session_sum SET seq = 1000000 WHERE session_id = ${team.sessionId}`;
    await log([{ kind: "set-done", ...at(3), loadKg: 45, endedBy: "hand", cut: false }]);
    await log([{ kind: "fault", ...at(3), fault: "Bar off centre", cut: false }]);
    await sumOne(coach, team.sessionId);
    expect(await stamp()).toBe(before);
    await owner`UPDATE session_sum SET seq = 0 WHERE session_id = ${team.sessionId}`;
    await sumOne(coach, team.sessionId);
    expect(await stamp()).not.toBe(before);
  });

  it("hold no mark back that comes while they are worked out", async () => {
    // Somebody logs while a reader keeps the sum: whichever commits first, the mark stands.
    for (let i = 0; i < 10; i++)
      await Promise.all([
        sumOne(coach, team.sessionId),
        log([{ kind: "set-done", ...at(1 + (i % 3)), loadKg: 40, endedBy: "hand", cut: false }]),
      ]);
    const [row] = await owner`
      SELECT x.behind, x.seq::int, s.last_seq::int FROM session_sum x
      JOIN training_session s ON s.id = x.session_id AND s.team_id = x.team_id
      WHERE s.id = ${team.sessionId}`;
    expect(row?.behind).toBe(row?.seq < row?.last_seq);
  });

  it("take no page from the others where one session cannot be summed", async () => {
    await owner`SELECT set_config('app.team', ${team.teamId}, false)`;
    await owner`
      CREATE FUNCTION refuse_sum() RETURNS trigger LANGUAGE plpgsql AS
      $$ BEGIN RAISE EXCEPTION 'no'; END $$`;
    await owner`CREATE TRIGGER refuse_sum BEFORE INSERT OR UPDATE ON work_sum
      FOR EACH ROW EXECUTE FUNCTION refuse_sum()`;
    try {
      await log([{ kind: "fault", ...at(2), fault: "Knees in", cut: false }]);
      await owner`UPDATE session_sum SET summed_at = NULL WHERE session_id = ${team.sessionId}`;
      expect(await bringUpSums(coach)).toBeGreaterThan(0);
      expect((await kept())?.behind).toBe(true);
    } finally {
      await owner`DROP TRIGGER refuse_sum ON work_sum`;
      await owner`DROP FUNCTION refuse_sum()`;
    }
  });

  it("are up to date when a session has ended, and hold no name", async () => {
    expect((await finishSession(coach, team.sessionId)).ok).toBe(true);
    expect(await kept()).toMatchObject({ behind: false });
    const review = await readReview(coach, team.sessionId);
    expect(review.ok && review.value.review.lifters[0]?.name).toBe("Second Athlete");
    const [text] = await owner`
      SELECT string_agg(x.facts::text, '') || string_agg(w.sum::text, '') AS all_of_it
      FROM session_sum x JOIN work_sum w USING (team_id, session_id)
      WHERE x.session_id = ${team.sessionId}`;
    expect(text?.all_of_it).not.toContain("Second");
    const [plan] = await owner`
      SELECT plan_id, plan_slot_id, week FROM work_sum WHERE session_id = ${team.sessionId}`;
    expect(plan).toMatchObject({ plan_id: team.planId, plan_slot_id: "main", week: 1 });
  });
});
