import { useRef, useState } from "react";
import { useNavigation } from "react-router";
import { BASIS_KINDS, BASIS_NAMES, BASIS_UNITS, type BasisKind } from "../../core/recipe/basis";
import {
  AFTER,
  AFTER_NAMES,
  AIMS,
  expandRecipe,
  type Recipe,
  type RecipeStep,
  type RecipeWeek,
} from "../../core/recipe/recipe";
import { hasOlderSpeeds } from "../../core/recipe/speeds";
import { Field, Select } from "./field";
import { Form } from "./form";
import { Notice } from "./page";
import { Steps, Weeks } from "./recipe-rows";

export type RecipeResult =
  | { ok: true; seq?: number }
  | { ok: false; message?: string | undefined; problems?: Record<string, string> };

/** What reads the fields comes with the first of them that is touched. */
const rules = () => import("../forms/recipe");

/**
 * The recipe as a form: everybody's numbers follow while it is typed, and stay when it is saved.
 * The fields are the recipe: where nobody keeps it here, it is sent as a form.
 */
export function RecipeForm({
  recipe,
  hidden,
  result,
  mayEdit,
  onTyping,
  onDraft,
  onKeep,
  intent = "recipe",
}: {
  recipe: Recipe;
  /** What says which slot, or which recipe of the library, this is. */
  hidden?: Record<string, string | number>;
  result: RecipeResult | undefined;
  mayEdit: boolean;
  /** Said with the keystroke itself, before it is read: whoever fills the form anew must not now. */
  onTyping?: (() => void) | undefined;
  /** The recipe as typed; undefined where it cannot be read, or is as it was kept. */
  onDraft?: ((recipe: Recipe | undefined) => void) | undefined;
  /** Takes the recipe in place of the server's action. */
  onKeep?: ((recipe: Recipe) => Promise<void>) | undefined;
  intent?: string;
}) {
  const sending = useNavigation().state === "submitting";
  const [keeping, setKeeping] = useState(false);
  const busy = sending || keeping;
  const [refused, setRefused] = useState(false);
  const [away, setAway] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  const [steps, setSteps] = useState<RecipeStep[]>(recipe.steps);
  const [weeks, setWeeks] = useState<RecipeWeek[]>(recipe.weeks);
  const [tail, setTail] = useState<RecipeWeek[]>(recipe.tail ?? []);
  const [basis, setBasis] = useState<BasisKind>(recipe.basis);
  const [typed, setTyped] = useState<Record<string, string>>({});
  const sent = result && !result.ok ? (result.problems ?? {}) : {};
  const problems = Object.keys(typed).length > 0 ? typed : sent;
  const shape = expandRecipe({ ...recipe, steps, weeks, tail })
    .map((week) => week.sets.length)
    .join(", ");

  const turn = useRef(0);
  const read = async () => {
    onTyping?.();
    const at = ++turn.current;
    const loaded = await rules().catch(() => undefined);
    // The newest typing is what is read.
    if (!loaded || !form.current || at !== turn.current) return;
    const { fieldProblems, recipeFromForm } = loaded;
    const parsed = recipeFromForm(new FormData(form.current));
    setTyped(parsed.success ? {} : fieldProblems(parsed.error));
    setRefused(false);
    onDraft?.(parsed.success ? parsed.data : undefined);
  };
  const keep = async (fields: FormData) => {
    const loaded = await rules().catch(() => undefined);
    setAway(!loaded);
    if (!loaded) return;
    const { fieldProblems, recipeFromForm } = loaded;
    const parsed = recipeFromForm(fields);
    setRefused(!parsed.success);
    if (!parsed.success) {
      setTyped(fieldProblems(parsed.error));
      return;
    }
    setKeeping(true);
    await onKeep?.(parsed.data);
    setKeeping(false);
  };
  const message = away
    ? "Nothing was saved: the link is lost. What you typed stays; try again once it is back."
    : refused
      ? "Nothing was saved: some fields need another look."
      : result && !result.ok
        ? result.message
        : undefined;
  // Steps and weeks that come or go are in the form after the next drawing.
  const later =
    <T,>(set: (value: T) => void) =>
    (value: T) => {
      set(value);
      requestAnimationFrame(() => void read());
    };
  const unit = BASIS_UNITS[basis];
  return (
    <Form
      ref={form}
      method="post"
      aria-label="Recipe"
      className="grid gap-1.5"
      noValidate
      onFocus={() => void rules()}
      onInput={() => void read()}
      onSubmit={(event) => {
        if (!onKeep) return;
        event.preventDefault();
        void keep(new FormData(event.currentTarget));
      }}
    >
      {Object.entries(hidden ?? {}).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <input type="hidden" name="school" value={recipe.school} />
      <p className="text-muted">
        Recipe · {recipe.school} · {shape} sets a week
      </p>
      {message ? <Notice kind="problem" title={message} /> : null}
      {result?.ok ? (
        <p role="status" className="font-medium text-primary">
          Saved. Everybody's numbers follow.
        </p>
      ) : null}
      <Field label="Name" name="name" defaultValue={recipe.name} problem={problems.name} />
      <Select inline label="Aim" name="aim" defaultValue={recipe.aim}>
        {AIMS.map((aim) => (
          <option key={aim}>{aim}</option>
        ))}
      </Select>
      <Select
        inline
        label="Load by"
        name="basis"
        value={basis}
        onChange={(event) => setBasis(event.target.value as BasisKind)}
      >
        {BASIS_KINDS.map((one) => (
          <option key={one} value={one}>
            {BASIS_NAMES[one]}
          </option>
        ))}
      </Select>
      {basis === "eye" ? (
        <input type="hidden" name="start" value="0" />
      ) : (
        <Field
          inline
          label={`Starts at, ${unit}`}
          name="start"
          inputMode="decimal"
          defaultValue={recipe.start}
          problem={problems.start}
        />
      )}
      <Steps steps={steps} unit={unit} onChange={later(setSteps)} problems={problems} />
      <Weeks
        prefix="weeks"
        title="Weeks"
        weeks={weeks}
        unit={unit}
        onChange={later(setWeeks)}
        problems={problems}
      />
      <Pair
        label="Rest, s"
        low={["rest.leastS", "Least rest, seconds", recipe.rest.leastS]}
        high={["rest.mostS", "Most rest, seconds", recipe.rest.mostS]}
        problem={problems.rest ?? problems["rest.leastS"] ?? problems["rest.mostS"]}
      />
      <Pair
        label="Wanted, m/s"
        low={["target.lowMps", "Wanted speed from, m/s", recipe.target?.lowMps]}
        high={["target.highMps", "Wanted speed to, m/s", recipe.target?.highMps]}
        placeholder={["own", "profile"]}
        problem={problems.target ?? problems["target.lowMps"] ?? problems["target.highMps"]}
      />
      <Field
        inline
        label="Grips in turn"
        name="cycle"
        defaultValue={recipe.cycle.join(", ")}
        hint="Weakest first, comma between"
        problem={problems.cycle}
      />
      <MoreFields
        recipe={recipe}
        unit={unit}
        tail={tail}
        onTail={later(setTail)}
        problems={problems}
      />
      {mayEdit ? (
        <button
          type="submit"
          name="intent"
          value={intent}
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

/** What most recipes leave as it is, folded away. */
function MoreFields({
  recipe,
  unit,
  tail,
  onTail,
  problems,
}: {
  recipe: Recipe;
  unit: string;
  tail: RecipeWeek[];
  onTail: (tail: RecipeWeek[]) => void;
  problems: Record<string, string>;
}) {
  const older = hasOlderSpeeds(recipe);
  const field = (
    label: string,
    name: string,
    value: string | number | undefined,
    hint?: string,
  ) => (
    <Field
      inline
      label={label}
      name={name}
      inputMode="decimal"
      defaultValue={value}
      placeholder="not set"
      hint={hint}
      problem={problems[name]}
    />
  );
  return (
    <details className="border-t border-rule pt-1" open={hasMore(recipe) || undefined}>
      <summary className="cursor-pointer py-1 text-muted underline underline-offset-3">
        Stops, tempo, clock, bands, tail
      </summary>
      <div className="grid gap-1.5">
        <Select inline label="Over speed" name="lead" defaultValue={recipe.lead}>
          <option value="percent">ask for more intent</option>
          <option value="velocity">add load</option>
        </Select>
        {field("Loss ends, %", "stop.lossPercent", recipe.stop.lossPercent)}
        <Select inline label="Loss from" name="stop.lossFrom" defaultValue={recipe.stop.lossFrom}>
          <option value="best">the set's best</option>
          <option value="first">its first rep</option>
        </Select>
        {field(
          "Floor, m/s",
          "stop.floorMps",
          recipe.stop.floorMps,
          older ? "older processing: look at it and keep" : undefined,
        )}
        {field("Down, s", "tempo.downS", recipe.tempo?.downS)}
        {field("Pause, s", "tempo.pauseS", recipe.tempo?.pauseS)}
        {field("A start every, s", "timed.everyS", recipe.timed?.everyS)}
        {field("for minutes", "timed.minutes", recipe.timed?.minutes)}
        {field("Up to a top", "top.reps", recipe.top?.reps, "1, 2 or 3 reps: a heavy slot")}
        {field("Tries near it", "top.tries", recipe.top?.tries)}
        {field(
          "Bands, chains, %",
          "resistancePercent",
          recipe.resistancePercent,
          "share of the lockout load",
        )}
        <Select inline label="What hangs" name="hangs" defaultValue={recipe.hangs ?? "either"}>
          <option value="either">bands or chains</option>
          <option value="bands">bands</option>
          <option value="chains">chains</option>
        </Select>
        <Select inline label="Percent counts" name="convention" defaultValue={recipe.convention}>
          <option value="bar">the bar only</option>
          <option value="lockout">the lockout total</option>
          <option value="mean">the mean over the range</option>
        </Select>
        {field("2nd session +", "sessionAdd", recipe.sessionAdd, "for a slot done twice a week")}
        {field("Least reserve", "leastReserve", recipe.leastReserve)}
        <Select inline label="Reps count" name="counts" defaultValue={recipe.counts ?? "reps"}>
          <option value="reps">reps</option>
          <option value="metres">metres</option>
          <option value="contacts">jump contacts</option>
        </Select>
        <Select inline label="Sides" name="sides" defaultValue={recipe.sides ?? "both"}>
          <option value="both">both at once</option>
          <option value="left-right">left, then right</option>
        </Select>
        {field("Weeks run", "repeats", recipe.repeats, "times before the tail")}
        <Weeks
          prefix="tail"
          title="Tail, once"
          weeks={tail}
          unit={unit}
          onChange={onTail}
          problems={problems}
        />
        <Select inline label="Then" name="after" defaultValue={recipe.after ?? "drop-back"}>
          {AFTER.map((one) => (
            <option key={one} value={one}>
              {AFTER_NAMES[one]}
            </option>
          ))}
        </Select>
      </div>
    </details>
  );
}

/** Whether the recipe uses what is folded away. */
function hasMore(recipe: Recipe): boolean {
  return Boolean(recipe.timed || recipe.top || recipe.tail?.length || recipe.tempo);
}

function Pair({
  label,
  low,
  high,
  placeholder,
  problem,
}: {
  label: string;
  low: [name: string, label: string, value: number | undefined];
  high: [name: string, label: string, value: number | undefined];
  placeholder?: [string, string];
  problem: string | undefined;
}) {
  const input = ([name, name2, value]: typeof low, hint: string | undefined) => (
    <input
      className="field"
      name={name}
      aria-label={name2}
      placeholder={hint}
      inputMode="decimal"
      defaultValue={value}
      aria-invalid={problem ? true : undefined}
    />
  );
  return (
    <fieldset className="grid grid-cols-[7.5rem_1fr_auto_1fr] items-center gap-x-2">
      <legend className="sr-only">{label}</legend>
      <span className="text-muted">{label}</span>
      {input(low, placeholder?.[0])}
      <span className="text-muted">to</span>
      {input(high, placeholder?.[1])}
      {problem ? <p className="col-span-3 col-start-2 font-medium text-accent">{problem}</p> : null}
    </fieldset>
  );
}
