import type { AthleteWeek } from "../../../core/review/athlete-weeks";
import { formatKg } from "../../../core/units/mass";
import { Day } from "../../ui/dates";
import { useUnit } from "../../ui/unit";

/** The weeks in figures: tonnage, sets, heavy days, faults, hard and speed sets. */
export function WeekTable({ weeks }: { weeks: readonly AthleteWeek[] }) {
  const unit = useUnit();
  if (weeks.length === 0) return null;
  return (
    <section aria-labelledby="weeks" className="mt-6">
      <h2 id="weeks">Week by week</h2>
      <div className="overflow-x-auto">
        <table className="ledger ledger-tight">
          <thead>
            <tr>
              <th scope="col">From</th>
              <th scope="col" className="!text-right">
                Tonnage
              </th>
              <th scope="col" className="!text-right">
                Sets
              </th>
              <th scope="col" className="!text-right">
                Cut
              </th>
              <th scope="col" className="!text-right">
                Heavy days
              </th>
              <th scope="col" className="!text-right">
                Faults
              </th>
              <th scope="col">Hard sets, and for speed, by muscle</th>
            </tr>
          </thead>
          <tbody>
            {weeks.map((week) => (
              <tr key={week.from}>
                <th scope="row">
                  <Day of={week.from} />
                </th>
                <td className="text-right">{formatKg(week.tonnageKg, unit, 0)}</td>
                <td className="text-right">
                  {week.sets.done} of {week.sets.planned}
                </td>
                <td className="text-right">{week.cut}</td>
                <td className="text-right">{week.heavyDays}</td>
                <td className="text-right">{week.faults}</td>
                <td className="whitespace-normal">
                  {week.muscles.map((one) => `${one.muscle} ${one.hard} + ${one.speed}`).join(", ")}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** Planned against done: contacts, metres, depth, sides. */
export function Ledgers({ weeks }: { weeks: readonly AthleteWeek[] }) {
  const sum = (pick: (week: AthleteWeek) => number) => weeks.reduce((n, week) => n + pick(week), 0);
  const rows = [
    {
      name: "Jump contacts",
      words: `${sum((w) => w.contacts.done)} of ${sum((w) => w.contacts.planned)}`,
      some: sum((w) => w.contacts.planned) > 0,
    },
    {
      name: "Sprint metres",
      words: `${sum((w) => w.metres.done)} of ${sum((w) => w.metres.planned)}`,
      some: sum((w) => w.metres.planned) > 0,
    },
    {
      name: "Squat sets",
      words: `${sum((w) => w.depth.full)} to full depth, ${sum((w) => w.depth.high)} to a high box`,
      some: sum((w) => w.depth.full + w.depth.high) > 0,
    },
    {
      name: "Sides",
      words: sideWords(
        sum((w) => w.sides.left),
        sum((w) => w.sides.right),
      ),
      some: sum((w) => w.sides.left + w.sides.right) > 0,
    },
  ].filter((row) => row.some);
  if (rows.length === 0) return null;
  return (
    <section aria-labelledby="ledgers" className="mt-6">
      <h2 id="ledgers">Ledgers, done of planned, {weeks.length} weeks</h2>
      <dl className="grid max-w-xl grid-cols-[10rem_1fr] gap-y-1">
        {rows.map((row) => (
          <div key={row.name} className="contents">
            <dt className="text-muted">{row.name}</dt>
            <dd>{row.words}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

function sideWords(left: number, right: number): string {
  const apart = left - right;
  return `${left} left, ${right} right: ${apart === 0 ? "even" : `${Math.abs(apart)} more ${apart > 0 ? "right" : "left"} would make them even`}`;
}
