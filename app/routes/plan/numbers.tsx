import { useState } from "react";
import { Form, Link } from "react-router";
import type { SessionPlan } from "../../../core/session/freeze";
import type { SetPrescription } from "../../../core/session/prescribe";
import { formatKg, kgToGrains, massIn, plainNumber } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import type { Working } from "../../../core/units/working";
import type { WaveSet } from "../../../core/wave/recipe";
import { WaveColumnPicture } from "../../ui/wave-chart";
import { Figure, Figures } from "../../ui/working";

interface Week {
  number: number;
  date: string;
  sets: WaveSet[];
  byAthlete: SetPrescription[][];
  session: { id: string; status: string } | undefined;
}

interface Athlete {
  id: string;
  name: string;
  unit: "kg" | "lb" | undefined;
  maxKg: number | undefined;
  maxWorking: Working | undefined;
  trainingYears: number | undefined;
}

interface Editing {
  athlete: Athlete;
  set: SetPrescription;
}

/** The wave over its dates, and in the same columns everybody's loads. */
export function Numbers({
  plan,
  weeks,
  athletes,
  mayEdit,
}: {
  plan: SessionPlan;
  weeks: Week[];
  athletes: Athlete[];
  mayEdit: boolean;
}) {
  const [editing, setEditing] = useState<Editing>();
  const percents = weeks.flatMap((week) => week.sets.map((set) => set.percent));
  const least = Math.floor((Math.min(...percents) - 12) / 10) * 10;
  const most = Math.ceil((Math.max(...percents) + 4) / 10) * 10;
  const grips = plan.recipe.cycle;
  return (
    <Figures label="Everybody's numbers" className="overflow-x-auto">
      <table className="ledger">
        <thead>
          <tr className="align-bottom">
            <th scope="col" className="!align-bottom">
              Athlete
            </th>
            <th scope="col" className="!text-right !align-bottom">
              working max
            </th>
            {weeks.map((week) => (
              <th
                key={week.number}
                scope="col"
                className="border-l border-rule !p-0 text-base-content"
                style={{ width: `${Math.floor(74 / weeks.length)}%` }}
              >
                <span className="flex justify-between gap-x-2 px-2 pt-1">
                  <b>Week {week.number}</b>
                  <span className="text-muted">{week.date}</span>
                </span>
                <span className="block h-5 px-2 text-left text-sm">
                  {week.session ? (
                    <Link
                      className="underline"
                      to={
                        week.session.status === "running"
                          ? `/floor/${week.session.id}`
                          : `/review/${week.session.id}`
                      }
                    >
                      {week.session.status === "running" ? "on the floor" : "done"}
                    </Link>
                  ) : null}
                </span>
                <WaveColumnPicture
                  least={least}
                  most={most}
                  column={{
                    title: `Week ${week.number}`,
                    date: week.date,
                    sets: week.sets.map((set, i) => ({
                      key: set.key,
                      percent: set.percent,
                      shade: grips.length > 1 ? (set.number - 1) % grips.length : 0,
                      label:
                        week.sets[i - 1]?.percent === set.percent
                          ? undefined
                          : `${plainNumber(set.percent)} %`,
                    })),
                  }}
                />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {athletes.map((athlete, row) => {
            const grey = athlete.trainingYears !== undefined && athlete.trainingYears < 1;
            return (
              <tr key={athlete.id} className={grey ? "text-muted" : ""}>
                <th scope="row" className="!font-bold !text-base-content">
                  <Link className="hover:underline" to={`/athletes/${athlete.id}`}>
                    {athlete.name}
                  </Link>
                </th>
                <td className="text-right whitespace-nowrap">
                  {athlete.maxKg === undefined ? (
                    <span className="text-accent">not set</span>
                  ) : (
                    <Figure
                      id={`max/${athlete.id}`}
                      working={athlete.maxWorking}
                      label={`${athlete.name}, working max ${formatKg(athlete.maxKg, athlete.unit, 1)}`}
                    >
                      {formatKg(athlete.maxKg, athlete.unit, 1)}
                    </Figure>
                  )}
                </td>
                {weeks.map((week) => (
                  <td key={week.number} className="group border-l border-rule whitespace-nowrap">
                    <WeekLoads
                      athlete={athlete}
                      sets={week.byAthlete[row] ?? []}
                      onEdit={mayEdit ? (set) => setEditing({ athlete, set }) : undefined}
                    />
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
      {editing ? (
        <OverrideBar
          key={`${editing.athlete.id}${editing.set.key}`}
          editing={editing}
          onClose={() => setEditing(undefined)}
        />
      ) : null}
    </Figures>
  );
}

/** Sets with the same load one after the other stand as one figure; its working is the first's. */
function WeekLoads({
  athlete,
  sets,
  onEdit,
}: {
  athlete: Athlete;
  sets: SetPrescription[];
  onEdit: ((set: SetPrescription) => void) | undefined;
}) {
  const runs: Array<{ set: SetPrescription; count: number }> = [];
  for (const set of sets) {
    const last = runs[runs.length - 1];
    if (last && last.set.loadKg === set.loadKg && last.set.overridden === set.overridden) {
      last.count++;
    } else runs.push({ set, count: 1 });
  }
  const unit = athlete.unit ?? "kg";
  return (
    <>
      {runs.map(({ set, count }, i) => {
        if (set.loadKg === undefined) {
          return (
            <span key={set.key} className="text-sm text-accent" title={set.loadReason}>
              no load: {set.loadReason?.split(".")[0]}
            </span>
          );
        }
        const text = plainNumber(massIn(kgToGrains(set.loadKg), unit), 1);
        const target = set.target
          ? `, wanted ${formatVelocity(set.target.lowMps)} to ${formatVelocity(set.target.highMps)} m/s`
          : "";
        return (
          <span key={set.key} className={set.overridden ? "border-b-2 border-secondary" : ""}>
            {i > 0 ? <span className="text-muted"> · </span> : null}
            <Figure
              id={`${athlete.id}/${set.key}`}
              working={set.working}
              label={`${athlete.name}, ${count} sets of ${set.reps} at ${text} ${unit}${set.overridden ? ", a coach's own load" : ""}${target}`}
            >
              {text}
            </Figure>
          </span>
        );
      })}
      {runs.length > 0 && onEdit ? (
        <button
          type="button"
          className="ml-2 rounded px-1 text-sm text-muted opacity-0 group-hover:opacity-100 focus:opacity-100 hover:underline hover:opacity-100"
          aria-label={`Set a load of your own for ${athlete.name}`}
          onClick={() => onEdit((runs[0] as { set: SetPrescription }).set)}
        >
          own load
        </button>
      ) : null}
    </>
  );
}

function OverrideBar({ editing, onClose }: { editing: Editing; onClose: () => void }) {
  const { athlete, set } = editing;
  const unit = athlete.unit ?? "kg";
  const shown =
    set.loadKg === undefined ? "" : plainNumber(massIn(kgToGrains(set.loadKg), unit), 1);
  return (
    <Form
      method="post"
      onSubmit={onClose}
      className="sticky bottom-0 left-0 mt-2 flex flex-wrap items-end gap-3 border-t border-control bg-base-200 p-3"
      aria-label={`Own load for ${athlete.name}, set ${set.number}`}
    >
      <input type="hidden" name="athleteId" value={athlete.id} />
      <input type="hidden" name="setKey" value={set.key} />
      <label>
        <span className="block text-muted">
          {athlete.name}, set {set.number}: your load
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
      {set.overridden ? (
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
