import { memo } from "react";
import { dateOf, daysOf, markOf, realignsAfter } from "../../../../core/plan/block";
import type { WeekSum } from "../../../../core/plan/week-sums";
import { formatKg, plainNumber } from "../../../../core/units/mass";
import { Day } from "../../../ui/dates";
import { useUnit } from "../../../ui/unit";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";

/** What stands behind the board's totals: each lift's sets, reps, mean % and tonnage, fast work, muscles. */
export const WeekDetails = memo(function WeekDetails({
  data,
  weeks,
}: {
  data: PlanPage;
  weeks: readonly WeekSum[];
}) {
  const unit = useUnit();
  const { block } = data;
  const names = [...new Set(weeks.flatMap((week) => week.lifts.map((lift) => lift.name)))];
  const first = daysOf(block)[0] ?? { name: "", offset: 0 };
  const values = data.coachValues;
  const wanted = (value: number | undefined, unitText: string) =>
    value === undefined ? "not set" : `${plainNumber(value)}${unitText}`;
  const cycles = realignsAfter(block);
  if (names.length === 0) return null;
  return (
    <details className="mt-3">
      <summary className="cursor-pointer font-bold">Each week by lift and muscle</summary>
      <div className="overflow-x-auto">
        <table className="ledger ledger-tight">
          <thead>
            <tr>
              <th scope="col">sets, reps; mean %; tonnage</th>
              {weeks.map(({ week }) => {
                const mark = markOf(block, week);
                return (
                  <th key={week} scope="col" className="!text-right">
                    <b className="text-base-content">{week}</b>{" "}
                    <Day short of={dateOf(block, week, first)} />
                    {mark ? (
                      <span className="block text-secondary">{mark.words || mark.kind}</span>
                    ) : null}
                  </th>
                );
              })}
            </tr>
          </thead>
          <tbody>
            {names.map((name) => (
              <tr key={name}>
                <th scope="row" className="!text-base-content">
                  {name}
                </th>
                {weeks.map(({ week, lifts }) => {
                  const lift = lifts.find((one) => one.name === name);
                  return (
                    <td key={week} className="text-right">
                      {lift ? (
                        <>
                          {lift.sets} sets, {lift.reps} reps
                          <span className="block text-sm text-muted">
                            {[
                              lift.meanPercent === undefined
                                ? ""
                                : `${plainNumber(lift.meanPercent, 1)} %`,
                              lift.tonnageKg === undefined ? "" : formatKg(lift.tonnageKg, unit, 0),
                            ]
                              .filter(Boolean)
                              .join(" · ")}
                          </span>
                        </>
                      ) : (
                        <span className="text-muted">–</span>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
            <SumRow
              name="Fast : slow sets"
              weeks={weeks}
              words={(week) => {
                const all = week.fastSets + week.slowSets;
                return all > 0
                  ? `${week.fastSets} : ${week.slowSets} (${Math.round((100 * week.fastSets) / all)} %)`
                  : "–";
              }}
            />
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-sm text-muted">
        Your fast share: off season {wanted(values.fastShareOffSeason, " %")}, before it{" "}
        {wanted(values.fastSharePreSeason, " %")}, in season{" "}
        {wanted(values.fastShareInSeason, " %")}. Left and right both count; a dumbbell counts as
        its slot says, one hand or both.{" "}
        {cycles > 1
          ? `Repeating cycles stand together again every ${cycles} working weeks.`
          : "A cycle of its own for each slot; they may differ in length."}
      </p>
      <MuscleTable weeks={weeks} />
    </details>
  );
});

function SumRow({
  name,
  weeks,
  words,
}: {
  name: string;
  weeks: readonly WeekSum[];
  words: (week: WeekSum) => string;
}) {
  return (
    <tr>
      <th scope="row">{name}</th>
      {weeks.map((week) => (
        <td key={week.week} className="text-right">
          {words(week)}
        </td>
      ))}
    </tr>
  );
}

function MuscleTable({ weeks }: { weeks: readonly WeekSum[] }) {
  const muscles = [...new Set(weeks.flatMap((week) => week.muscles.map((one) => one.muscle)))];
  if (muscles.length === 0) return null;
  return (
    <section aria-labelledby="muscle-sets" className="mt-5 overflow-x-auto">
      <h3 id="muscle-sets" className="font-bold">
        Hard sets a week by main muscle, fast ones apart
      </h3>
      <table className="ledger ledger-tight mt-1">
        <thead>
          <tr>
            <th scope="col">Muscle</th>
            {weeks.map((week) => (
              <th key={week.week} scope="col" className="!text-right">
                {week.week}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {muscles.map((muscle) => (
            <tr key={muscle}>
              <th scope="row">{muscle}</th>
              {weeks.map((week) => {
                const row = week.muscles.find((one) => one.muscle === muscle);
                return (
                  <td key={week.week} className="text-right">
                    {row?.hard ?? 0}
                    {row?.speed ? <span className="text-muted"> + {row.speed} fast</span> : ""}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
