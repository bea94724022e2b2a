import { MAX_KIND_NAMES } from "../../../core/maxes/records";
import { massKg } from "../../../core/units/mass";
import { everyEarlierSet } from "../../../db/queries/earlier.server";
import { listVariants, recordsOf } from "../../../db/queries/maxes.server";
import { physicalResults, physicalTests } from "../../../db/queries/physical.server";
import { profileTests } from "../../../db/queries/profiles.server";
import { listEverybody } from "../../../db/queries/squads.server";
import type { TeamTransaction } from "../../../db/team.server";
import { csvOf } from "../../forms/delimited";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";
import { LOGGED_SETS_HEADER, loggedSets } from "./logged-sets.server";

/** What can be taken out as CSV. */
export const EXPORTS = ["records", "reps", "tests", "earlier", "sets"] as const;
export type Export = (typeof EXPORTS)[number];

type Cells = ReadonlyArray<string | number>;

/** A table by its cells in turn: the same rows go out the same, whoever entered them when. */
const sortedCsv = (header: readonly string[], rows: readonly Cells[]) =>
  csvOf(header, [...rows].sort(byCells));

function byCells(a: Cells, b: Cells): number {
  for (const [i, cell] of a.entries()) {
    const other = b[i] ?? "";
    if (cell !== other) return cell < other ? -1 : 1;
  }
  return 0;
}

/** A table of the team as CSV; it can be read back in where there is an import. */
export function exportCsv(
  principal: Pick<Principal, "teamId">,
  what: Export,
  snapshot?: string,
): Promise<string> {
  return inTeam(principal, (tx) => csvIn(tx, what), snapshot);
}

async function csvIn(tx: TeamTransaction, what: Export): Promise<string> {
  const people = new Map((await listEverybody(tx)).map((one) => [one.id, one.name]));
  const lifts = new Map((await listVariants(tx)).map((one) => [one.id, one.name]));
  const name = (id: string) => people.get(id) ?? "";
  if (what === "records") {
    return sortedCsv(
      ["athlete", "lift", "date", "load", "unit", "load_kg", "kind", "note"],
      (await recordsOf(tx)).map((one) => [
        name(one.athleteId),
        lifts.get(one.variantId) ?? "",
        one.date,
        one.load.amount,
        one.load.unit,
        massKg(one.load),
        MAX_KIND_NAMES[one.kind],
        one.note,
      ]),
    );
  }
  if (what === "reps") {
    return sortedCsv(
      [
        "athlete",
        "lift",
        "date",
        "metric",
        "load_kg",
        "rep",
        "velocity",
        "force_n",
        "power_w",
        "left_out",
        "processing",
      ],
      (await profileTests(tx, {})).flatMap((test) =>
        test.reps.map((rep) => [
          name(test.athleteId),
          lifts.get(test.variantId) ?? "",
          test.date,
          test.metric,
          rep.loadKg,
          rep.rep,
          rep.velocityMps,
          rep.forceN ?? "",
          rep.powerW ?? "",
          rep.excluded ?? "",
          test.processing,
        ]),
      ),
    );
  }
  if (what === "sets") return sortedCsv(LOGGED_SETS_HEADER, await loggedSets(tx, name));
  if (what === "earlier") {
    return sortedCsv(
      ["athlete", "lift", "date", "sets", "reps", "load", "unit", "load_kg", "speed"],
      (await everyEarlierSet(tx)).map(({ set, name: athlete }) => [
        athlete,
        lifts.get(set.variantId) ?? "",
        set.date,
        set.sets,
        set.reps,
        set.load.amount,
        set.load.unit,
        massKg(set.load),
        set.velocityMps ?? "",
      ]),
    );
  }
  const tests = new Map((await physicalTests(tx)).map((one) => [one.id, one]));
  return sortedCsv(
    [
      "athlete",
      "test",
      "unit",
      "date",
      "side",
      "approach",
      "load_kg",
      "trials",
      "splits",
      "at_least",
    ],
    (await physicalResults(tx)).map((one) => [
      name(one.athleteId),
      tests.get(one.testId)?.name ?? "",
      tests.get(one.testId)?.unit ?? "",
      one.date,
      one.side,
      one.approach ? "yes" : "",
      one.loadKg,
      one.trials.join(" "),
      one.splits.join(" "),
      one.atLeast ? "yes" : "",
    ]),
  );
}
