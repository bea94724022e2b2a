import { useState } from "react";
import { uuidv7 } from "uuidv7";
import type { RecipeStep, RecipeWeek } from "../../core/recipe/recipe";

const CELL = "field !px-1.5 text-right";

/**
 * An id that stays with a step or week, whatever happens around it, and that none had before: own
 * loads and logged sets hang on it.
 */
function freshId(prefix: string): string {
  return `${prefix}-${uuidv7().slice(-10)}`;
}

function Cell({
  path,
  label,
  value,
  problems,
}: {
  path: string;
  label: string;
  value: number | undefined;
  problems: Record<string, string>;
}) {
  return (
    <input
      className={CELL}
      name={path}
      defaultValue={value}
      inputMode="decimal"
      aria-label={label}
      aria-invalid={problems[path] ? true : undefined}
      title={problems[path]}
    />
  );
}

export function Steps({
  steps,
  unit,
  onChange,
  problems,
}: {
  steps: RecipeStep[];
  unit: string;
  onChange: (steps: RecipeStep[]) => void;
  problems: Record<string, string>;
}) {
  return (
    <fieldset className="border-t border-rule pt-1">
      <legend className="sr-only">Steps of a session</legend>
      <div className="grid grid-cols-[2.6rem_1fr_1fr_1fr_1.2fr_1.6rem] items-center gap-1 text-muted">
        <span>Step</span>
        <span className="text-right">sets</span>
        <span className="text-right">reps</span>
        <span className="text-right">to</span>
        <span className="text-right">+ {unit}</span>
        <span />
        {steps.map((step, i) => {
          const at = `steps.${i}`;
          const text = ["sets", "reps", "repsTo", "add"]
            .map((name) => problems[`${at}.${name}`])
            .find(Boolean);
          return (
            <span key={step.id} className="contents">
              <span>
                {i + 1}
                <input type="hidden" name={`${at}.id`} value={step.id} />
              </span>
              <Cell
                path={`${at}.sets`}
                label={`Step ${i + 1}, sets`}
                value={step.sets}
                problems={problems}
              />
              <Cell
                path={`${at}.reps`}
                label={`Step ${i + 1}, reps`}
                value={step.reps}
                problems={problems}
              />
              <Cell
                path={`${at}.repsTo`}
                label={`Step ${i + 1}, reps to`}
                value={step.repsTo}
                problems={problems}
              />
              <Cell
                path={`${at}.add`}
                label={`Step ${i + 1}, points added`}
                value={step.add}
                problems={problems}
              />
              <RemoveButton
                what={`step ${i + 1}`}
                onRemove={
                  steps.length > 1
                    ? () => onChange(steps.filter((other) => other.id !== step.id))
                    : undefined
                }
              />
              {text ? (
                <span className="col-span-6 font-medium text-accent">
                  Step {i + 1}: {text}
                </span>
              ) : null}
            </span>
          );
        })}
      </div>
      <button
        type="button"
        className="btn btn-sm mt-1"
        onClick={() => {
          const last = steps[steps.length - 1];
          onChange([
            ...steps,
            {
              id: freshId("s"),
              sets: last?.sets ?? 3,
              reps: last?.reps ?? 3,
              add: (last?.add ?? -5) + 5,
            },
          ]);
        }}
      >
        Add a step
      </button>
    </fieldset>
  );
}

const SHAPES = [
  ["steps", "steps"],
  ["flat", "flat"],
  ["deload", "deload"],
  ["test", "test"],
  ["off", "free"],
] as const;

export function Weeks({
  prefix,
  title,
  weeks,
  unit,
  onChange,
  problems,
}: {
  prefix: "weeks" | "tail";
  title: string;
  weeks: RecipeWeek[];
  unit: string;
  onChange: (weeks: RecipeWeek[]) => void;
  problems: Record<string, string>;
}) {
  const change = (id: string, patch: Partial<RecipeWeek>) =>
    onChange(weeks.map((week) => (week.id === id ? { ...week, ...patch } : week)));
  const word = prefix === "tail" ? "Tail week" : "Week";
  const [methods, setMethods] = useState(weeks.some((week) => week.method !== undefined));
  return (
    <fieldset className="border-t border-rule pt-1">
      <legend className="sr-only">{title}</legend>
      {weeks.length > 0 ? (
        <div className="grid grid-cols-[2.6rem_4.6rem_1fr_1fr_1fr_1.6rem] items-center gap-1 text-muted">
          <span>{prefix === "tail" ? "Tail" : "Week"}</span>
          <span />
          <span className="text-right">+ {unit}</span>
          <span className="text-right">+ sets</span>
          <span className="text-right">+ reps</span>
          <span />
          {weeks.map((week, i) => {
            const at = `${prefix}.${i}`;
            const shape =
              week.kind && week.kind !== "work" ? week.kind : week.flat ? "flat" : "steps";
            const text = Object.entries(problems).find(([path]) => path.startsWith(`${at}.`))?.[1];
            return (
              <span key={week.id} className="contents">
                {week.flat ? <FlatHead unit={unit} /> : null}
                <span>
                  {i + 1}
                  <input type="hidden" name={`${at}.id`} value={week.id} />
                </span>
                <select
                  className="field-select !px-1"
                  name={`${at}.shape`}
                  aria-label={`${word} ${i + 1}, shape`}
                  value={shape}
                  onChange={(event) => {
                    const next = event.target.value;
                    change(week.id, {
                      flat: next === "flat" ? { sets: 9, reps: 3, at: 50 } : undefined,
                      kind:
                        next === "deload" || next === "test" || next === "off" ? next : undefined,
                    });
                  }}
                >
                  {SHAPES.map(([value, words]) => (
                    <option key={value} value={value}>
                      {words}
                    </option>
                  ))}
                </select>
                {week.flat ? (
                  <>
                    <input type="hidden" name={`${at}.add`} value={week.add} />
                    {(["sets", "reps", "at"] as const).map((name) => (
                      <Cell
                        key={name}
                        path={`${at}.flat.${name}`}
                        label={`${word} ${i + 1}, flat ${name === "at" ? "percent" : name}`}
                        value={week.flat?.[name]}
                        problems={problems}
                      />
                    ))}
                  </>
                ) : (
                  <>
                    <Cell
                      path={`${at}.add`}
                      label={`${word} ${i + 1}, points added`}
                      value={week.add}
                      problems={problems}
                    />
                    <Cell
                      path={`${at}.moreSets`}
                      label={`${word} ${i + 1}, sets more`}
                      value={week.moreSets}
                      problems={problems}
                    />
                    <Cell
                      path={`${at}.moreReps`}
                      label={`${word} ${i + 1}, reps more`}
                      value={week.moreReps}
                      problems={problems}
                    />
                  </>
                )}
                <RemoveButton
                  what={`${word.toLowerCase()} ${i + 1}`}
                  onRemove={
                    weeks.length > 1 || prefix === "tail"
                      ? () => onChange(weeks.filter((other) => other.id !== week.id))
                      : undefined
                  }
                />
                {methods ? <MethodRow at={at} week={week} word={`${word} ${i + 1}`} /> : null}
                {text ? (
                  <span className="col-span-6 font-medium text-accent">
                    {word} {i + 1}: {text}
                  </span>
                ) : null}
              </span>
            );
          })}
        </div>
      ) : null}
      <button
        type="button"
        className="btn btn-sm mt-1"
        onClick={() => {
          const last = weeks[weeks.length - 1];
          onChange([
            ...weeks,
            prefix === "tail"
              ? { id: freshId("t"), add: 0, kind: "deload" }
              : { id: freshId("w"), add: (last?.add ?? -5) + 5 },
          ]);
        }}
      >
        {prefix === "tail" ? "Add a tail week" : "Add a week"}
      </button>
      {methods || prefix === "tail" ? null : (
        <button
          type="button"
          className="ml-3 text-sm underline underline-offset-3"
          onClick={() => setMethods(true)}
        >
          Methods week by week
        </button>
      )}
    </fieldset>
  );
}

/** A flat week has figures of its own under the columns of what weeks add. */
function FlatHead({ unit }: { unit: string }) {
  return (
    <span aria-hidden="true" className="contents text-sm">
      <span className="col-span-2" />
      {["sets", "reps", unit].map((words) => (
        <span key={words} className="text-right">
          {words}
        </span>
      ))}
      <span />
    </span>
  );
}

/** The method of a week in a rotation. */
function MethodRow({ at, week, word }: { at: string; week: RecipeWeek; word: string }) {
  return (
    <span className="col-span-6 mb-1 grid grid-cols-[1fr_3.4rem_4.6rem_3.4rem] items-center gap-1">
      <input type="hidden" name={`${at}.method.variantId`} value={week.method?.variantId ?? ""} />
      <input
        className="field"
        name={`${at}.method.name`}
        aria-label={`${word}, method`}
        placeholder="paused, banded …"
        defaultValue={week.method?.name}
      />
      <input
        className={CELL}
        name={`${at}.method.pauseS`}
        aria-label={`${word}, pause in seconds`}
        placeholder="pause"
        inputMode="decimal"
        defaultValue={week.method?.pauseS}
      />
      <select
        className="field-select !px-1"
        name={`${at}.method.resisted`}
        aria-label={`${word}, bands or chains`}
        defaultValue={week.method?.resisted ? "yes" : "no"}
      >
        <option value="no">bar</option>
        <option value="yes">bands</option>
      </select>
      <input
        className={CELL}
        name={`${at}.method.factor`}
        aria-label={`${word}, factor of the load`}
        placeholder="×"
        inputMode="decimal"
        defaultValue={week.method?.factor ?? 1}
      />
    </span>
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
