import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { RUNGS } from "../../../core/boxsquat/ladder";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { keepCoachValue } from "../library/plan-library.server";
import { keepLadderGroup, markRung, readBoxBoard } from "./box-ladder.server";
import { readAthlete } from "./read-athlete.server";

let team: SecondTeam;
let strangers: SecondTeam;
let coach: Principal;
let squadId = "";
const principal = (of: SecondTeam): Principal => ({
  kind: "person",
  userId: "u",
  teamId: of.teamId,
  role: "coach",
  name: "Ladder Coach",
  athleteId: undefined,
});

beforeAll(async () => {
  const url = process.env.OWNER_DATABASE_URL ?? "";
  team = await makeSecondTeam(url, "Ladder Team");
  strangers = await makeSecondTeam(url, "Ladder Strangers");
  coach = principal(team);
  squadId = (await readBoxBoard(coach, "")).squad?.id ?? "";
});
afterAll(closeDatabases);

const board = () => readBoxBoard(coach, squadId);
const mark = (rungId: string, outcome: "passed" | "back", note = "") =>
  markRung(coach, { athleteIds: [team.athleteId], rungId: rungId as "chair", outcome, note });

describe("a squad on the teaching ladder", () => {
  it("has no gate before it begins, and everybody on the first rung", async () => {
    const found = await board();
    expect(found.group).toBeUndefined();
    expect(found.people).toMatchObject([{ rungId: RUNGS[0]?.id, ready: false, backs: 0 }]);
  });

  it("counts weeks from the day it began, and asks for the share that must be ready", async () => {
    await keepLadderGroup(coach, { squadId, startedOn: "2026-02-20", early: "no", note: "" });
    const { group } = await board();
    expect(group?.gate).toMatchObject({
      total: 1,
      needed: 1,
      ready: 0,
      daysGone: 18,
      daysNeeded: 14,
      open: false,
    });
  });

  it("goes up rung by rung, and back one with a note that stays", async () => {
    for (const rung of RUNGS.slice(0, 3)) await mark(rung.id, "passed");
    expect((await board()).people[0]).toMatchObject({ rungId: RUNGS[3]?.id, backs: 0 });
    await mark(RUNGS[1]?.id ?? "", "back", "Rocked twice");
    expect((await board()).people[0]).toMatchObject({
      rungId: RUNGS[1]?.id,
      backs: 1,
      last: { date: "2026-03-10", by: "Ladder Coach", note: "Rocked twice" },
    });
    const athlete = await readAthlete(coach, team.athleteId);
    expect(athlete.ok && athlete.value.box.ladder?.rung).toBe(RUNGS[1]?.name);
  });

  it("opens when everybody needed is ready; a coach's earlier word carries its reason", async () => {
    await keepLadderGroup(coach, {
      squadId,
      startedOn: "2026-03-05",
      early: "yes",
      note: "Camp starts",
    });
    expect((await board()).group).toMatchObject({
      early: true,
      note: "Camp starts",
      by: "Ladder Coach",
      gate: { open: true, early: true, why: "A coach decided earlier." },
    });
    await keepLadderGroup(coach, { squadId, startedOn: "2026-02-20", early: "no", note: "" });
    for (const rung of RUNGS.slice(1)) await mark(rung.id, "passed");
    expect((await board()).group?.gate).toMatchObject({ ready: 1, open: true, early: false });
  });

  it("takes the team's own number of weeks", async () => {
    await keepCoachValue(coach, { key: "gateWeeks", value: 4 });
    expect((await board()).group?.gate).toMatchObject({ daysNeeded: 28, open: false });
    await keepCoachValue(coach, { key: "gateWeeks", value: undefined });
    expect((await board()).group?.gate.open).toBe(true);
  });

  it("cannot be marked or begun by another team, nor for nobody", async () => {
    const theirs = principal(strangers);
    expect(
      await markRung(theirs, {
        athleteIds: [team.athleteId],
        rungId: "chair",
        outcome: "back",
        note: "",
      }),
    ).toMatchObject({ ok: false, code: "no-athlete" });
    expect(
      await keepLadderGroup(theirs, { squadId, startedOn: "2026-03-01", early: "no", note: "" }),
    ).toMatchObject({ ok: false, code: "no-squad" });
    expect(
      await markRung(coach, {
        athleteIds: [randomUUID()],
        rungId: "chair",
        outcome: "passed",
        note: "",
      }),
    ).toMatchObject({ ok: false, code: "no-athlete" });
    expect((await board()).people[0]?.ready).toBe(true);
  });
});
