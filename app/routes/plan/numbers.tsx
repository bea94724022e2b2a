import { useCallback, useMemo, useRef, useState } from "react";
import { type Block, dateOf, isIn } from "../../../core/plan/block";
import { type LoadRun, setInFull, slotCells, variantIn } from "../../../core/plan/block-loads";
import type { Lifter } from "../../../core/prescribe/lifter";
import type { SetPrescription } from "../../../core/prescribe/prescribe";
import type { WaveWeek } from "../../../core/recipe/recipe";
import { useFirstRows } from "../../ui/use-first-rows";
import { useRowsInSight } from "../../ui/use-rows-in-sight";
import { Figures } from "../../ui/working";
import type { PlanPage } from "../../workflows/plan/read-plan.server";
import { NumbersRow } from "./numbers-row";
import { NumbersTurned } from "./numbers-turned";
import { type Editing, OverrideBar } from "./override-bar";
import { type Show, weeksShown } from "./shows";
import { barHeights, WeekHead } from "./week-head";
import { MadeOf } from "./week-loads";

/** Larger squads draw only the rows in sight. */
const VIRTUAL_FROM = 60;

/** The wave over its dates, and in the same columns everybody's loads, worked out here. */
export function Numbers({
  data,
  block,
  slotId,
  firstWeek,
  show,
  turned,
  mayEdit,
}: {
  data: PlanPage;
  /** With the recipe as it is being typed. */
  block: Block;
  slotId: string;
  firstWeek: number;
  /** What stands in the cells. */
  show: Show;
  /** A column an athlete and a line a week: the whole block at once, for a few. */
  turned: boolean;
  mayEdit: boolean;
}) {
  const [editing, setEditing] = useState<Editing>();
  const slot = block.slots[slotId];
  const { room, lifts } = data;
  const rows = useFirstRows(data.athletes.length);
  const live = rows === data.athletes.length;
  const athletes = useMemo(() => data.athletes.slice(0, rows), [data.athletes, rows]);
  const work = slot?.work;
  const lift = lifts.find((one) => work?.kind === "lift" && one.id === work.variantId);
  const shown = turned ? block.weeks : weeksShown(slot?.recipe, show);
  const from = turned ? 1 : firstWeek;
  const weeks = useMemo(
    () =>
      Array.from(
        { length: Math.max(0, Math.min(shown, block.weeks - from + 1)) },
        (_, i) => from + i,
      ),
    [block.weeks, from, shown],
  );
  const liftName = lift?.name ?? slot?.recipe.name ?? "";
  const cells = useMemo(
    () => slotCells({ block, slotId, weeks, athletes, room, liftName }),
    [block, slotId, weeks, athletes, room, liftName],
  );
  // The rows call what is there when they are asked, so that they need not be drawn again for it.
  const now = useRef({ data, block, slotId, cells });
  now.current = { data, block, slotId, cells };
  const fullOf = useCallback((athlete: Lifter, week: number, run: LoadRun) => {
    const wave = now.current.cells.find((cell) => cell.week === week)?.wave;
    return runInFull({ ...now.current, wave, run, athlete });
  }, []);
  const onEdit = useCallback(
    (athlete: Lifter, week: number, run: LoadRun) => setEditing({ athlete, run, week }),
    [],
  );
  const body = useRef<HTMLTableSectionElement>(null);
  const { visible, before, after } = useRowsInSight(
    athletes,
    body,
    live ? VIRTUAL_FROM : Number.POSITIVE_INFINITY,
  );
  if (!slot) return null;
  const day = block.days[slot.dayId] ?? { name: "", offset: 0 };
  const barHeight = barHeights(cells.map((cell) => cell.wave));
  const isAway = (athlete: Lifter, week: number) =>
    !isIn(block, athlete.id, dateOf(block, week, day));
  return (
    <MadeOf value={block}>
      <Figures label="Everybody's numbers" className="max-lg:overflow-x-auto">
        {turned ? (
          <NumbersTurned
            data={data}
            block={block}
            slotId={slotId}
            slot={slot}
            cells={cells}
            lift={lift}
            show={show}
            barHeight={barHeight}
            isAway={isAway}
            fullOf={fullOf}
            onEdit={mayEdit ? onEdit : undefined}
          />
        ) : (
          <table className={`ledger ${data.athletes.length > 14 ? "ledger-tight" : ""}`}>
            {/* Weeks are paged to fit: on a desk nothing scrolls sideways, and their heads stay in sight. */}
            <thead className="bg-base-100 lg:sticky lg:top-11 lg:z-5">
              <tr className="align-bottom">
                <th scope="col" className="sticky left-0 z-2 bg-base-100 !align-bottom">
                  Athlete
                </th>
                <th scope="col" className="!text-right !align-bottom">
                  {lift ? "working max" : ""}
                </th>
                {cells.map(({ week, wave }) => (
                  <th
                    key={week}
                    scope="col"
                    className="max-w-0 border-l border-rule !p-0 text-base-content"
                    style={{ width: `${Math.floor(74 / weeks.length)}%` }}
                  >
                    <WeekHead
                      data={data}
                      block={block}
                      slotId={slotId}
                      slot={slot}
                      week={week}
                      wave={wave}
                      barHeight={barHeight}
                    />
                  </th>
                ))}
              </tr>
            </thead>
            <tbody ref={body}>
              {before > 0 ? <tr style={{ height: before }} aria-hidden /> : null}
              {visible.map(({ row: athlete, index }) => (
                <NumbersRow
                  key={athlete.id}
                  athlete={athlete}
                  lift={lift}
                  show={show}
                  unit={room.unit}
                  weeks={cells.map(({ week, wave, byAthlete }) => ({
                    week,
                    runs: byAthlete[index] ?? [],
                    away: isAway(athlete, week),
                    empty: wave === undefined,
                  }))}
                  fullOf={fullOf}
                  onEdit={live && mayEdit ? onEdit : undefined}
                  drawnFrom={show === "loads" ? undefined : block}
                />
              ))}
              {after > 0 ? <tr style={{ height: after }} aria-hidden /> : null}
            </tbody>
          </table>
        )}
        {live || turned ? null : (
          <p className="text-muted">and {data.athletes.length - rows} more athletes</p>
        )}
        {editing ? (
          <OverrideBar
            key={`${editing.athlete.id}${editing.run.key}`}
            editing={editing}
            slotId={slotId}
            onClose={() => setEditing(undefined)}
          />
        ) : null}
      </Figures>
    </MadeOf>
  );
}

function runInFull(input: {
  data: PlanPage;
  block: Block;
  slotId: string;
  wave: WaveWeek | undefined;
  run: LoadRun;
  athlete: Lifter;
}): SetPrescription | undefined {
  const { data, block, slotId, wave, run, athlete } = input;
  const slot = block.slots[slotId];
  const set = wave?.sets.find((one) => one.key === run.key);
  if (!slot || !wave || !set) return undefined;
  const lift = data.lifts.find((one) => one.id === variantIn(slot, wave));
  if (!lift) return undefined;
  return setInFull({ block, slotId, week: wave, set, athlete, room: data.room, lift });
}
