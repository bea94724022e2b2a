import { Pencil } from "lucide-react";
import { createContext, use } from "react";
import { describeSide } from "../../../core/barload/load";
import { maxWorking } from "../../../core/maxes/records";
import type { LoadRun } from "../../../core/plan/block-loads";
import type { Lifter } from "../../../core/prescribe/lifter";
import type { SetPrescription } from "../../../core/prescribe/prescribe";
import { formatKg, kgToGrains, type MassUnit, massIn, plainNumber } from "../../../core/units/mass";
import { formatPercent } from "../../../core/units/percent";
import { formatVelocity } from "../../../core/units/velocity";
import type { Working } from "../../../core/units/working";
import { useUnit } from "../../ui/unit";
import { useFigure } from "../../ui/working";
import type { Show } from "./shows";

/** What cells and workings are made of besides the loads. */
export const MadeOf = createContext<unknown>(undefined);

/** Sets with the same load one after the other stand as one figure; its working is the first's. */
export function WeekLoads({
  athlete,
  runs,
  show,
  fullOf,
  onEdit,
}: {
  athlete: Lifter;
  runs: readonly LoadRun[];
  show: Show;
  fullOf: (run: LoadRun) => SetPrescription | undefined;
  onEdit: ((run: LoadRun) => void) | undefined;
}) {
  const unit = useUnit();
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
            {run.elsewhere.map(({ rack, kg }) => (
              <span key={rack} className="text-sm text-secondary">
                {" "}
                rack {rack}: {plainNumber(massIn(kgToGrains(kg), unit), 1)}
              </span>
            ))}
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

/** An athlete's working max of the slot's lift; nothing for an exercise. */
export function MaxFigure({
  athlete,
  lift,
  unit,
  none,
}: {
  athlete: Lifter;
  lift: { id: string; name: string } | undefined;
  unit: MassUnit;
  /** Said where there is none. */
  none: string;
}) {
  if (!lift) return null;
  const max = athlete.byVariant[lift.id]?.workingMax;
  if (max === undefined) return <span className="text-accent">{none}</span>;
  const text = formatKg(max.kg, unit, 1);
  return (
    <LazyFigure
      id={`max/${athlete.id}`}
      working={() => maxWorking(max, lift.name)}
      label={`${athlete.name}, working max ${text}`}
    >
      {text}
    </LazyFigure>
  );
}

/** A figure whose working is put together when somebody asks for it: a page holds thousands. */
export function LazyFigure({
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
  const { pressed, select } = useFigure(id, working);
  // An open figure follows what it is made of; the others are spared it.
  if (pressed) use(MadeOf);
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
