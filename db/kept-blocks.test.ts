import postgres from "postgres";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Connection, connect } from "./connection.server";
import { makeSecondTeam, type SecondTeam } from "./fixtures/second-team";
import { listPlans } from "./queries/plans.server";
import { withTeam } from "./team.server";

let team: SecondTeam;
let other: SecondTeam;
let admin: postgres.Sql;
let db: Connection;

beforeAll(async () => {
  const owner = process.env.OWNER_DATABASE_URL ?? "";
  team = await makeSecondTeam(owner, "Keeping Team");
  other = await makeSecondTeam(owner, "Other Keeping Team");
  admin = postgres((process.env.ADMIN_DATABASE_URL ?? "").replace(/\/postgres$/, "/sprezza_test"), {
    max: 1,
    onnotice: () => {},
  });
  db = connect(process.env.DATABASE_URL ?? "", 2);
});
afterAll(async () => {
  await admin.end();
  await db.close();
});

const weeksOf = async (teamId: string) =>
  (await withTeam(db.database, teamId, listPlans)).map((row) => row.plan.block.weeks);
const setWeeks = (sql: postgres.ISql, weeks: number) =>
  sql`UPDATE plan SET block = jsonb_set(block, '{weeks}', to_jsonb(${weeks}::int)) WHERE id = ${team.planId}`;

describe("blocks of plans that stay with the process", () => {
  it("are the same object until the row is written, and cannot be changed", async () => {
    const read = () => withTeam(db.database, team.teamId, listPlans);
    const [first] = await read();
    const [again] = await read();
    expect(again?.plan.block).toBe(first?.plan.block);
    expect(() => {
      if (first) first.plan.block.weeks = 99;
    }).toThrow(TypeError);
  });

  it("are read anew after any writing, one that counts no version too", async () => {
    for (const weeks of [7, 8, 9]) {
      await setWeeks(admin, weeks);
      expect(await weeksOf(team.teamId)).toEqual([weeks]);
    }
  });

  it("never show what another transaction took back, and both writings of one that did not", async () => {
    await setWeeks(admin, 10);
    const inside: number[][] = [];
    const run = (end: boolean) =>
      withTeam(db.database, team.teamId, async (tx) => {
        for (const weeks of [11, 12]) {
          await tx.execute(
            `UPDATE plan SET block = jsonb_set(block, '{weeks}', '${weeks}') WHERE id = '${team.planId}'`,
          );
          inside.push((await listPlans(tx)).map((row) => row.plan.block.weeks));
        }
        if (!end) throw new Error("taken back");
      });
    await expect(run(false)).rejects.toThrow("taken back");
    expect(await weeksOf(team.teamId)).toEqual([10]);
    await run(true);
    expect(inside).toEqual([[11], [12], [11], [12]]);
    expect(await weeksOf(team.teamId)).toEqual([12]);
  });

  it("come only to who may read the row", async () => {
    await weeksOf(team.teamId);
    const rows = await withTeam(db.database, other.teamId, listPlans);
    expect(rows.map((row) => row.plan.id)).toEqual([other.planId]);
  });
});
