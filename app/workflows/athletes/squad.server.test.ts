import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { LocalDate } from "../../../core/units/time";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { VariantForm } from "../../forms/library";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { startImport, takeImport } from "../data/import.server";
import { saveProfileTest } from "../lab/profile.server";
import { keepVariant, readLifts } from "../library/library.server";
import { readAthlete } from "./read-athlete.server";
import { readAthletes } from "./read-athletes.server";
import { readSquadProfiles } from "./read-squad-profiles.server";
import { saveCompetition, saveQuick } from "./save-facts.server";

let team: SecondTeam;
let coach: Extract<Principal, { kind: "person" }>;

beforeAll(async () => {
  team = await makeSecondTeam(process.env.OWNER_DATABASE_URL ?? "", "Squad Team");
  coach = {
    kind: "person",
    userId: randomUUID(),
    teamId: team.teamId,
    role: "owner",
    name: "Squad Coach",
    athleteId: undefined,
  };
});
afterAll(closeDatabases);

const variant = (over: Record<string, string>) =>
  VariantForm.parse({
    name: "Bench, paused",
    lift: "bench",
    bar: "straight",
    grip: "",
    stance: "",
    boxStyle: "",
    resistance: "",
    start: "top",
    baseKind: "ratio",
    baseId: team.variantId,
    systemMass: "bar",
    caution: "Spotter at the head.",
    ...over,
  });

describe("lift variants", () => {
  it("take their max through a ratio, unset until given, and say where the chain ends", async () => {
    const kept = await keepVariant(coach, variant({}));
    if (!kept.ok) throw new Error(kept.message);
    const resolved = async () => {
      const page = await readAthlete(coach, team.athleteId);
      if (!page.ok) throw new Error(page.message);
      return page.value.lifts.find((one) => one.id === kept.value.id)?.resolved;
    };
    expect(await resolved()).toMatchObject({ ok: false, reason: "no-ratio", at: "Bench, paused" });
    await keepVariant(coach, variant({ id: kept.value.id, ratio: "0,9" }));
    expect(await resolved()).toMatchObject({ viaBase: true, max: { kg: 90 } });

    expect(await keepVariant(coach, variant({ name: "bench, PAUSED" }))).toMatchObject({
      ok: false,
      code: "same-name",
    });
    const base = (await readLifts(coach)).find((one) => one.id === team.variantId);
    expect(
      await keepVariant(
        coach,
        variant({
          id: team.variantId,
          name: base?.name ?? "",
          baseKind: "shares",
          baseId: kept.value.id,
        }),
      ),
    ).toMatchObject({ ok: false, code: "circle" });
    expect(
      await keepVariant(coach, variant({ name: "Another", baseId: randomUUID() })),
    ).toMatchObject({ ok: false, code: "no-base" });
  });
});

describe("the squad", () => {
  it("shows what is edited in place, and the nearness of a competition", async () => {
    const at = { athleteId: team.athleteId };
    await saveQuick(coach, { ...at, field: "bodyMass", value: { amount: 170, unit: "lb" } });
    await saveQuick(coach, { ...at, field: "seasonPhase", value: "peak" });
    expect(
      await saveQuick(coach, { athleteId: randomUUID(), field: "goal", value: "sport" }),
    ).toMatchObject({ ok: false, code: "no-athlete" });
    await saveCompetition(coach, team.athleteId, { name: "Cup", date: "2026-03-20" });
    const [row] = (await readAthletes(coach)).rows;
    expect(row).toMatchObject({ seasonPhase: "peak", profileOn: undefined });
    expect(row?.bodyMassKg).toBeCloseTo(77.11, 2);
    // The test's clock stands on 10 March 2026 where it is set; otherwise the day has passed.
    if (process.env.SPREZZA_NOW) expect(row?.mark?.words).toBe("10 days to Cup");
  });

  it("lists the newest line of each, its age, and who is untested", async () => {
    const ask = () => readSquadProfiles(coach, { variantId: team.variantId, squadId: undefined });
    expect((await ask()).rows[0]?.test).toBeUndefined();
    const save = (date: LocalDate, points: number[][]) =>
      saveProfileTest(coach, {
        athleteId: team.athleteId,
        variantId: team.variantId,
        date,
        metric: "MCV",
        source: "typed",
        processing: "typed",
        addedKg: 0,
        note: "",
        override: "near the Cup",
        reps: points.map(([loadKg, velocityMps]) => ({
          loadKg: loadKg as number,
          velocityMps: velocityMps as number,
        })),
      });
    await save("2026-02-01", [
      [40, 1.2],
      [60, 1.0],
      [80, 0.8],
    ]);
    // The newest test gives no line: the one before still stands.
    await save("2026-02-20", [[60, 0.9]]);
    const [row] = (await ask()).rows;
    expect(row?.test).toMatchObject({ date: "2026-02-01", warnings: 2 });
    expect(row?.test?.l0Kg).toBeCloseTo(160, 9);
    expect(row?.test?.peakPower).toMatchObject({ measured: false, reached: true });
    expect(row?.test?.peakPower?.loadKg).toBeCloseTo(80, 9);
    const elsewhere = await readSquadProfiles(coach, {
      variantId: team.variantId,
      squadId: randomUUID(),
    });
    expect(elsewhere.rows).toEqual([]);
  });
});

describe("files", () => {
  it("keep the mapping by its header, the last one given", async () => {
    const take = (date: LocalDate, mapping: object) =>
      takeImport(coach, {
        kind: "reps",
        fileName: `${date}.csv`,
        metric: "MCV",
        processing: "imported",
        header: "a|b|c",
        mapping,
        tests: [
          {
            athleteId: team.athleteId,
            variantId: team.variantId,
            date,
            addedKg: 0,
            reps: [
              { loadKg: 40, velocityMps: 1.1 },
              { loadKg: 60, velocityMps: 0.9 },
            ],
          },
        ],
      });
    await take("2026-01-10", { load: 0, MCV: 1 });
    await take("2026-01-11", { load: 2, MCV: 1 });
    const start = await startImport(coach);
    expect(start.mappings).toEqual([{ header: "a|b|c", mapping: { load: 2, MCV: 1 } }]);
    expect(start.batches.map((one) => one.fileName)).toEqual(["2026-01-11.csv", "2026-01-10.csv"]);
    expect(start.athletes[0]?.bodyMassKg).toBeCloseTo(77.11, 2);
  });
});
