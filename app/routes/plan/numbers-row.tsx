import { memo } from "react";
import { Link } from "react-router";
import type { LoadRun } from "../../../core/plan/block-loads";
import type { Lifter } from "../../../core/prescribe/lifter";
import type { SetPrescription } from "../../../core/prescribe/prescribe";
import type { MassUnit } from "../../../core/units/mass";
import type { Show } from "./shows";
import { MaxFigure, WeekLoads } from "./week-loads";

/** One week of an athlete's row. */
export interface RowWeek {
  week: number;
  runs: readonly LoadRun[];
  away: boolean;
  /** Nothing of the slot is done in it. */
  empty: boolean;
}

interface RowProps {
  athlete: Lifter;
  lift: { id: string; name: string } | undefined;
  weeks: readonly RowWeek[];
  show: Show;
  unit: MassUnit;
  fullOf: (athlete: Lifter, week: number, run: LoadRun) => SetPrescription | undefined;
  onEdit: ((athlete: Lifter, week: number, run: LoadRun) => void) | undefined;
  /**
   * What cells are made of besides the loads: another one draws the row again. Left out where only
   * loads are shown.
   */
  drawnFrom: unknown;
}

/**
 * An athlete's loads week by week. A squad's page holds thousands of figures: a row is drawn again
 * only when something in it is another.
 */
export const NumbersRow = memo(function NumbersRow(props: RowProps) {
  const { athlete, lift, weeks, show, unit, fullOf, onEdit } = props;
  const grey = athlete.trainingYears !== undefined && athlete.trainingYears < 1;
  return (
    <tr className={grey ? "text-muted" : ""}>
      <th scope="row" className="sticky left-0 z-1 bg-base-100 !font-bold !text-base-content">
        <Link className="hover:underline" to={`/athletes/${athlete.id}`}>
          {athlete.name}
        </Link>
      </th>
      <td className="text-right whitespace-nowrap">
        <MaxFigure athlete={athlete} lift={lift} unit={unit} none="not set" />
      </td>
      {weeks.map(({ week, runs, away, empty }) => (
        <td key={week} className="group relative border-l border-rule pr-6! whitespace-nowrap">
          {away ? <span className="text-sm text-secondary">away </span> : null}
          <WeekLoads
            athlete={athlete}
            runs={runs}
            show={show}
            fullOf={(run) => fullOf(athlete, week, run)}
            onEdit={onEdit && !empty ? (run) => onEdit(athlete, week, run) : undefined}
          />
        </td>
      ))}
    </tr>
  );
}, sameRow);

function sameRow(a: RowProps, b: RowProps): boolean {
  return (
    a.athlete === b.athlete &&
    a.lift?.id === b.lift?.id &&
    a.show === b.show &&
    a.unit === b.unit &&
    a.drawnFrom === b.drawnFrom &&
    (a.onEdit === undefined) === (b.onEdit === undefined) &&
    a.weeks.length === b.weeks.length &&
    a.weeks.every((one, i) => sameWeek(one, b.weeks[i] as RowWeek))
  );
}

function sameWeek(a: RowWeek, b: RowWeek): boolean {
  return (
    a.week === b.week &&
    a.away === b.away &&
    a.empty === b.empty &&
    a.runs.length === b.runs.length &&
    a.runs.every((run, i) => sameRun(run, b.runs[i] as LoadRun))
  );
}

const sameRun = (a: LoadRun, b: LoadRun): boolean =>
  a.key === b.key &&
  a.count === b.count &&
  a.reps === b.reps &&
  a.loadKg === b.loadKg &&
  a.reason === b.reason &&
  a.overridden === b.overridden &&
  a.elsewhere.length === b.elsewhere.length &&
  a.elsewhere.every((one, i) => one.kg === b.elsewhere[i]?.kg);
