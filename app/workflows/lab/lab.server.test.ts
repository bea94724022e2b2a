import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { AnswerForm } from "../../forms/lab";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { readAthlete } from "../athletes/read-athlete.server";
import { saveSetup } from "../athletes/save-facts.server";
import { readPlan } from "../plan/read-plan.server";
import { readBench, readBenchFacts } from "./read-bench.server";
import { removeAnswer, sendAnswer } from "./send-answer.server";

let team: SecondTeam;
let other: SecondTeam;
const coachOf = (teamId: string): Principal => ({
  kind: "person",
  userId: "u",
  teamId,
  role: "coach",
  name: "Lab Coach",
  athleteId: undefined,
});

beforeAll(async () => {
  team = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Lab Team");
  other = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Other Lab Team");
});
afterAll(closeDatabases);

const facts = async () => {
  const found = await readBenchFacts(coachOf(team.teamId), team.athleteId, team.variantId);
  if (!found.ok) throw new Error(found.message);
  return found.value;
};

describe("the bench", () => {
  it("holds this team's racks, people and plans only", async () => {
    const bench = await readBench(coachOf(team.teamId));
    expect(bench.racks.map((one) => one.id)).toEqual([team.rackId]);
    expect(bench.athletes.map((one) => one.id)).toEqual([team.athleteId]);
    expect(bench.plans.map((one) => one.id)).toEqual([team.planId]);
  });

  it("is filled with what is known, measured heights before estimated ones", async () => {
    const coach = coachOf(team.teamId);
    expect(await facts()).toMatchObject({ maxKg: 100, bottomM: undefined });
    const page = await readAthlete(coach, team.athleteId);
    if (!page.ok) throw new Error(page.message);
    const kept = { hook: "", safety: "", grip: "", stance: "", note: "", startHeightCm: undefined };
    await saveSetup(coach, team.athleteId, {
      variantId: team.variantId,
      ...kept,
      bottomM: 0.5,
      lockoutM: 0.9,
      boxSeatCm: undefined,
      boxCreaseCm: undefined,
    });
    expect(await facts()).toMatchObject({ bottomM: 0.5, lockoutM: 0.9, heightsMeasured: true });
  });

  it("gives nothing of another team's athlete", async () => {
    const found = await readBenchFacts(coachOf(other.teamId), team.athleteId, other.variantId);
    expect(found.ok).toBe(false);
  });
});

describe("an answer that is sent", () => {
  const answer = (target: string) =>
    AnswerForm.parse({ tool: "plates", state: "max=100&load=60", answer: "60 kg", target });

  it("stands on the athlete's page and on the plan with the way back, and goes again", async () => {
    const coach = coachOf(team.teamId);
    expect(await sendAnswer(coach, answer(`athlete:${team.athleteId}`))).toMatchObject({
      ok: true,
    });
    expect(await sendAnswer(coach, answer(`plan:${team.planId}`))).toMatchObject({ ok: true });
    const page = await readAthlete(coach, team.athleteId);
    const plan = await readPlan(coach, team.planId);
    if (!page.ok || !plan.ok) throw new Error("not read");
    expect(page.value.answers).toMatchObject([
      { address: "/lab?tool=plates&max=100&load=60", answer: "60 kg", by: "Lab Coach" },
    ]);
    expect(plan.value.answers).toHaveLength(1);
    await removeAnswer(coach, page.value.answers[0]?.id ?? "");
    const after = await readAthlete(coach, team.athleteId);
    expect(after.ok && after.value.answers).toEqual([]);
  });

  it("does not reach another team", async () => {
    const sent = await sendAnswer(coachOf(other.teamId), answer(`athlete:${team.athleteId}`));
    expect(sent).toMatchObject({ ok: false, code: "no-athlete" });
    await removeAnswer(coachOf(other.teamId), team.planId);
  });
});
