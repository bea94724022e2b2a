import { randomUUID } from "node:crypto";
import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { readPlan } from "./read-plan.server";

let team: SecondTeam;
let coach: Principal;
let admin: postgres.Sql;

beforeAll(async () => {
  team = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Sharing Team");
  coach = {
    kind: "person",
    userId: "nobody",
    teamId: team.teamId,
    role: "coach",
    name: "Sharing Coach",
    athleteId: undefined,
  };
  admin = postgres((process.env.ADMIN_DATABASE_URL ?? "").replace(/\/postgres$/, "/sprezza_test"), {
    max: 1,
    onnotice: () => {},
  });
  await admin`
    UPDATE plan SET block = jsonb_set(block, '{days,d1,startAt}', '"17:30"') WHERE id = ${team.planId}`;
});
afterAll(async () => {
  await admin.end();
  await closeDatabases();
});

/** The same plan once more, for a squad. */
async function copyFor(squadId: string): Promise<void> {
  await admin`
    INSERT INTO plan (team_id, id, name, squad_id, room_id, start_date, block, metric, rounding, updated_by, updated_at)
    SELECT team_id, ${randomUUID()}, name || ' again', ${squadId}, room_id, start_date, block, metric, rounding,
      updated_by, updated_at FROM plan WHERE id = ${team.planId}`;
}

const taken = async () => {
  const page = await readPlan(coach, team.planId);
  if (!page.ok) throw new Error(page.message);
  return page.value.checks
    .filter((one) => one.code.startsWith("room-taken"))
    .map((one) => one.text);
};

describe("two plans in one room at one time", () => {
  it("are no matter within a squad: a block that was split off trains beside its own", async () => {
    const [row] = await admin`SELECT squad_id FROM plan WHERE id = ${team.planId}`;
    await copyFor(row?.squad_id);
    expect(await taken()).toEqual([]);
  });

  it("are said where they are of two squads, with both times", async () => {
    const squadId = randomUUID();
    await admin`
      INSERT INTO squad (team_id, id, name, sport, room_id, position)
      SELECT team_id, ${squadId}, 'Others', 'judo', room_id, 9 FROM plan WHERE id = ${team.planId}`;
    await copyFor(squadId);
    const [text, ...more] = await taken();
    expect(text).toMatch(/wanted from 17:30 to \d\d:\d\d, and .* again, Others has it from 17:30/);
    expect(more).toEqual([]);
  });
});
