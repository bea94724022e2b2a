import { uuidv7 } from "uuidv7";
import { type RecordSheet, readRecordSheet } from "../../../core/maxes/record-rows";
import type { Mass } from "../../../core/units/mass";
import { addRecords, listVariants, recordsOf } from "../../../db/queries/maxes.server";
import { addBatch } from "../../../db/queries/profiles.server";
import { listEverybody, readTeam } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { rowsOf } from "../../forms/delimited";
import type { RecordsInput } from "../../forms/records";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";
import { type CheckedSheet, checkedSheet } from "./checked-sheet.server";

export function startRecords(principal: Principal) {
  return inTeam(principal, async (tx) => ({
    unit: (await readTeam(tx))?.unit ?? ("kg" as const),
    lifts: (await listVariants(tx)).map((one) => one.name),
  }));
}

async function read(tx: TeamTransaction, input: RecordsInput): Promise<RecordSheet> {
  return readRecordSheet(rowsOf(input.text), {
    today: (await readPlaces(tx)).today,
    unit: input.unit,
    kind: input.kind,
    // Also who trains here no more: their records went out too.
    athletes: (await listEverybody(tx)).filter((one) => one.erasedAt === null),
    variants: await listVariants(tx),
    mapping: input.mapping,
    lifts: input.lifts ?? {},
  });
}

/** Reads a sheet against the team and keeps nothing. */
export function checkRecords(
  principal: Principal,
  input: RecordsInput,
): Promise<CheckedSheet<RecordSheet["mapping"]>> {
  return inTeam(principal, async (tx) => {
    const sheet = await read(tx, input);
    return checkedSheet(sheet, sheet.lines.filter((one) => one.record !== undefined).length);
  });
}

const keyOf = (one: {
  athleteId: string;
  variantId: string;
  date: string;
  load: Mass;
  kind: string;
  note: string;
}) =>
  [one.athleteId, one.variantId, one.date, one.load.amount, one.load.unit, one.kind, one.note].join(
    "\n",
  );

/**
 * Keeps the records of a sheet: those that are there already stay as they are, as often as they are
 * there. No working max changes by it.
 */
export function keepRecords(
  principal: Principal,
  input: RecordsInput,
): Promise<Outcome<{ kept: number; known: number; left: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const sheet = await read(tx, input);
    if (sheet.problems[0]) return failed("sheet", sheet.problems[0]);
    if (sheet.lifts.length > 0)
      return failed("ask", "Nothing was kept: answer the questions above the lines first.");
    const records = sheet.lines.flatMap((one) => one.record ?? []);
    if (input.intent === "keep" && records.length < sheet.lines.length)
      return failed("faults", "Nothing was kept: some lines still have a fault.");
    if (records.length === 0)
      return failed("faults", "Nothing was kept: no line is without a fault.");
    const there = new Map<string, number>();
    for (const one of await recordsOf(tx, [...new Set(records.map((one) => one.athleteId))]))
      there.set(keyOf(one), (there.get(keyOf(one)) ?? 0) + 1);
    const fresh = records.filter((one) => {
      const left = there.get(keyOf(one)) ?? 0;
      there.set(keyOf(one), left - 1);
      return left <= 0;
    });
    const entered = { enteredBy: principal.name, enteredAt: now() };
    if (fresh.length > 0) {
      await addRecords(
        tx,
        fresh.map((one) => ({ id: uuidv7(), ...one, ...entered })),
      );
      await addBatch(tx, {
        id: uuidv7(),
        kind: "records",
        fileName: input.fileName || "pasted sheet",
        tests: fresh.length,
        reps: 0,
        ...entered,
      });
    }
    return done({
      kept: fresh.length,
      known: records.length - fresh.length,
      left: sheet.lines.length - records.length,
    });
  });
}
