import { memo } from "react";
import type { WeekSum } from "../../../../core/plan/week-sums";
import { kgToGrains, massIn, plainNumber } from "../../../../core/units/mass";
import { useUnit } from "../../../ui/unit";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { onPhone } from "./picked";

interface Total {
  name: string;
  detail?: string;
  read: (week: WeekSum) => number | undefined;
  write: (value: number) => string;
}

/** What each week comes to, under the board: a figure with its bar, and what is being tried beside it. */
export const BoardTotals = memo(function BoardTotals({
  data,
  weeks,
  kept,
  athleteName,
  phoneWeek,
}: {
  data: PlanPage;
  weeks: readonly WeekSum[];
  /** As the block is kept, while something is being tried. */
  kept: readonly WeekSum[] | undefined;
  athleteName: string | undefined;
  phoneWeek: number;
}) {
  const unit = useUnit();
  const tonnage = (week: WeekSum) => {
    const all = week.lifts.flatMap((lift) => lift.tonnageKg ?? []);
    return all.length > 0 ? all.reduce((sum, kg) => sum + kg, 0) : undefined;
  };
  const whole = (value: number) => String(Math.round(value));
  const dose = (value: number | undefined, unitText: string) =>
    value === undefined ? "dose not set" : `dose ${plainNumber(value)}${unitText}`;
  const rows: Total[] = [
    { name: "Hard sets", read: (week) => week.hardSets, write: whole },
    { name: "Fast sets", read: (week) => week.fastSets, write: whole },
    { name: "Reps", read: (week) => week.reps, write: whole },
    {
      name: "Mean % of max",
      read: (week) => week.meanPercent,
      write: (value) => plainNumber(value, 1),
    },
    {
      name: `Tonnage, ${unit}`,
      detail: athleteName ?? "",
      read: tonnage,
      write: (value) => plainNumber(massIn(kgToGrains(value), unit), 0),
    },
    ...(weeks.some((week) => week.jumpContacts > 0)
      ? [
          {
            name: "Jump contacts",
            detail: dose(data.coachValues.jumpContacts, ""),
            read: (week: WeekSum) => week.jumpContacts,
            write: whole,
          },
        ]
      : []),
    ...(weeks.some((week) => week.sprintMetres > 0)
      ? [
          {
            name: "Sprint metres",
            detail: dose(data.coachValues.sprintMetres, " m"),
            read: (week: WeekSum) => week.sprintMetres,
            write: whole,
          },
        ]
      : []),
  ];
  return (
    <tbody
      aria-label="What each week comes to"
      className="border-t border-control lg:sticky lg:bottom-0 lg:z-4 lg:bg-base-100"
    >
      {rows.map((row) => {
        const most = Math.max(1, ...weeks.map((week) => row.read(week) ?? 0));
        return (
          <tr key={row.name}>
            <th
              scope="row"
              className="sticky left-0 z-1 bg-base-100 pr-2 text-right leading-[17px] font-normal"
            >
              <b>{row.name}</b> <span className="text-sm text-muted">{row.detail}</span>
            </th>
            {weeks.map((week, i) => {
              const value = row.read(week);
              const before = kept?.[i] && row.read(kept[i]);
              const apart =
                value !== undefined && before !== undefined ? value - before : undefined;
              return (
                <td
                  key={week.week}
                  className={`border-l border-faint px-1 leading-[17px] whitespace-nowrap ${onPhone(week.week, phoneWeek)}`}
                >
                  {value === undefined || value === 0 ? (
                    <span className="text-muted">–</span>
                  ) : (
                    <>
                      {row.write(value)}
                      {apart !== undefined && Math.abs(apart) > 0.049 ? (
                        <b className="text-accent">
                          {" "}
                          {apart > 0 ? "+" : "−"}
                          {row.write(Math.abs(apart))}
                        </b>
                      ) : null}
                      <span aria-hidden="true" className="-mt-0.5 block h-[3px] bg-faint">
                        <span
                          className="block h-[3px] bg-iron"
                          style={{ width: `${Math.round((100 * value) / most)}%` }}
                        />
                      </span>
                    </>
                  )}
                </td>
              );
            })}
          </tr>
        );
      })}
    </tbody>
  );
});
