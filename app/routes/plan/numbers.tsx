import { useCallback, useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import { type Block, dateOf, isIn, markOf } from "../../../core/plan/block";
import { type LoadRun, setInFull, slotCells, variantIn } from "../../../core/plan/block-loads";
import type { Lifter } from "../../../core/prescribe/lifter";
import type { SetPrescription } from "../../../core/prescribe/prescribe";
import { describeBasis } from "../../../core/recipe/basis";
import type { WaveWeek } from "../../../core/recipe/recipe";
import { useFirstRows } from "../../ui/use-first-rows";
import { useRowsInSight } from "../../ui/use-rows-in-sight";
import { WaveColumnPicture } from "../../ui/wave-chart";
import { Figures, useWorking } from "../../ui/working";
import type { PlanPage } from "../../workflows/plan/read-plan.server";
import { NumbersRow } from "./numbers-row";
import { type Editing, OverrideBar } from "./override-bar";
import { type Show, weeksShown } from "./shows";

/** Larger squads draw only the rows in sight. */
const VIRTUAL_FROM = 60;

/** The wave over its dates, and in the same columns everybody's loads, worked out here. */
export function Numbers({
  data,
  block,
  slotId,
  firstWeek,
  show,
  mayEdit,
}: {
  data: PlanPage;
  /** With the recipe as it is being typed. */
  block: Block;
  slotId: string;
  firstWeek: number;
  /** What stands in the cells. */
  show: Show;
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
  const shown = weeksShown(slot?.recipe, show);
  const weeks = useMemo(
    () =>
      Array.from(
        { length: Math.max(0, Math.min(shown, block.weeks - firstWeek + 1)) },
        (_, i) => firstWeek + i,
      ),
    [block.weeks, firstWeek, shown],
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
  const openOf = useWorking().selected?.key ?? "";
  if (!slot) return null;
  const day = block.days[slot.dayId] ?? { name: "", offset: 0 };
  const values = cells.flatMap((cell) => cell.wave?.sets.map((set) => askedValue(set.basis)) ?? []);
  const least = Math.min(...values);
  const most = Math.max(...values);
  const height = (value: number) =>
    most === least ? 0.6 : 0.25 + 0.75 * ((value - least) / (most - least));
  const grips = slot.recipe.cycle;
  return (
    <Figures label="Everybody's numbers" className="max-lg:overflow-x-auto">
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
            {cells.map(({ week, wave }) => {
              const mark = markOf(block, week);
              const session = data.sessions.find(
                (one) => one.week === week && one.slotId === slotId,
              );
              const competition = data.competitions.find((one) => one.week === week);
              return (
                <th
                  key={week}
                  scope="col"
                  className="max-w-0 border-l border-rule !p-0 text-base-content"
                  style={{ width: `${Math.floor(74 / weeks.length)}%` }}
                >
                  <span className="flex min-w-28 justify-between gap-x-2 px-2 pt-1">
                    <b>Week {week}</b>
                    <span className="text-muted">{dateOf(block, week, day).slice(5)}</span>
                  </span>
                  <span className="block h-5 overflow-hidden px-2 text-left text-sm font-normal text-ellipsis whitespace-nowrap">
                    {session ? (
                      <Link
                        className="underline"
                        to={
                          session.status === "running"
                            ? `/floor/${session.id}`
                            : `/review/${session.id}`
                        }
                      >
                        {session.status === "running" ? "on the floor" : "done"}
                      </Link>
                    ) : (
                      <span className="text-secondary" title={competition?.words}>
                        {competition?.words ?? wave?.method?.name ?? ""}
                      </span>
                    )}
                  </span>
                  <WaveColumnPicture
                    column={{
                      title: `Week ${week}`,
                      words: weekWords(mark?.words || mark?.kind, wave),
                      sets: (wave?.sets ?? []).map((set, i) => {
                        const asked = describeBasis(set.basis, room.unit);
                        const before = wave?.sets[i - 1];
                        return {
                          key: set.key,
                          height: height(askedValue(set.basis)),
                          shade: grips.length > 1 ? (set.number - 1) % grips.length : 0,
                          label:
                            before && describeBasis(before.basis, room.unit) === asked
                              ? undefined
                              : asked,
                        };
                      }),
                    }}
                  />
                </th>
              );
            })}
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
                away: !isIn(block, athlete.id, dateOf(block, week, day)),
                empty: wave === undefined,
              }))}
              fullOf={fullOf}
              onEdit={live && mayEdit ? onEdit : undefined}
              drawnFrom={show !== "loads" || openOf.includes(athlete.id) ? block : undefined}
            />
          ))}
          {after > 0 ? <tr style={{ height: after }} aria-hidden /> : null}
        </tbody>
      </table>
      {live ? null : <p className="text-muted">and {data.athletes.length - rows} more athletes</p>}
      {editing ? (
        <OverrideBar
          key={`${editing.athlete.id}${editing.run.key}`}
          editing={editing}
          slotId={slotId}
          onClose={() => setEditing(undefined)}
        />
      ) : null}
    </Figures>
  );
}

/** The number of a basis, for the height of its bar; a slower speed of peak force is heavier. */
function askedValue(basis: WaveWeek["sets"][number]["basis"]): number {
  switch (basis.by) {
    case "percent":
    case "peak-power":
    case "body":
      return basis.percent;
    case "speed":
      return -basis.mps;
    case "peak-force":
      return basis.slowerMps;
    case "reserve":
      return -basis.reserve;
    case "found":
      return basis.plusKg;
    case "fixed":
      return basis.kg;
    case "eye":
      return 0;
  }
}

function weekWords(mark: string | undefined, wave: WaveWeek | undefined): string | undefined {
  if (mark) return mark;
  if (!wave) return "nothing of this slot";
  return wave.kind === "work" ? undefined : wave.kind;
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
