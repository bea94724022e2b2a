import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type WrittenItem, writeGearItem } from "../../../core/gear/fields";
import { makeSecondTeam, type SecondTeam } from "../../../db/fixtures/second-team";
import { closeDatabases } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import {
  addRoom,
  exportRoom,
  hangPlates,
  importRoom,
  inspectBand,
  keepItem,
  readRoom,
  readRooms,
  renameRoom,
  shelveItem,
} from "./room.server";

const ownerUrl = process.env.OWNER_DATABASE_URL ?? "";
let team: SecondTeam;
let strangers: SecondTeam;
let coach: Principal;
let theirs: Principal;

const principal = (of: SecondTeam): Principal => ({
  kind: "person",
  userId: "u",
  teamId: of.teamId,
  role: "coach",
  name: "Gear Coach",
  athleteId: undefined,
});
beforeAll(async () => {
  team = await makeSecondTeam(ownerUrl, "Gear Team");
  strangers = await makeSecondTeam(ownerUrl, "Gear Strangers");
  coach = principal(team);
  theirs = principal(strangers);
});
afterAll(closeDatabases);

const BAND: WrittenItem = {
  kind: "band",
  name: "Green",
  count: "2",
  fields: { rest: "0.6", readings: "0.7 4, 1.0 13, 1.3 20" },
};
async function room(id = team.roomId) {
  const found = await readRoom(coach, id);
  if (!found.ok) throw new Error(found.message);
  return found.value;
}
const piece = async (kind: string, name: string, id = team.roomId) =>
  (await room(id)).items.find((one) => one.kind === kind && one.name === name);

describe("a room and what stands in it", () => {
  it("says what each rack can build, lightest to heaviest", async () => {
    const [hall] = await readRooms(coach);
    expect(hall).toMatchObject({ name: "Hall", zone: "UTC" });
    // A bar of 20 kg and four pairs of tens: 20, 40, 60, 80, 100.
    expect(hall?.builds).toMatchObject([{ number: 1, totals: 5, lightestKg: 20, heaviestKg: 100 }]);
  });

  it("takes a piece with its readings, and names every wrong field", async () => {
    expect(await keepItem(coach, team.roomId, { id: "", written: BAND })).toMatchObject({
      ok: true,
      value: { names: ["Green"] },
    });
    expect((await piece("band", "Green"))?.count).toBe(2);
    const wrong = await keepItem(coach, team.roomId, {
      id: "",
      written: { ...BAND, name: "Red", fields: { rest: "far", readings: "0.7" } },
    });
    expect(wrong).toMatchObject({ ok: false, code: "fields" });
    expect(Object.keys(wrong.problems ?? {}).sort()).toEqual(["readings", "rest"]);
    expect(await piece("band", "Red")).toBeUndefined();
  });

  it("holds no second piece of a name, whatever its case", async () => {
    expect(
      await keepItem(coach, team.roomId, { id: "", written: { ...BAND, name: "green" } }),
    ).toMatchObject({ ok: false, code: "same-name" });
  });

  it("describes several racks in one form, each on a bar that is there", async () => {
    const rack = await piece("rack", "1");
    if (!rack) throw new Error("The hall has a rack.");
    const written = { ...writeGearItem(rack), name: "2-4" };
    expect(await keepItem(coach, team.roomId, { id: "", written })).toMatchObject({
      ok: true,
      value: { names: ["2", "3", "4"] },
    });
    expect((await room()).builds.map((one) => one.number)).toEqual([1, 2, 3, 4]);
    const gone = { ...written, name: "5", fields: { ...written.fields, bar: "Gone" } };
    expect(await keepItem(coach, team.roomId, { id: "", written: gone })).toMatchObject({
      ok: false,
      code: "no-bar",
    });
  });

  it("changes a piece in place, and what racks build follows", async () => {
    const rack = await piece("rack", "2");
    const written = rack && writeGearItem(rack);
    if (!rack || !written) throw new Error("Rack 2 was made.");
    const fuller = { ...written, fields: { ...written.fields, plates: "10x4 2.5" } };
    expect((await keepItem(coach, team.roomId, { id: rack.id, written: fuller })).ok).toBe(true);
    const builds = (await room()).builds;
    expect(builds.find((one) => one.number === 2)).toMatchObject({ totals: 10, heaviestKg: 105 });
    expect(builds.find((one) => one.number === 3)).toMatchObject({ totals: 5, heaviestKg: 100 });
  });

  it("a bar that a rack holds stays; another piece goes and comes back", async () => {
    const bar = await piece("bar", "Bar");
    const band = await piece("band", "Green");
    expect(await shelveItem(coach, team.roomId, { id: bar?.id ?? "", away: true })).toMatchObject({
      ok: false,
      code: "in-use",
    });
    const id = band?.id ?? "";
    expect((await shelveItem(coach, team.roomId, { id, away: true })).ok).toBe(true);
    expect((await piece("band", "Green"))?.awayOn).toBe("2026-03-10");
    // The name is free meanwhile; then it is not.
    const second = await keepItem(coach, team.roomId, { id: "", written: BAND });
    expect(second.ok).toBe(true);
    expect(await shelveItem(coach, team.roomId, { id, away: false })).toMatchObject({
      ok: false,
      code: "same-name",
    });
  });

  it("a nicked band leaves use at once; a worn one is written down", async () => {
    const band = (await room()).items.find((one) => one.kind === "band" && one.awayOn === null);
    const pieceId = band?.id ?? "";
    await inspectBand(coach, team.roomId, { pieceId, finding: "worn", note: "edge" });
    expect((await room()).items.find((one) => one.id === pieceId)?.awayOn).toBeNull();
    await inspectBand(coach, team.roomId, { pieceId, finding: "nicked", note: "" });
    const after = await room();
    expect(after.items.find((one) => one.id === pieceId)?.awayOn).toBe("2026-03-10");
    expect(
      after.inspections.filter((one) => one.pieceId === pieceId).map((one) => one.finding),
    ).toEqual(expect.arrayContaining(["worn", "nicked"]));
    const rack = await piece("rack", "1");
    expect(
      await inspectBand(coach, team.roomId, {
        pieceId: rack?.id ?? "",
        finding: "sound",
        note: "",
      }),
    ).toMatchObject({ ok: false, code: "no-piece" });
  });
});

describe("plates that hang now", () => {
  const hang = async (number: string, plates: string) =>
    hangPlates(coach, team.roomId, { id: (await piece("rack", number))?.id ?? "", plates });
  const platesOf = async (kind: "rack" | "store", name: string) => {
    const found = await piece(kind, name);
    return found && writeGearItem(found).fields.plates?.replace(/@\d+/g, "");
  };

  it("change nothing else of a rack, though its page is old", async () => {
    const rack = await piece("rack", "1");
    if (rack?.kind !== "rack") throw new Error("No rack 1.");
    const before = writeGearItem(rack).fields;
    const hooks = { ...before, hooks: "91 101" };
    const written = { kind: "rack" as const, name: "1", count: "1", fields: hooks };
    expect((await keepItem(coach, team.roomId, { id: rack.id, written })).ok).toBe(true);
    expect((await hang("1", "10x3")).ok).toBe(true);
    const after = await piece("rack", "1");
    expect(after && writeGearItem(after).fields).toEqual({ ...hooks, plates: "10x3" });
    expect(await hang("1", "heavy")).toMatchObject({ ok: false, code: "plates" });
    expect(await hang("77", "10x3")).toMatchObject({ ok: false, code: "no-piece" });
    // Back again, as the other tests have it.
    const back = { ...written, fields: before };
    expect((await keepItem(coach, team.roomId, { id: rack.id, written: back })).ok).toBe(true);
  });

  it("come from the shared ones and go back to them, two racks at one moment too", async () => {
    const store = { kind: "store" as const, count: "1", fields: { plates: "10x1" } };
    const kept = await keepItem(coach, team.roomId, {
      id: "",
      written: { ...store, name: "By the wall" },
    });
    expect(kept.ok).toBe(true);
    expect(
      await keepItem(coach, team.roomId, { id: "", written: { ...store, name: "Another" } }),
    ).toMatchObject({ ok: false, code: "same-name" });
    expect(await platesOf("rack", "1")).toBe("10x4");
    expect(await platesOf("rack", "3")).toBe("10x4");
    // One pair is shared and two racks want it: one has it.
    const both = await Promise.all([hang("1", "10x5"), hang("3", "10x5")]);
    expect(both.filter((one) => one.ok).length).toBe(1);
    expect(both.find((one) => !one.ok)).toMatchObject({ code: "too-few" });
    expect(await platesOf("store", "By the wall")).toBe("10x0");
    expect((await hang("1", "10x2")).ok).toBe(true);
    expect((await hang("3", "10x4")).ok).toBe(true);
    expect(await platesOf("store", "By the wall")).toBe("10x3");
    expect((await hang("1", "10x4")).ok).toBe(true);
    expect(await platesOf("store", "By the wall")).toBe("10x1");
    expect(
      await hangPlates(theirs, team.roomId, { id: randomUUID(), plates: "10x1" }),
    ).toMatchObject({ ok: false, code: "no-room" });
    const id = (await piece("store", "By the wall"))?.id ?? "";
    expect((await shelveItem(coach, team.roomId, { id, away: true })).ok).toBe(true);
  });
});

describe("rooms", () => {
  it("are made empty or with another's gear, under a name of their own", async () => {
    const copy = await addRoom(coach, { name: "Hotel", zone: "UTC", from: team.roomId });
    const id = copy.ok ? copy.value.id : "";
    expect((await room(id)).builds.map((one) => one.heaviestKg)).toEqual([100, 105, 100, 100]);
    const empty = await addRoom(coach, { name: "Yard", zone: "UTC", from: "" });
    expect((await room(empty.ok ? empty.value.id : "")).items).toEqual([]);
    expect(await addRoom(coach, { name: "hotel", zone: "UTC", from: "" })).toMatchObject({
      ok: false,
      code: "same-name",
    });
    expect(await renameRoom(coach, id, { name: "YARD", zone: "UTC" })).toMatchObject({
      ok: false,
      code: "same-name",
    });
    expect((await renameRoom(coach, id, { name: "HOTEL", zone: "Europe/Oslo" })).ok).toBe(true);
    expect(await room(id)).toMatchObject({ name: "HOTEL", zone: "Europe/Oslo" });
  });

  it.each(["json", "csv"] as const)("go out as %s and come back the same", async (as) => {
    const file = await exportRoom(coach, team.roomId, as);
    if (!file.ok) throw new Error(file.message);
    const back = await importRoom(coach, {
      name: `Back from ${as}`,
      zone: "UTC",
      text: file.value.text,
    });
    if (!back.ok) throw new Error(back.message);
    const written = async (id: string) =>
      (await room(id)).items
        .filter((one) => one.awayOn === null)
        .map((one) => JSON.stringify(writeGearItem(one)))
        .sort();
    expect(await written(back.value.id)).toEqual(await written(team.roomId));
  });

  it("a file with a fault is not taken at all, and every fault has its line", async () => {
    const before = (await readRooms(coach)).length;
    const file = await exportRoom(coach, team.roomId, "csv");
    const text = file.ok ? file.value.text.replace("20 kg", "heavy") : "";
    const taken = await importRoom(coach, { name: "Faulty", zone: "UTC", text });
    expect(taken).toMatchObject({ ok: false, code: "faults" });
    expect(taken.problems?.length).toBeGreaterThan(0);
    expect((await readRooms(coach)).length).toBe(before);
  });

  it("are nobody else's to read, change, copy or take out", async () => {
    const id = team.roomId;
    const answers = [
      await readRoom(theirs, id),
      await exportRoom(theirs, id, "json"),
      await renameRoom(theirs, id, { name: "Mine", zone: "UTC" }),
      await shelveItem(theirs, id, { id: randomUUID(), away: true }),
      await inspectBand(theirs, id, { pieceId: randomUUID(), finding: "sound", note: "" }),
    ];
    expect(answers.every((one) => !one.ok)).toBe(true);
    const copied = await addRoom(theirs, { name: "Copied", zone: "UTC", from: id });
    const found = copied.ok ? await readRoom(theirs, copied.value.id) : undefined;
    expect(found?.ok && found.value.items).toEqual([]);
    expect((await readRooms(theirs)).map((one) => one.name)).toEqual(["Copied", "Hall"]);
  });
});
