import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ENTRY_SCHEMA_VERSION, type EntryBody } from "../../../core/floor/entries";
import { liftsOf } from "../../../core/floor/frozen";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { foundWeights } from "../../../db/queries/box.server";
import { faultsTagged, frozenOf } from "../../../db/queries/sessions.server";
import { closeDatabases, inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { appendEntries } from "../floor/append-entries.server";
import { finishSession } from "../floor/end-session.server";
import { startSession } from "../floor/start-session.server";
import { boxHistories, boxHistory } from "../lifters/box-history.server";
import { decideCycle, readBoxCycle } from "../review/box-cycle.server";
import { readBoxCard } from "./box-card.server";
import { keepBoxSetup, keepFoundWeight, noteFault } from "./save-box.server";

const ownerUrl = process.env.OWNER_DATABASE_URL ?? "";
let team: SecondTeam;
let strangers: SecondTeam;
let coach: Principal;
let setKey = "";
let sessionId = "";
let truePercent: number | undefined;

const principal = (of: SecondTeam): Principal => ({
  kind: "person",
  userId: "u",
  teamId: of.teamId,
  role: "coach",
  name: "Box Coach",
  athleteId: undefined,
});

/** The second team's lift, turned into a box squat, and its second week on the floor. */
beforeAll(async () => {
  team = await makeSecondTeam(ownerUrl, "Box Team");
  strangers = await makeSecondTeam(ownerUrl, "Box Strangers");
  coach = principal(team);
  const owner = postgres(ownerUrl, { max: 1 });
  try {
    await owner.begin(async (sql) => {
      await sql`SELECT set_config('app.team', ${team.teamId}, true)`;
      await sql`UPDATE lift_variant SET lift = 'box-squat' WHERE id = ${team.variantId}`;
    });
  } finally {
    await owner.end();
  }
  await finishSession(coach, team.sessionId);
  const present = [team.athleteId];
  const started = await startSession(coach, {
    days: [{ planId: team.planId, week: 2 }],
    present,
    asDraft: true,
  });
  if (!started.ok) throw new Error(started.message);
  sessionId = started.value.sessionId;
  const frozen = await inTeam(coach, (tx) => frozenOf(tx, sessionId));
  const rack = frozen && liftsOf(frozen.frozen)[0]?.racks[0];
  const [set] = rack?.lifters[0]?.sets ?? [];
  if (!set) throw new Error("The session has a set.");
  setKey = set.key;
  truePercent = set.truePercent;
});
afterAll(closeDatabases);

let deviceSeq = 0;
const device = { deviceId: randomUUID(), bootId: randomUUID() };

async function log(body: EntryBody, supersedes: string[] = []): Promise<string> {
  deviceSeq++;
  const id = randomUUID();
  const answer = await appendEntries(coach, sessionId, [
    {
      id,
      ...device,
      deviceSeq,
      monoMs: 1000 * deviceSeq,
      wallTime: new Date(Date.parse("2026-03-10T16:30:00Z") + 1000 * deviceSeq).toISOString(),
      supersedes,
      schemaVersion: ENTRY_SCHEMA_VERSION,
      body,
    },
  ]);
  if (!answer.ok || answer.value.answers[0]?.status !== "stored")
    throw new Error(JSON.stringify(answer));
  return id;
}

const at = () => ({ athleteId: team.athleteId, slotId: "main", stationId: team.rackId, setKey });
const history = () => inTeam(coach, (tx) => boxHistory(tx, team.athleteId));

describe("what an athlete's box squats came to", () => {
  it("counts sets done, and each fault with the share of the max it was seen at", async () => {
    await log({ kind: "rep", ...at(), rep: 1, mcvMps: 0.9, outcome: "counted", source: "typed" });
    await log({ kind: "fault", ...at(), fault: "Knees in", cut: false });
    await log({ kind: "set-done", ...at(), loadKg: 40, endedBy: "hand", cut: true });
    const { depth, faults } = await history();
    expect(depth).toMatchObject([{ sets: 1, depth: "full" }]);
    expect(faults).toMatchObject([{ fault: "Knees in", times: 1, cured: false }]);
    const tagged = await inTeam(coach, (tx) => faultsTagged(tx, [team.athleteId]));
    expect(tagged.map((one) => one.percent)).toEqual([truePercent]);
    expect(truePercent).toBeGreaterThan(0);
  });

  it("is judged by the seat of its day, whatever is built today", async () => {
    const builtOver = async (overCm: number | null) => {
      const owner = postgres(ownerUrl, { max: 1 });
      await owner.begin(async (sql) => {
        await sql`SELECT set_config('app.team', ${team.teamId}, true)`;
        await sql`
          UPDATE training_session SET frozen = jsonb_set(frozen,
            '{slots,0,groups,0,lifters,0,box}', ${sql.json(overCm === null ? {} : { overCm })}, true)
          WHERE id = ${sessionId}`;
      });
      await owner.end();
    };
    const depthsIf = async (todayIsHigh: boolean) =>
      (await inTeam(coach, (tx) => boxHistory(tx, team.athleteId, todayIsHigh))).depth.map(
        (one) => one.depth,
      );
    await builtOver(6);
    expect(await depthsIf(false)).toContain("high-box");
    await builtOver(1);
    expect(await depthsIf(true)).not.toContain("high-box");
    // A session from before the seat was kept goes by today's.
    await builtOver(null);
    expect(await depthsIf(true)).toContain("high-box");
  });

  it("a tag that was taken back does not count", async () => {
    const wrong = await log({ kind: "fault", ...at(), fault: "Head ducked", cut: false });
    expect((await history()).faults.map((one) => one.fault)).toContain("Head ducked");
    await log({ kind: "void" }, [wrong]);
    expect((await history()).faults.map((one) => one.fault)).toEqual(["Knees in"]);
  });

  it("a fault written off the floor stands beside those tagged at the rack", async () => {
    expect((await noteFault(coach, team.athleteId, { fault: "Bouncing", percent: 62.5 })).ok).toBe(
      true,
    );
    expect((await history()).faults.map((one) => one.fault).sort()).toEqual([
      "Bouncing",
      "Knees in",
    ]);
  });

  it("nothing of it is another team's", async () => {
    const seen = await inTeam(principal(strangers), (tx) =>
      boxHistories(tx, [team.athleteId, strangers.athleteId]),
    );
    expect([...seen.values()]).toEqual([
      { depth: [], faults: [] },
      { depth: [], faults: [] },
    ]);
    expect(await readBoxCard(principal(strangers), team.athleteId)).toMatchObject({ ok: false });
  });
});

describe("a set-up on the box", () => {
  const form = () => ({
    variantId: team.variantId,
    styleId: "rock-back",
    contact: "weight" as const,
    distanceCm: 20,
    cues: "",
    styleNote: "",
    freeSquatSigned: false,
  });

  it("is refused in a style that is off by default, until a note sets it aside", async () => {
    const card = await readBoxCard(coach, team.athleteId);
    if (!card.ok) throw new Error(card.message);
    const rocking = card.value.styles.find((one) => one.verdict === "refused");
    if (!rocking) throw new Error("One style is refused by default.");
    const input = { ...form(), styleId: rocking.id };
    expect(await keepBoxSetup(coach, team.athleteId, input)).toMatchObject({
      ok: false,
      code: "refused",
    });
    const kept = await keepBoxSetup(coach, team.athleteId, { ...input, styleNote: "Drill only" });
    expect(kept.ok).toBe(true);
    const again = await readBoxCard(coach, team.athleteId);
    expect(again.ok && again.value.box).toMatchObject({
      styleNote: "Drill only",
      rehearsedOn: null,
      by: "Box Coach",
    });
  });
});

describe("a found speed weight", () => {
  it("is kept as it was written, passes the light doubles, and the newest holds", async () => {
    const keep = (amount: number) =>
      keepFoundWeight(coach, team.athleteId, {
        variantId: team.variantId,
        load: { amount, unit: "lb" },
        note: "",
      });
    expect(await keep(110)).toMatchObject({ ok: true });
    expect(await keep(120)).toMatchObject({ ok: true });
    const rows = await inTeam(coach, (tx) => foundWeights(tx, [team.athleteId]));
    expect(rows).toMatchObject([
      { athleteId: team.athleteId, variantId: team.variantId, load: { amount: 120, unit: "lb" } },
    ]);
    const card = await readBoxCard(coach, team.athleteId);
    expect(card.ok && card.value.ladder.holding).toMatchObject({
      load: { amount: 120, unit: "lb" },
      week: 1,
    });
    expect(card.ok && card.value.ladder.rungId).toBe("speed-weight");
  });

  it("belongs to a box squat of the team, and to nobody of another", async () => {
    const load = { amount: 50, unit: "kg" as const };
    const at = (athleteId: string, variantId: string) =>
      keepFoundWeight(coach, athleteId, { variantId, load, note: "" });
    expect(await at(team.athleteId, strangers.variantId)).toMatchObject({ code: "no-variant" });
    expect(await at(strangers.athleteId, team.variantId)).toMatchObject({ ok: false });
  });
});

describe("a cycle on the box", () => {
  const asked = () => ({ planId: team.planId, slotId: "main", athleteId: team.athleteId });

  it("shows the week that was done, with its fault, and asks for more before it proposes", async () => {
    const page = await readBoxCycle(coach, asked());
    expect(page.cycle).toMatchObject({ planId: team.planId, slotId: "main" });
    const [first, second] = page.athlete?.review.weeks ?? [];
    expect(first).toMatchObject({ week: 1, present: false, doneSets: 0 });
    expect(second).toMatchObject({
      week: 2,
      present: true,
      doneSets: 1,
      cutSets: 1,
      loadKg: 40,
      faults: [{ fault: "Knees in", times: 1 }],
    });
    expect(page.athlete?.review.proposal).toBe("not-enough");
    expect(page.people).toMatchObject([{ id: team.athleteId, there: 1 }]);
  });

  it("keeps a decision with its evidence; one on a cycle of another team is refused", async () => {
    const made = await decideCycle(coach, { ...asked(), decision: "hold", note: "Knees first" });
    expect(made).toMatchObject({ ok: true });
    const [one] = (await readBoxCycle(coach, asked())).athlete?.decisions ?? [];
    expect(one).toMatchObject({ decision: "hold", note: "Knees first", by: "Box Coach" });
    expect(one?.evidence.join(" ")).toContain("Knees in");
    const theirs = await decideCycle(principal(strangers), {
      ...asked(),
      decision: "raise",
      note: "",
    });
    expect(theirs).toMatchObject({ ok: false, code: "no-cycle" });
  });
});
