import { useState } from "react";
import { Form, useNavigation } from "react-router";
import {
  expandRecipe,
  type Recipe,
  type RecipeStep,
  type RecipeWeek,
} from "../../../core/wave/recipe";
import { Field, Select } from "../../ui/field";
import { Notice } from "../../ui/page";

type Result =
  | { ok: true; version?: number }
  | { ok: false; message?: string; problems?: Record<string, string> };

/** The recipe, as a short form: the cells of the plan follow from it when it is saved. */
export function RecipeForm({
  recipe,
  version,
  result,
  mayEdit,
}: {
  recipe: Recipe;
  version: number;
  result: Result | undefined;
  mayEdit: boolean;
}) {
  const busy = useNavigation().state === "submitting";
  const [steps, setSteps] = useState<RecipeStep[]>(recipe.steps);
  const [weeks, setWeeks] = useState<RecipeWeek[]>(recipe.weeks);
  const problems = result && !result.ok ? (result.problems ?? {}) : {};
  const shape = expandRecipe({ ...recipe, steps, weeks })
    .map((week) => week.sets.length)
    .join(", ");

  return (
    <Form method="post" aria-label="Recipe" className="grid gap-1.5" noValidate>
      <input type="hidden" name="version" value={version} />
      <input type="hidden" name="school" value={recipe.school} />
      <p className="text-muted">
        Recipe · {recipe.school} · {shape} sets a week
      </p>
      {result && !result.ok && result.message ? (
        <Notice kind="problem" title={result.message} />
      ) : null}
      {result?.ok ? (
        <p role="status" className="font-medium text-primary">
          Saved. Everybody's numbers follow.
        </p>
      ) : null}
      <Field label="Name" name="name" defaultValue={recipe.name} problem={problems.name} />
      <Select inline label="Aim" name="aim" defaultValue={recipe.aim}>
        {["speed", "power", "strength", "growth", "learning"].map((aim) => (
          <option key={aim}>{aim}</option>
        ))}
      </Select>
      <Field
        inline
        label="Starts at, %"
        name="startPercent"
        inputMode="decimal"
        defaultValue={recipe.startPercent}
        problem={problems.startPercent}
      />
      <Steps steps={steps} onChange={setSteps} problems={problems} />
      <Weeks weeks={weeks} onChange={setWeeks} problems={problems} />
      <Field
        inline
        label="Grips in turn"
        name="cycle"
        defaultValue={recipe.cycle.join(", ")}
        hint="Weakest first, comma between"
        problem={problems.cycle}
      />
      <fieldset className="grid grid-cols-[7.5rem_1fr_auto_1fr] items-center gap-x-2">
        <legend className="sr-only">Rest in seconds</legend>
        <span className="text-muted">Rest, s</span>
        <input
          className="field"
          name="rest.leastS"
          aria-label="Least rest, seconds"
          inputMode="numeric"
          defaultValue={recipe.rest.leastS}
          aria-invalid={problems.rest || problems["rest.leastS"] ? true : undefined}
        />
        <span className="text-muted">to</span>
        <input
          className="field"
          name="rest.mostS"
          aria-label="Most rest, seconds"
          inputMode="numeric"
          defaultValue={recipe.rest.mostS}
        />
        <Problem text={problems.rest ?? problems["rest.leastS"] ?? problems["rest.mostS"]} />
      </fieldset>
      <fieldset className="grid grid-cols-[7.5rem_1fr_auto_1fr] items-center gap-x-2">
        <legend className="sr-only">Wanted speed in metres a second</legend>
        <span className="text-muted">Wanted, m/s</span>
        <input
          className="field"
          name="target.lowMps"
          aria-label="Wanted speed from, m/s"
          placeholder="own"
          inputMode="decimal"
          defaultValue={recipe.target?.lowMps}
        />
        <span className="text-muted">to</span>
        <input
          className="field"
          name="target.highMps"
          aria-label="Wanted speed to, m/s"
          placeholder="profile"
          inputMode="decimal"
          defaultValue={recipe.target?.highMps}
        />
        <Problem
          text={problems.target ?? problems["target.lowMps"] ?? problems["target.highMps"]}
        />
      </fieldset>
      <Select inline label="Over speed" name="lead" defaultValue={recipe.lead}>
        <option value="percent">ask for more intent</option>
        <option value="velocity">add load</option>
      </Select>
      <fieldset className="grid grid-cols-[7.5rem_1fr_auto_1fr] items-center gap-x-2">
        <legend className="sr-only">What ends a set</legend>
        <span className="text-muted">Loss ends, %</span>
        <input
          className="field"
          name="stop.lossPercent"
          aria-label="Velocity loss that ends a set, percent"
          placeholder="not set"
          inputMode="decimal"
          defaultValue={recipe.stop.lossPercent}
          aria-invalid={problems["stop.lossPercent"] ? true : undefined}
        />
        <span className="text-muted">from</span>
        <select
          className="field-select"
          name="stop.lossFrom"
          aria-label="Loss counted from"
          defaultValue={recipe.stop.lossFrom}
        >
          <option value="best">best</option>
          <option value="first">first</option>
        </select>
        <Problem text={problems["stop.lossPercent"]} />
      </fieldset>
      <Field
        inline
        label="Floor, m/s"
        name="stop.floorMps"
        placeholder="not set"
        inputMode="decimal"
        defaultValue={recipe.stop.floorMps}
        problem={problems["stop.floorMps"]}
      />
      <input type="hidden" name="convention" value={recipe.convention} />
      {mayEdit ? (
        <button
          type="submit"
          name="intent"
          value="recipe"
          className="btn btn-primary mt-1"
          disabled={busy}
        >
          {busy ? "Saving …" : "Save the recipe"}
        </button>
      ) : (
        <p className="text-muted">An owner or coach changes the recipe.</p>
      )}
    </Form>
  );
}

function Problem({ text }: { text: string | undefined }) {
  return text ? <p className="col-span-3 col-start-2 font-medium text-accent">{text}</p> : null;
}

const CELL = "field !px-1.5 text-right";

/** An id that stays with a step or week, whatever happens around it. */
function freshId(prefix: string, taken: Array<{ id: string }>): string {
  let n = taken.length + 1;
  while (taken.some((one) => one.id === `${prefix}${n}`)) n++;
  return `${prefix}${n}`;
}

function Steps({
  steps,
  onChange,
  problems,
}: {
  steps: RecipeStep[];
  onChange: (steps: RecipeStep[]) => void;
  problems: Record<string, string>;
}) {
  return (
    <fieldset className="border-t border-rule pt-1">
      <legend className="sr-only">Steps of a session</legend>
      <div className="grid grid-cols-[4.2rem_1fr_1fr_1fr_2rem] items-center gap-1 text-muted">
        <span>Steps</span>
        <span className="text-right">sets</span>
        <span className="text-right">reps</span>
        <span className="text-right">+ points</span>
        <span />
        {steps.map((step, i) => (
          <StepRow
            key={step.id}
            step={step}
            index={i}
            problems={problems}
            onRemove={
              steps.length > 1
                ? () => onChange(steps.filter((other) => other.id !== step.id))
                : undefined
            }
          />
        ))}
      </div>
      <button
        type="button"
        className="btn btn-sm mt-1"
        onClick={() => {
          const last = steps[steps.length - 1];
          onChange([
            ...steps,
            {
              id: freshId("s", steps),
              sets: last?.sets ?? 3,
              reps: last?.reps ?? 3,
              addPoints: (last?.addPoints ?? -5) + 5,
            },
          ]);
        }}
      >
        Add a step
      </button>
    </fieldset>
  );
}

function StepRow({
  step,
  index,
  problems,
  onRemove,
}: {
  step: RecipeStep;
  index: number;
  problems: Record<string, string>;
  onRemove: (() => void) | undefined;
}) {
  const field = (name: "sets" | "reps" | "addPoints", label: string) => {
    const path = `steps.${index}.${name}`;
    return (
      <input
        className={CELL}
        name={path}
        defaultValue={step[name]}
        inputMode="decimal"
        aria-label={`Step ${index + 1}, ${label}`}
        aria-invalid={problems[path] ? true : undefined}
        title={problems[path]}
      />
    );
  };
  return (
    <>
      <span>
        step {index + 1}
        <input type="hidden" name={`steps.${index}.id`} value={step.id} />
      </span>
      {field("sets", "sets")}
      {field("reps", "reps")}
      {field("addPoints", "points added")}
      <RemoveButton what={`step ${index + 1}`} onRemove={onRemove} />
      {["sets", "reps", "addPoints"]
        .map((name) => problems[`steps.${index}.${name}`])
        .filter(Boolean)
        .slice(0, 1)
        .map((text) => (
          <p key={text} className="col-span-5 font-medium text-accent">
            Step {index + 1}: {text}
          </p>
        ))}
    </>
  );
}

function Weeks({
  weeks,
  onChange,
  problems,
}: {
  weeks: RecipeWeek[];
  onChange: (weeks: RecipeWeek[]) => void;
  problems: Record<string, string>;
}) {
  const change = (id: string, patch: Partial<RecipeWeek>) =>
    onChange(weeks.map((week) => (week.id === id ? { ...week, ...patch } : week)));
  return (
    <fieldset className="border-t border-rule pt-1">
      <legend className="sr-only">Weeks</legend>
      <div className="grid gap-1 text-muted">
        {weeks.map((week, i) => (
          <div
            key={week.id}
            className="grid grid-cols-[3.6rem_4.9rem_1fr_1fr_1fr_1.6rem] items-center gap-1"
          >
            <span>
              week {i + 1}
              <input type="hidden" name={`weeks.${i}.id`} value={week.id} />
            </span>
            <select
              className="field-select !px-1"
              name={`weeks.${i}.shape`}
              aria-label={`Week ${i + 1}, shape`}
              value={week.flat ? "flat" : "steps"}
              onChange={(event) =>
                change(week.id, {
                  flat:
                    event.target.value === "flat" ? { sets: 9, reps: 3, percent: 50 } : undefined,
                })
              }
            >
              <option value="steps">steps</option>
              <option value="flat">flat</option>
            </select>
            {week.flat ? (
              <>
                <input type="hidden" name={`weeks.${i}.addPoints`} value={week.addPoints} />
                {(["sets", "reps", "percent"] as const).map((name) => (
                  <input
                    key={name}
                    className={CELL}
                    name={`weeks.${i}.flat.${name}`}
                    defaultValue={week.flat?.[name]}
                    inputMode="decimal"
                    aria-label={`Week ${i + 1}, flat ${name}`}
                    aria-invalid={problems[`weeks.${i}.flat.${name}`] ? true : undefined}
                  />
                ))}
              </>
            ) : (
              <span className="col-span-3 grid grid-cols-[auto_1fr] items-center gap-1">
                + points
                <input
                  className={CELL}
                  name={`weeks.${i}.addPoints`}
                  defaultValue={week.addPoints}
                  inputMode="decimal"
                  aria-label={`Week ${i + 1}, points added`}
                  aria-invalid={problems[`weeks.${i}.addPoints`] ? true : undefined}
                />
              </span>
            )}
            <RemoveButton
              what={`week ${i + 1}`}
              onRemove={
                weeks.length > 1
                  ? () => onChange(weeks.filter((other) => other.id !== week.id))
                  : undefined
              }
            />
          </div>
        ))}
      </div>
      <button
        type="button"
        className="btn btn-sm mt-1"
        onClick={() => {
          const last = weeks[weeks.length - 1];
          onChange([...weeks, { id: freshId("w", weeks), addPoints: (last?.addPoints ?? -5) + 5 }]);
        }}
      >
        Add a week
      </button>
    </fieldset>
  );
}

function RemoveButton({ what, onRemove }: { what: string; onRemove: (() => void) | undefined }) {
  return (
    <button
      type="button"
      className="min-h-9 rounded text-lg hover:bg-wash disabled:opacity-30"
      aria-label={`Remove ${what}`}
      disabled={!onRemove}
      onClick={onRemove}
    >
      ×
    </button>
  );
}
