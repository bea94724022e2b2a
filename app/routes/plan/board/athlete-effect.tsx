import { useMemo, useState } from "react";
import type { Block } from "../../../../core/plan/block";
import { type LoadRun, slotCells } from "../../../../core/plan/block-loads";
import { noOwn, noOwnRun, ownRun } from "../../../../core/plan/edits";
import { keysOfRun, movedLoads } from "../../../../core/plan/moved-loads";
import type { Lifter } from "../../../../core/prescribe/lifter";
import { withUnit } from "../../../../core/units/field-unit";
import { formatKg, kgToGrains, massIn, massKg, plainNumber } from "../../../../core/units/mass";
import { formatVelocity } from "../../../../core/units/velocity";
import { loadIn } from "../../../forms/load";
import { useUnit } from "../../../ui/unit";
import type { PlanPage } from "../../../workflows/plan/read-plan.server";
import { usePlanEdit } from "../plan-edits";

/** One athlete's loads of the picked week, typed where they shall be others; and how far the squad's move. */
export function AthleteEffect({
  data,
  block,
  slotId,
  week,
  athlete,
  choose,
  mayEdit,
}: {
  data: PlanPage;
  /** With what is being tried. */
  block: Block;
  slotId: string;
  week: number;
  athlete: Lifter | undefined;
  choose: (athleteId: string) => void;
  mayEdit: boolean;
}) {
  const { athletes, room } = data;
  const asked = { slotId, athletes, room, liftName: "" };
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is asked is made of these
  const now = useMemo(
    () => slotCells({ block, weeks: [week], ...asked })[0],
    [block, slotId, week, athletes, room],
  );
  const tried = block !== data.block;
  // biome-ignore lint/correctness/useExhaustiveDependencies: as above
  const moved = useMemo(() => {
    if (!tried) return undefined;
    const weeks = Array.from({ length: block.weeks }, (_, i) => i + 1);
    return movedLoads(
      slotCells({ block: data.block, weeks, ...asked }),
      slotCells({ block, weeks, ...asked }),
    );
  }, [tried, block, data.block, slotId, athletes, room]);
  const i = athletes.findIndex((one) => one.id === athlete?.id);
  const before = useMemo(
    () =>
      tried && athlete
        ? slotCells({
            block: data.block,
            slotId,
            weeks: [week],
            athletes: [athlete],
            room,
            liftName: "",
          })[0]?.byAthlete[0]
        : undefined,
    [tried, data.block, slotId, week, athlete, room],
  );
  if (!athlete || !now?.wave) return null;
  const runs = now.byAthlete[i] ?? [];
  return (
    <section aria-labelledby="athlete-effect" className="mt-4">
      <h3 id="athlete-effect" className="font-bold">
        In week {week} for
      </h3>
      <select
        className="field-select"
        aria-label="Athlete whose loads are shown"
        value={athlete.id}
        onChange={(event) => choose(event.target.value)}
      >
        {athletes.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
      <ul className="mt-1">
        {runs.map((run, at) => (
          <RunLine
            key={run.key}
            run={run}
            was={before?.[at]}
            keys={keysOfRun(now.wave?.sets ?? [], runs, at)}
            athleteId={athlete.id}
            slotId={slotId}
            mayEdit={mayEdit && !tried}
          />
        ))}
      </ul>
      <OwnOfSlot block={data.block} athleteId={athlete.id} slotId={slotId} mayEdit={mayEdit} />
      {moved ? (
        <p role="status" className="mt-1 font-medium text-secondary">
          {moved.loads === 0
            ? "No load of anybody moves."
            : `${moved.loads} loads of ${moved.athletes} ${moved.athletes === 1 ? "athlete" : "athletes"} move, in ${moved.weeks.length === 1 ? "week" : "weeks"} ${moved.weeks.join(", ")}.`}
        </p>
      ) : null}
    </section>
  );
}

/** A rest or floor of the athlete's own, as a review's call gave it, with the way back to the slot's. */
function OwnOfSlot({
  block,
  athleteId,
  slotId,
  mayEdit,
}: {
  block: Block;
  athleteId: string;
  slotId: string;
  mayEdit: boolean;
}) {
  const edit = usePlanEdit();
  const key = `${athleteId}/${slotId}`;
  const rest = block.rests?.[key];
  const floor = block.floors?.[key];
  const lines = [
    ...(rest ? [{ place: "rests" as const, words: `${rest.addS} s more rest`, by: rest.by }] : []),
    ...(floor
      ? [
          {
            place: "floors" as const,
            words: `own floor ${formatVelocity(floor.floorMps)} m/s`,
            by: floor.by,
          },
        ]
      : []),
  ];
  return lines.map(({ place, words, by }) => (
    <p key={place} className="text-secondary">
      {words} <span className="text-muted">({by})</span>{" "}
      {mayEdit ? (
        <button
          type="button"
          className="underline"
          onClick={() => void edit(noOwn(place, { athleteId, slotId }))}
        >
          as the slot
        </button>
      ) : null}
    </p>
  ));
}

function RunLine({
  run,
  was,
  keys,
  athleteId,
  slotId,
  mayEdit,
}: {
  run: LoadRun;
  was: LoadRun | undefined;
  keys: string[];
  athleteId: string;
  slotId: string;
  mayEdit: boolean;
}) {
  const unit = useUnit();
  const edit = usePlanEdit();
  const [problem, setProblem] = useState<string>();
  if (run.loadKg === undefined)
    return (
      <li className="border-b border-faint py-0.5">
        {run.count} × {run.reps} <span className="text-accent">{run.reason ?? ""}</span>
      </li>
    );
  const text = plainNumber(massIn(kgToGrains(run.loadKg), unit), 1);
  const keep = (typed: string) => {
    setProblem(undefined);
    if (typed.trim() === "" || typed.trim() === text) return;
    const load = loadIn(withUnit(typed, unit));
    if (!load.ok) return setProblem(load.message);
    void edit(ownRun({ athleteId, slotId, keys }, massKg(load.mass)));
  };
  return (
    <li className="flex flex-wrap items-baseline gap-x-2 border-b border-faint py-0.5">
      <span className="w-12 text-muted">
        {run.count} × {run.reps}
      </span>
      {mayEdit ? (
        <input
          key={text}
          className={`field !h-7 !w-20 text-right font-bold ${run.overridden ? "!border-b-2 !border-b-secondary" : ""}`}
          aria-label={`Load of ${run.count} sets of ${run.reps}, ${unit}`}
          inputMode="decimal"
          defaultValue={text}
          onKeyDown={(event) => {
            if (event.key === "Enter") event.currentTarget.blur();
          }}
          onBlur={(event) => keep(event.target.value)}
        />
      ) : (
        <b>{text}</b>
      )}
      <span className="text-muted">{unit}</span>
      {was?.loadKg !== undefined && was.loadKg !== run.loadKg ? (
        <span className="text-muted">was {formatKg(was.loadKg, unit, 1)}</span>
      ) : null}
      {run.overridden ? (
        <span className="text-secondary">
          own{" "}
          {mayEdit ? (
            <button
              type="button"
              className="underline"
              onClick={() => void edit(noOwnRun({ athleteId, slotId, keys }))}
            >
              as the recipe
            </button>
          ) : null}
        </span>
      ) : null}
      {problem ? (
        <span role="alert" className="w-full font-medium text-accent">
          {problem}
        </span>
      ) : null}
    </li>
  );
}
