import { Link } from "react-router";
import type { Block, Slot } from "../../../core/plan/block";
import type { LoadRun, SlotCell } from "../../../core/plan/block-loads";
import type { Lifter } from "../../../core/prescribe/lifter";
import type { SetPrescription } from "../../../core/prescribe/prescribe";
import type { PlanPage } from "../../workflows/plan/read-plan.server";
import type { Show } from "./shows";
import { type barHeights, WeekHead } from "./week-head";
import { MaxFigure, WeekLoads } from "./week-loads";

/** A line a week and a column an athlete: the loads of a few over the whole block, nothing paged. */
export function NumbersTurned({
  data,
  block,
  slotId,
  slot,
  cells,
  lift,
  show,
  barHeight,
  isAway,
  fullOf,
  onEdit,
}: {
  data: PlanPage;
  block: Block;
  slotId: string;
  slot: Slot;
  cells: readonly SlotCell[];
  lift: { id: string; name: string } | undefined;
  show: Show;
  barHeight: ReturnType<typeof barHeights>;
  isAway: (athlete: Lifter, week: number) => boolean;
  fullOf: (athlete: Lifter, week: number, run: LoadRun) => SetPrescription | undefined;
  onEdit: ((athlete: Lifter, week: number, run: LoadRun) => void) | undefined;
}) {
  const { athletes, room } = data;
  return (
    <table className="ledger">
      <thead className="bg-base-100 lg:sticky lg:top-11 lg:z-5">
        <tr className="align-bottom">
          <th scope="col" className="sticky left-0 z-2 w-44 bg-base-100 !align-bottom">
            Week
          </th>
          {athletes.map((athlete) => {
            return (
              <th key={athlete.id} scope="col" className="border-l border-rule !align-bottom">
                <Link className="!text-base-content hover:underline" to={`/athletes/${athlete.id}`}>
                  {athlete.name}
                </Link>
                <span className="block font-normal">
                  <MaxFigure athlete={athlete} lift={lift} unit={room.unit} none="no working max" />
                </span>
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {cells.map(({ week, wave, byAthlete }) => (
          <tr key={week}>
            <th scope="row" className="sticky left-0 z-1 bg-base-100 !p-0 !text-base-content">
              <WeekHead
                data={data}
                block={block}
                slotId={slotId}
                slot={slot}
                week={week}
                wave={wave}
                barHeight={barHeight}
                heightPx={48}
              />
            </th>
            {athletes.map((athlete, i) => (
              <td
                key={athlete.id}
                className="group relative border-l border-rule pr-6! align-bottom"
              >
                {isAway(athlete, week) ? (
                  <span className="text-sm text-secondary">away </span>
                ) : null}
                <WeekLoads
                  athlete={athlete}
                  runs={byAthlete[i] ?? []}
                  show={show}
                  fullOf={(run) => fullOf(athlete, week, run)}
                  onEdit={onEdit && wave ? (run) => onEdit(athlete, week, run) : undefined}
                />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
