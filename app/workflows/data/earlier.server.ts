import { uuidv7 } from "uuidv7";
import { type EarlierSheet, readEarlierSheet } from "../../../core/maxes/earlier-rows";
import { addEarlierSets } from "../../../db/queries/earlier.server";
import { listVariants } from "../../../db/queries/maxes.server";
import { addBatch } from "../../../db/queries/profiles.server";
import { listAthletes, readTeam } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { rowsOf } from "../../forms/delimited";
import type { EarlierInput } from "../../forms/earlier";
import { now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";
import { type CheckedSheet, checkedSheet } from "./checked-sheet.server";

export function startEarlier(principal: Principal) {
  return inTeam(principal, async (tx) => ({
    unit: (await readTeam(tx))?.unit ?? ("kg" as const),
    lifts: (await listVariants(tx)).map((one) => one.name),
  }));
}

async function read(tx: TeamTransaction, input: EarlierInput): Promise<EarlierSheet> {
  return readEarlierSheet(rowsOf(input.text), {
    today: (await readPlaces(tx)).today,
    unit: input.unit,
    athletes: await listAthletes(tx),
    variants: await listVariants(tx),
    mapping: input.mapping,
    lifts: input.lifts ?? {},
    slash: input.slash === "" ? undefined : input.slash,
  });
}

/** Reads a sheet against the team and keeps nothing. */
export function checkEarlier(principal: Principal, input: EarlierInput): Promise<CheckedEarlier> {
  return inTeam(principal, async (tx) => {
    const sheet = await read(tx, input);
    const good = sheet.lines.filter((one) => one.set !== undefined).length;
    return { ...checkedSheet(sheet, good), askDates: sheet.askDates };
  });
}

export type CheckedEarlier = CheckedSheet<EarlierSheet["mapping"]> & { askDates: boolean };

/** Keeps a sheet as history marked imported: all of it, or where that was asked the good lines. */
export function keepEarlier(
  principal: Principal,
  input: EarlierInput,
): Promise<Outcome<{ kept: number; known: number; left: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const sheet = await read(tx, input);
    if (sheet.problems[0]) return failed("sheet", sheet.problems[0]);
    if (sheet.lifts.length > 0 || sheet.askDates)
      return failed("ask", "Nothing was kept: answer the questions above the lines first.");
    const sets = sheet.lines.flatMap((one) => one.set ?? []);
    if (input.intent === "keep" && sets.length < sheet.lines.length)
      return failed("faults", "Nothing was kept: some lines still have a fault.");
    if (sets.length === 0) return failed("faults", "Nothing was kept: no line is without a fault.");
    const entered = { enteredBy: principal.name, enteredAt: now() };
    const batchId = uuidv7();
    await addBatch(tx, {
      id: batchId,
      kind: "sets",
      fileName: input.fileName || "pasted sheet",
      tests: sets.length,
      reps: sets.reduce((sum, one) => sum + one.sets * one.reps, 0),
      ...entered,
    });
    const kept = await addEarlierSets(
      tx,
      sets.map((one) => ({
        id: uuidv7(),
        batchId,
        ...one,
        velocityMps: one.velocityMps ?? null,
        ...entered,
      })),
    );
    return done({ kept, known: sets.length - kept, left: sheet.lines.length - sets.length });
  });
}
