import { limitHolds } from "../../../../core/maxes/limits";
import { readIn } from "../../../../core/units/written";
import { Dated } from "../../../ui/dates";
import { useUnit } from "../../../ui/unit";
import type { AthletePage } from "../page-data";
import { OpensPart } from "./opens";

interface InForce {
  key: string;
  kind: "stop" | "look" | "note";
  title: string;
  words: string;
}

const EDGES = { stop: "border-accent", look: "border-secondary", note: "border-primary" };

/** What holds today and what it does, the strictest first. Why a limit stands is not among it. */
export function InForceStrip({ data }: { data: AthletePage }) {
  const unit = useUnit();
  const { limits, today, mark, lifts, agreed, person, byAge } = data;
  // What stands on another lift's max is stale with it: said once.
  const stale = lifts.filter(
    (lift) => "max" in lift.resolved && lift.resolved.max.stale && !lift.resolved.viaBase,
  );
  const held = limits.filter((limit) => limitHolds(limit, today));
  const items: InForce[] = [
    ...held.map((limit) => ({
      key: limit.id,
      kind: "stop" as const,
      title: limit.until ? `Limit until ${limit.until}` : "Limit until lifted",
      words: limit.instruction,
    })),
    ...(byAge.length > 0
      ? [
          {
            key: "age",
            kind: "stop" as const,
            title: "Refused by age",
            words: byAge.join(", "),
          },
        ]
      : []),
    ...(mark
      ? [
          {
            key: "mark",
            kind: mark.refused ? ("stop" as const) : ("look" as const),
            title: "Competition",
            words: mark.words,
          },
        ]
      : []),
    ...(stale.length > 0
      ? [
          {
            key: "stale",
            kind: "look" as const,
            title: stale.length === 1 ? "A stale max" : `${stale.length} stale maxes`,
            words: `${stale.map((lift) => lift.name.split(",")[0]).join(", ")}: test, or go by speed`,
          },
        ]
      : []),
    ...(person.trainingYears !== undefined && person.trainingYears < 1
      ? [
          {
            key: "young",
            kind: "look" as const,
            title: "Under a year of training",
            words: "Percentages are information only",
          },
        ]
      : []),
    ...agreed.map((one) => ({
      key: one.id,
      kind: "note" as const,
      title: `To be done, agreed ${one.date}`,
      words: readIn(one.proposal, unit),
    })),
  ];
  return (
    <section aria-labelledby="in-force" className="border-b border-rule pb-2">
      <div className="flex items-baseline justify-between">
        <h2 id="in-force">In force today</h2>
        <OpensPart part="limits" className="text-sm text-muted">
          Limits and readiness
        </OpensPart>
      </div>
      {items.length === 0 ? (
        <p className="text-muted">
          Nothing holds today: no limit, no competition near, no stale max.
        </p>
      ) : (
        <ul className="grid gap-x-4 gap-y-2 sm:grid-cols-2 lg:grid-cols-3 xl:grid-cols-4">
          {items.map((one) => (
            <li key={one.key} className={`border-l-[3px] pl-2 ${EDGES[one.kind]}`}>
              <b className={one.kind === "note" ? "" : "text-secondary"}>
                <Dated>{one.title}</Dated>
              </b>
              <span className="block">
                <Dated>{one.words}</Dated>
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
