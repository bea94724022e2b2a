import { MAX_KIND_NAMES } from "../../../core/maxes/records";
import { massKg } from "../../../core/units/mass";
import { everyEarlierSet } from "../../../db/queries/earlier.server";
import { listVariants, recordsOf } from "../../../db/queries/maxes.server";
import { physicalResults, physicalTests } from "../../../db/queries/physical.server";
import { profileTests } from "../../../db/queries/profiles.server";
import { listEverybody } from "../../../db/queries/squads.server";
import { csvOf } from "../../forms/delimited";
import { inTeam } from "../../platform/database.server";
import type { Principal } from "../../platform/rights";

/** What can be taken out as CSV. */
export const EXPORTS = ["records", "reps", "tests", "earlier"] as const;
export type Export = (typeof EXPORTS)[number];

/** A table of the team as CSV; it can be read back in where there is an import. */
export function exportCsv(principal: Principal, what: Export): Promise<string> {
  return inTeam(principal, async (tx) => {
    const people = new Map((await listEverybody(tx)).map((one) => [one.id, one.name]));
    const lifts = new Map((await listVariants(tx)).map((one) => [one.id, one.name]));
    const name = (id: string) => people.get(id) ?? "";
    if (what === "records") {
      return csvOf(
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
      return csvOf(
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
    if (what === "earlier") {
      return csvOf(
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
    return csvOf(
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
  });
}
