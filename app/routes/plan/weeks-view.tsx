import { useMemo, useState } from "react";
import { LIFT_WORK } from "../../../core/exercise/lift-work";
import { liftSpeedClass } from "../../../core/liverules/speed-class";
import { dateOf, daysOf, markOf, type Slot } from "../../../core/plan/block";
import { slotCells } from "../../../core/plan/block-loads";
import { type WeekSum, type WorkFacts, weekSum } from "../../../core/plan/week-sums";
import { formatKg, plainNumber } from "../../../core/units/mass";
import { Select } from "../../ui/field";
import { Empty } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import type { PlanPage } from "../../workflows/plan/read-plan.server";

/** Names, speed classes and muscles of what slots train, from the page's tables. */
export function workOfPage(data: PlanPage) {
  return (slot: Slot, exerciseId: string | undefined): WorkFacts | undefined => {
    const { work } = slot;
    if (work.kind === "lift") {
      const lift = data.lifts.find((one) => one.id === work.variantId);
      return (
        lift && {
          name: lift.name,
          speedClass: liftSpeedClass(slot.recipe.aim),
          muscles: LIFT_WORK[lift.lift]?.muscles ?? [],
        }
      );
    }
    const found = data.exercises.find((one) => one.id === exerciseId);
    return found && { name: found.name, speedClass: found.speedClass, muscles: found.muscles };
  };
}

/** Each week's sets, reps, mean percentage and tonnage, fast against slow, doses against wanted. */
export function WeeksView({ data }: { data: PlanPage }) {
  const unit = useUnit();
  const { block, room, athletes } = data;
  const [who, setWho] = useState(athletes[0]?.id ?? "");
  const athlete = athletes.find((one) => one.id === who) ?? athletes[0];
  const weeks = useMemo(() => {
    const numbers = Array.from({ length: block.weeks }, (_, i) => i + 1);
    const loads = new Map<string, number>();
    for (const slotId of Object.keys(block.slots)) {
      if (!athlete) break;
      const cells = slotCells({
        block,
        slotId,
        weeks: numbers,
        athletes: [athlete],
        room,
        liftName: "",
      });
      for (const { wave, byAthlete } of cells) {
        let at = 0;
        for (const run of byAthlete[0] ?? []) {
          for (let i = 0; i < run.count; i++) {
            const set = wave?.sets[at++];
            if (set && run.loadKg !== undefined) loads.set(`${slotId}/${set.key}`, run.loadKg);
          }
        }
      }
    }
    return numbers.map((week) =>
      weekSum({
        block,
        week,
        settings: room.settings,
        workOf: workOfPage(data),
        loadKg: (slotId, set) => loads.get(`${slotId}/${set.key}`),
      }),
    );
  }, [data, block, room, athlete]);
  const names = [...new Set(weeks.flatMap((week) => week.lifts.map((lift) => lift.name)))];
  const first = daysOf(block)[0] ?? { name: "", offset: 0 };
  const values = data.coachValues;
  const wanted = (value: number | undefined, unitText: string) =>
    value === undefined ? "not set" : `${plainNumber(value)}${unitText}`;
  if (names.length === 0) return <Empty>No slot yet, so no week has anything to add up.</Empty>;
  return (
    <>
      <div className="mb-2 w-64">
        <Select label="Tonnage of" value={athlete?.id} onChange={(e) => setWho(e.target.value)}>
          {athletes.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
      </div>
      <div className="overflow-x-auto">
        <table className="ledger ledger-tight">
          <thead>
            <tr>
              <th scope="col">sets × , reps; mean %; tonnage</th>
              {weeks.map(({ week }) => {
                const mark = markOf(block, week);
                return (
                  <th key={week} scope="col" className="!text-right">
                    <b className="text-base-content">{week}</b>{" "}
                    {dateOf(block, week, first).slice(5)}
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
                          {lift.sets} × , {lift.reps}
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
            <SumRow
              name={`Sprint metres (dose ${wanted(values.sprintMetres, " m")})`}
              weeks={weeks}
              words={(week) => String(week.sprintMetres || "–")}
            />
            <SumRow
              name={`Jump contacts (dose ${wanted(values.jumpContacts, "")})`}
              weeks={weeks}
              words={(week) => String(week.jumpContacts || "–")}
            />
          </tbody>
        </table>
      </div>
      <p className="mt-2 text-sm text-muted">
        Your fast share: off season {wanted(values.fastShareOffSeason, " %")}, before it{" "}
        {wanted(values.fastSharePreSeason, " %")}, in season{" "}
        {wanted(values.fastShareInSeason, " %")}. Left and right both count; a dumbbell counts as
        its slot says, one hand or both.
      </p>
      <MuscleTable weeks={weeks} />
    </>
  );
}

function SumRow({
  name,
  weeks,
  words,
}: {
  name: string;
  weeks: WeekSum[];
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

function MuscleTable({ weeks }: { weeks: ReturnType<typeof weekSum>[] }) {
  const muscles = [...new Set(weeks.flatMap((week) => week.muscles.map((one) => one.muscle)))];
  if (muscles.length === 0) return null;
  return (
    <section aria-labelledby="muscle-sets" className="mt-5 overflow-x-auto">
      <h2 id="muscle-sets">Hard sets a week by main muscle, fast ones apart</h2>
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
