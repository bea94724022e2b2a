import { uuidv7 } from "uuidv7";
import { type DayContext, readTestingDay, type TestingDay } from "../../../core/maxes/testing-day";
import { massKg } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import { addRecord, listVariants, recordsOf } from "../../../db/queries/maxes.server";
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

async function contextOf(tx: TeamTransaction, date?: LocalDate): Promise<DayContext> {
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
    lastKg: (athleteId, variantId) => last.get(`${athleteId}/${variantId}`),
  };
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
        ...context.variants.map((one) => one.name),
        ...context.tests.flatMap((one) =>
          one.sides ? [`${one.name}, left`, `${one.name}, right`] : [one.name],
        ),
      ],
    };
  });
}

export function checkTestingDay(
  principal: Principal,
  input: { text: string; date: LocalDate },
): Promise<TestingDay> {
  return inTeam(principal, async (tx) =>
    readTestingDay(rowsOf(input.text), await contextOf(tx, input.date)),
  );
}

/** Keeps the whole paste in one transaction, or nothing of it. */
export function keepTestingDay(
  principal: Principal,
  input: { text: string; date: LocalDate },
): Promise<Outcome<{ entries: number; athletes: number }>> {
  return inTeamOnce(principal, async (tx) => {
    const day = readTestingDay(rowsOf(input.text), await contextOf(tx, input.date));
    if (day.problems.length > 0 || day.lines.some((line) => line.problems.length > 0)) {
      return failed("faults", "Nothing was kept: lines still have problems. Mend or remove them.");
    }
    const entered = { enteredBy: principal.name, enteredAt: now() };
    for (const { athleteId, athleteName, date, entries, line } of day.lines) {
      if (!athleteId || !date) continue;
      for (const { entry, column } of entries) {
        const shared = { id: uuidv7(), athleteId, date, ...entered };
        if (entry.kind === "record") {
          const { variantId, load, record, note } = entry;
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
    return done({ entries: day.entries, athletes: day.lines.length });
  }).catch((error: unknown) => {
    if (error instanceof DuplicateResult) return failed("duplicate", error.message);
    throw error;
  });
}

/** Thrown inside the transaction, so that it is rolled back whole. */
class DuplicateResult extends Error {}
