import { Pencil } from "lucide-react";
import { useMemo, useState } from "react";
import { Form, Link } from "react-router";
import { describeSide } from "../../../core/barload/load";
import { maxWorking } from "../../../core/maxes/records";
import {
  type BlockAthlete,
  type LoadRun,
  setInFull,
  slotCells,
  variantIn,
} from "../../../core/session/blocknumbers";
import type { SetPrescription } from "../../../core/session/prescribe";
import { formatKg, kgToGrains, massIn, plainNumber } from "../../../core/units/mass";
import { formatPercent } from "../../../core/units/percent";
import { formatVelocity } from "../../../core/units/velocity";
import type { Working } from "../../../core/units/working";
import { describeBasis } from "../../../core/wave/basis";
import { type Block, dateOf, isIn, markOf } from "../../../core/wave/block";
import { expandRecipe, type Recipe, type WaveWeek } from "../../../core/wave/recipe";
import { useFirstRows } from "../../ui/use-first-rows";
import { WaveColumnPicture } from "../../ui/wave-chart";
import { Figures, useWorking } from "../../ui/working";
import type { PlanPage } from "../../workflows/plan/read-plan.server";

/**
 * Weeks that stand side by side without scrolling sideways: fewer where a week holds several
 * different loads. More are paged.
 */
export function weeksShown(recipe: Recipe | undefined, show: Show): number {
  if (!recipe) return 6;
  if (show === "plates") return 2;
  const loads = expandRecipe(recipe).map(
    (week) => new Set(week.sets.map((set) => describeBasis(set.basis))).size,
  );
  const most = Math.max(1, ...loads);
  const wide = show === "speed" ? 1 : 0;
  return (most >= 3 ? 4 : most === 2 ? 5 : 6) - wide;
}

export const SHOWS = ["loads", "percent", "plates", "speed"] as const;
export type Show = (typeof SHOWS)[number];
export const SHOW_NAMES: Record<Show, string> = {
  loads: "loads",
  percent: "true percentages",
  plates: "plates a side",
  speed: "wanted speeds, m/s",
};

interface Editing {
  athlete: BlockAthlete;
  run: LoadRun;
  week: number;
}

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
  if (!slot) return null;
  const day = block.days[slot.dayId] ?? { name: "", offset: 0 };
  const values = cells.flatMap((cell) => cell.wave?.sets.map((set) => askedValue(set.basis)) ?? []);
  const least = Math.min(...values);
  const most = Math.max(...values);
  const height = (value: number) =>
    most === least ? 0.6 : 0.25 + 0.75 * ((value - least) / (most - least));
  const grips = slot.recipe.cycle;
  return (
    <Figures label="Everybody's numbers" className="overflow-x-auto">
      <table className={`ledger ${data.athletes.length > 14 ? "ledger-tight" : ""}`}>
        <thead>
          <tr className="align-bottom">
            <th scope="col" className="!align-bottom">
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
                        const asked = describeBasis(set.basis);
                        const before = wave?.sets[i - 1];
                        return {
                          key: set.key,
                          height: height(askedValue(set.basis)),
                          shade: grips.length > 1 ? (set.number - 1) % grips.length : 0,
                          label:
                            before && describeBasis(before.basis) === asked ? undefined : asked,
                        };
                      }),
                    }}
                  />
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {athletes.map((athlete, row) => {
            const facts = lift && athlete.byVariant[lift.id];
            const max = facts?.workingMax;
            const grey = athlete.trainingYears !== undefined && athlete.trainingYears < 1;
            return (
              <tr key={athlete.id} className={grey ? "text-muted" : ""}>
                <th scope="row" className="!font-bold !text-base-content">
                  <Link className="hover:underline" to={`/athletes/${athlete.id}`}>
                    {athlete.name}
                  </Link>
                </th>
                <td className="text-right whitespace-nowrap">
                  {!lift ? null : max === undefined ? (
                    <span className="text-accent">not set</span>
                  ) : (
                    <LazyFigure
                      id={`max/${athlete.id}`}
                      working={() => maxWorking(max, lift.name)}
                      label={`${athlete.name}, working max ${formatKg(max.kg, athlete.unit, 1)}`}
                    >
                      {formatKg(max.kg, athlete.unit, 1)}
                    </LazyFigure>
                  )}
                </td>
                {cells.map(({ week, wave, byAthlete }) => (
                  <td
                    key={week}
                    className="group relative border-l border-rule pr-6! whitespace-nowrap"
                  >
                    {isIn(block, athlete.id, dateOf(block, week, day)) ? null : (
                      <span className="text-sm text-secondary">away </span>
                    )}
                    <WeekLoads
                      athlete={athlete}
                      runs={byAthlete[row] ?? []}
                      show={show}
                      fullOf={(run) => runInFull({ data, block, slotId, wave, run, athlete })}
                      onEdit={
                        live && mayEdit && wave
                          ? (run) => setEditing({ athlete, run, week })
                          : undefined
                      }
                    />
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      {live ? null : <p className="text-muted">and {data.athletes.length - rows} more athletes</p>}
      {editing ? (
        <OverrideBar
          key={`${editing.athlete.id}${editing.run.key}`}
          editing={editing}
          slotId={slotId}
          base={data.plan.version}
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
  athlete: BlockAthlete;
}): SetPrescription | undefined {
  const { data, block, slotId, wave, run, athlete } = input;
  const slot = block.slots[slotId];
  const set = wave?.sets.find((one) => one.key === run.key);
  if (!slot || !wave || !set) return undefined;
  const lift = data.lifts.find((one) => one.id === variantIn(slot, wave));
  if (!lift) return undefined;
  return setInFull({ block, slotId, week: wave, set, athlete, room: data.room, lift });
}

/** Sets with the same load one after the other stand as one figure; its working is the first's. */
function WeekLoads({
  athlete,
  runs,
  show,
  fullOf,
  onEdit,
}: {
  athlete: BlockAthlete;
  runs: LoadRun[];
  show: Show;
  fullOf: (run: LoadRun) => SetPrescription | undefined;
  onEdit: ((run: LoadRun) => void) | undefined;
}) {
  const unit = athlete.unit ?? "kg";
  return (
    <>
      {runs.map((run, i) => {
        if (run.loadKg === undefined) {
          return run.reason ? (
            <span key={run.key} className="text-sm text-accent" title={run.reason}>
              no load: {run.reason.split(".")[0]}
            </span>
          ) : (
            <span key={run.key} className="text-muted">
              {run.count} × {run.reps}
            </span>
          );
        }
        const text = plainNumber(massIn(kgToGrains(run.loadKg), unit), 1);
        const shown = show === "loads" ? text : cellText(show, fullOf(run));
        return (
          <span key={run.key} className={run.overridden ? "border-b-2 border-secondary" : ""}>
            {i > 0 ? <span className="text-muted"> · </span> : null}
            <LazyFigure
              id={`${athlete.id}/${run.key}`}
              working={() => fullOf(run)?.working}
              label={`${athlete.name}, ${run.count} sets of ${run.reps} at ${text} ${unit}${run.overridden ? ", a coach's own load" : ""}`}
            >
              {shown}
            </LazyFigure>
          </span>
        );
      })}
      {runs.length > 0 && onEdit ? (
        <button
          type="button"
          className="absolute top-1 right-0.5 rounded bg-base-100 p-0.5 text-muted opacity-0 group-hover:opacity-100 focus:opacity-100 hover:text-base-content hover:opacity-100"
          title="A load of your own"
          aria-label={`Set a load of your own for ${athlete.name}`}
          onClick={() => onEdit(runs[0] as LoadRun)}
        >
          <Pencil className="size-4" aria-hidden />
        </button>
      ) : null}
    </>
  );
}

/** A cell in another way than its load. */
function cellText(show: Exclude<Show, "loads">, set: SetPrescription | undefined): string {
  if (!set) return "–";
  switch (show) {
    case "percent":
      return set.truePercent === undefined ? "–" : formatPercent(set.truePercent);
    case "plates":
      return describeSide(set.side);
    case "speed":
      return set.target
        ? `${formatVelocity(set.target.lowMps)}–${formatVelocity(set.target.highMps)}`
        : "not set";
  }
}

/** A figure whose working is put together when somebody asks for it: a page holds thousands. */
function LazyFigure({
  id,
  working,
  label,
  children,
}: {
  id: string;
  working: () => Working | undefined;
  label: string;
  children: string;
}) {
  const { selected, select } = useWorking();
  const pressed = selected?.key === id;
  return (
    <button
      type="button"
      data-figure={id}
      className="figure"
      aria-pressed={pressed}
      aria-label={label}
      onClick={() => {
        const found = pressed ? undefined : working();
        select(found && { key: id, working: found });
      }}
    >
      {children}
    </button>
  );
}

function OverrideBar({
  editing,
  slotId,
  base,
  onClose,
}: {
  editing: Editing;
  slotId: string;
  base: number;
  onClose: () => void;
}) {
  const { athlete, run, week } = editing;
  const unit = athlete.unit ?? "kg";
  const shown =
    run.loadKg === undefined ? "" : plainNumber(massIn(kgToGrains(run.loadKg), unit), 1);
  return (
    <Form
      method="post"
      onSubmit={onClose}
      className="sticky bottom-0 left-0 mt-2 flex flex-wrap items-end gap-3 border-t border-control bg-base-200 p-3"
      aria-label={`Own load for ${athlete.name}, week ${week}`}
    >
      <input type="hidden" name="athleteId" value={athlete.id} />
      <input type="hidden" name="setKey" value={run.key} />
      <input type="hidden" name="slotId" value={slotId} />
      <input type="hidden" name="week" value={week} />
      <input type="hidden" name="base" value={base} />
      <label>
        <span className="block text-muted">
          {athlete.name}, week {week}: your load
        </span>
        <input
          // biome-ignore lint/a11y/noAutofocus: opened by the coach to type into
          autoFocus
          name="load"
          className="field w-40"
          defaultValue={`${shown} ${unit}`}
        />
      </label>
      <button type="submit" name="intent" value="override" className="btn btn-primary">
        Set this load
      </button>
      {run.overridden ? (
        <button type="submit" name="intent" value="lift" className="btn">
          Back to the recipe
        </button>
      ) : null}
      <button type="button" className="btn" onClick={onClose}>
        Cancel
      </button>
    </Form>
  );
}
