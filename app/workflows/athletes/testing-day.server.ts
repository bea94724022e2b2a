import { uuidv7 } from "uuidv7";
import { type DayContext, readTestingDay, type TestingDay } from "../../../core/maxes/testing-day";
import { massKg } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import {
  addRecord,
  chooseWorkingMaxes,
  listVariants,
  recordsOf,
} from "../../../db/queries/maxes.server";
import { keepBodyMass } from "../../../db/queries/person.server";
import { addPhysicalResult, physicalTests } from "../../../db/queries/physical.server";
import { listAthletes, readTeam } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { rowsOf } from "../../forms/delimited";
import { localDate, now } from "../../platform/clock.server";
import { inTeam } from "../../platform/database.server";
import { inTeamOnce } from "../../platform/once.server";
import { done, failed, type Outcome } from "../../platform/outcome";
import type { Principal } from "../../platform/rights";
import { readPlaces } from "../lifters/today.server";

/** Longer pastes come as a file, through the import. */
export const MOST_PASTED = 200_000;

async function contextOf(
  tx: TeamTransaction,
  date?: LocalDate,
  lifts: Record<string, string> = {},
): Promise<DayContext> {
  const team = await readTeam(tx);
  const last = new Map<string, number>();
  for (const record of await recordsOf(tx)) {
    const key = `${record.athleteId}/${record.variantId}`;
    if (!last.has(key)) last.set(key, massKg(record.load));
  }
  const { rooms } = await readPlaces(tx);
  const today = localDate(rooms[0]?.zone ?? "UTC");
  return {
    today,
    date: date ?? today,
    unit: team?.unit ?? "kg",
    athletes: await listAthletes(tx),
    variants: await listVariants(tx),
    tests: await physicalTests(tx),
    lifts,
    lastKg: (athleteId, variantId) => last.get(`${athleteId}/${variantId}`),
  };
}

export interface PastedDay {
  text: string;
  date: LocalDate;
  /** Which lift an ambiguous name is, by its key. */
  lifts: Record<string, string>;
}

export interface KeptDay {
  entries: number;
  athletes: number;
  /** The records of the day that may become working maxes, one a lift of an athlete. */
  records: string[];
}

interface NewRecord {
  recordId: string;
  athleteId: string;
  variantId: string;
  kg: number;
  date: LocalDate;
}

/** Of several records of one lift the newest stands, of one day the heaviest. */
function highest(records: readonly NewRecord[]): NewRecord[] {
  const best = new Map<string, NewRecord>();
  for (const record of records) {
    const key = `${record.athleteId}/${record.variantId}`;
    const known = best.get(key);
    const newer =
      !known || record.date > known.date || (record.date === known.date && record.kg > known.kg);
    if (newer) best.set(key, record);
  }
  return [...best.values()];
}

/** Makes records the working maxes of their lifts, all in one go. */
export function makeWorkingMaxes(
  principal: Principal,
  recordIds: readonly string[],
): Promise<Outcome<{ maxes: number; athletes: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const wanted = new Set(recordIds);
    const records = (await recordsOf(tx)).filter((one) => wanted.has(one.id));
    if (records.length < wanted.size || records.length === 0)
      return failed("gone", "Some of these records are not there any more. Load the page again.");
    const chosenAt = now();
    await chooseWorkingMaxes(
      tx,
      records.map((record) => ({
        id: uuidv7(),
        athleteId: record.athleteId,
        variantId: record.variantId,
        recordId: record.id,
        factor: null,
        chosenBy: principal.name,
        chosenAt,
      })),
    );
    return done({
      maxes: records.length,
      athletes: new Set(records.map((record) => record.athleteId)).size,
    });
  });
}

/** What the paste page starts from. */
export function startTestingDay(principal: Principal) {
  return inTeam(principal, async (tx) => {
    const context = await contextOf(tx);
    return {
      today: context.today,
      columns: [
        "Athlete",
        "Date",
        "Body mass",
        "Lift and Load, a record a line",
        ...context.variants.map((one) => one.name),
        ...context.tests.flatMap((one) =>
          one.sides ? [`${one.name}, left`, `${one.name}, right`] : [one.name],
        ),
      ],
    };
  });
}

export function checkTestingDay(principal: Principal, input: PastedDay): Promise<TestingDay> {
  return inTeam(principal, async (tx) =>
    readTestingDay(rowsOf(input.text), await contextOf(tx, input.date, input.lifts)),
  );
}

/** Keeps the whole paste in one transaction, or nothing of it. */
export function keepTestingDay(principal: Principal, input: PastedDay): Promise<Outcome<KeptDay>> {
  return inTeamOnce(principal, async (tx) => {
    const day = readTestingDay(rowsOf(input.text), await contextOf(tx, input.date, input.lifts));
    if (day.questions[0])
      return failed("ask", `Nothing was kept: say first which lift "${day.questions[0].text}" is.`);
    if (day.problems.length > 0 || day.lines.some((line) => line.problems.length > 0)) {
      return failed("faults", "Nothing was kept: lines still have problems. Mend or remove them.");
    }
    const entered = { enteredBy: principal.name, enteredAt: now() };
    const records: NewRecord[] = [];
    for (const { athleteId, athleteName, date, entries, line } of day.lines) {
      if (!athleteId || !date) continue;
      for (const { entry, column } of entries) {
        const shared = { id: uuidv7(), athleteId, date, ...entered };
        if (entry.kind === "record") {
          const { variantId, load, record, note } = entry;
          records.push({ recordId: shared.id, athleteId, variantId, kg: massKg(load), date });
          await addRecord(tx, { ...shared, variantId, load, kind: record, note });
        } else if (entry.kind === "body-mass") {
          await keepBodyMass(tx, { ...shared, mass: entry.mass });
        } else {
          const { testId, side, trials } = entry;
          const kept = await addPhysicalResult(tx, { ...shared, testId, side, trials });
          if (!kept) {
            throw new DuplicateResult(
              `Line ${line}: ${column} of ${athleteName} on ${date} is there already. Nothing was kept.`,
            );
          }
        }
      }
    }
    return done({
      entries: day.entries,
      athletes: new Set(day.lines.map((line) => line.athleteId)).size,
      records: highest(records).map((one) => one.recordId),
    });
  }).catch((error: unknown) => {
    if (error instanceof DuplicateResult) return failed("duplicate", error.message);
    throw error;
  });
}

/** Thrown inside the transaction, so that it is rolled back whole. */
class DuplicateResult extends Error {}
