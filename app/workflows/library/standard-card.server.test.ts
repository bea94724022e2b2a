import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { confirmStandardCard, readStandardCard, saveStandardCard } from "./standard-card.server";

let team: SecondTeam;
let strangers: SecondTeam;
const person = (userId: string, name: string, of = team): Principal => ({
  kind: "person",
  userId,
  teamId: of.teamId,
  role: "coach",
  name,
  athleteId: undefined,
});

beforeAll(async () => {
  const url = process.env.OWNER_DATABASE_URL ?? "";
  team = await makeSecondTeam(url, "Card Team");
  strangers = await makeSecondTeam(url, "Card Strangers");
});
afterAll(closeDatabases);

describe("the staff's standard card", () => {
  it("is not there until somebody writes it", async () => {
    expect(await readStandardCard(person("a", "Ann"))).toEqual({
      card: undefined,
      confirmed: [],
      mine: false,
    });
    expect(await confirmStandardCard(person("a", "Ann"))).toMatchObject({ code: "no-card" });
  });

  it("is a version further with every change, and none without", async () => {
    const ann = person("a", "Ann");
    expect(await saveStandardCard(ann, ["Hips back"])).toMatchObject({ value: { version: 1 } });
    expect(await saveStandardCard(ann, ["Hips back"])).toMatchObject({ ok: false, code: "same" });
    expect(await saveStandardCard(ann, ["Hips back", "Full stop"])).toMatchObject({
      value: { version: 2 },
    });
    expect((await readStandardCard(ann)).card).toMatchObject({
      version: 2,
      cues: ["Hips back", "Full stop"],
      by: "Ann",
    });
  });

  it("is confirmed by each coach for themselves, and anew with a new version", async () => {
    const [ann, bo] = [person("a", "Ann"), person("b", "Bo")];
    await confirmStandardCard(ann);
    await confirmStandardCard(ann);
    expect((await readStandardCard(ann)).mine).toBe(true);
    expect((await readStandardCard(bo)).mine).toBe(false);
    await confirmStandardCard(bo);
    expect((await readStandardCard(bo)).confirmed.map((one) => one.by).sort()).toEqual([
      "Ann",
      "Bo",
    ]);
    await saveStandardCard(bo, ["Full stop"]);
    expect(await readStandardCard(ann)).toMatchObject({ confirmed: [], mine: false });
  });

  it("is its own team's", async () => {
    expect((await readStandardCard(person("a", "Ann", strangers))).card).toBeUndefined();
  });
});
