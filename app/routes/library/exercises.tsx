import { useMemo } from "react";
import { Link } from "react-router";
import {
  EXERCISE_LIMITS,
  MUSCLES,
  PATTERN_NAMES,
  PATTERNS,
  SIDES,
  SIDES_NAMES,
} from "../../../core/exercise/exercise";
import { SPEED_CLASS_NAMES, SPEED_CLASSES } from "../../../core/exercise/speed-classes";
import { formObject } from "../../forms/athlete";
import { ExerciseForm } from "../../forms/library";
import { idFrom } from "../../forms/primitives/id";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { type FormResult, resultOf } from "../../ui/adder";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Empty, Notice, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { keepOnFilter, useAddress } from "../../ui/use-address";
import {
  type ExerciseOnPage,
  fillLibrary,
  keepExercise,
  readExercises,
  shelveExercise,
} from "../../workflows/library/library.server";
import type { Route } from "./+types/exercises";
import { LibraryTabs } from "./library-tabs";

export function meta() {
  return [{ title: "Exercises · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return { exercises: await readExercises(principal), mayEdit: mayWrite(principal, "/library") };
}

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const fields = formObject(await readForm(request));
  if (fields.intent === "fill") return { intent: "fill", ...(await fillLibrary(principal)) };
  if (fields.intent === "away" || fields.intent === "back") {
    return {
      intent: fields.intent,
      ...(await shelveExercise(principal, idFrom(fields.id), fields.intent === "away")),
    };
  }
  const parsed = ExerciseForm.safeParse(fields);
  if (!parsed.success) {
    return { ok: false as const, intent: "exercise", problems: fieldProblems(parsed.error) };
  }
  return { intent: "exercise", ...(await keepExercise(principal, parsed.data)) };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = keepOnFilter;

export default function Exercises({ loaderData, actionData }: Route.ComponentProps) {
  const { exercises, mayEdit } = loaderData;
  const { params, get, set } = useAddress();
  const find = get("find").toLowerCase();
  const listed = exercises.filter(
    (one) =>
      (get("pattern") === "" || one.pattern === get("pattern")) &&
      (get("class") === "" || one.speedClass === get("class")) &&
      (get("without") === "" || !one.excludes.some((limit) => limit === get("without"))) &&
      one.away === (get("away") === "yes") &&
      (find === "" ||
        [one.name, ...one.main, ...one.gear].some((text) => text.toLowerCase().includes(find))),
  );
  const chosen = exercises.find((one) => one.id === get("exercise"));
  const result = resultOf(actionData, "exercise");
  return (
    <Page
      title="Library"
      facts={`${exercises.filter((one) => !one.away).length} exercises; add your own, change any`}
      margin={
        mayEdit ? (
          <ExerciseEditor
            key={chosen?.id ?? "new"}
            chosen={chosen}
            exercises={exercises}
            result={result}
            onNew={() => set("exercise", "")}
          />
        ) : undefined
      }
    >
      <LibraryTabs />
      <search className="mb-2 flex flex-wrap items-end gap-3">
        <span className="w-44">
          <Field
            label="Find"
            defaultValue={get("find")}
            placeholder="name, muscle, gear"
            onChange={(event) => set("find", event.target.value)}
          />
        </span>
        <span className="w-44">
          <PageSelect
            label="Pattern"
            value={get("pattern")}
            onChange={(event) => set("pattern", event.target.value)}
          >
            <option value="">all</option>
            {PATTERNS.map((one) => (
              <option key={one} value={one}>
                {PATTERN_NAMES[one]}
              </option>
            ))}
          </PageSelect>
        </span>
        <span className="w-44">
          <PageSelect
            label="Speed class"
            value={get("class")}
            onChange={(event) => set("class", event.target.value)}
          >
            <option value="">all</option>
            {SPEED_CLASSES.map((one) => (
              <option key={one} value={one}>
                {SPEED_CLASS_NAMES[one]}
              </option>
            ))}
          </PageSelect>
        </span>
        <span className="w-40">
          <PageSelect
            label="Safe with"
            value={get("without")}
            onChange={(event) => set("without", event.target.value)}
          >
            <option value="">any limit</option>
            {EXERCISE_LIMITS.map((one) => (
              <option key={one} value={one}>
                a limit: {one}
              </option>
            ))}
          </PageSelect>
        </span>
        <label className="flex min-h-9 items-center gap-1">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            defaultChecked={get("away") === "yes"}
            onChange={(event) => set("away", event.target.checked ? "yes" : "")}
          />
          put away
        </label>
      </search>
      <div className="overflow-x-auto">
        <table className="ledger ledger-tight">
          <thead>
            <tr>
              <th scope="col">Exercise</th>
              <th scope="col">Pattern</th>
              <th scope="col">Speed class</th>
              <th scope="col">Muscles</th>
              <th scope="col">Gear</th>
              <th scope="col">↓ easier, ↑ harder</th>
              <th scope="col">Left out for</th>
            </tr>
          </thead>
          <tbody>
            {listed.map((one) => (
              <tr key={one.id} aria-current={one.id === chosen?.id ? "true" : undefined}>
                <th scope="row" className="!text-base-content">
                  <Link
                    className={`hover:underline ${one.id === chosen?.id ? "font-bold" : ""}`}
                    to={`?${withExercise(params, one.id)}`}
                    preventScrollReset
                    replace
                  >
                    {one.name}
                  </Link>
                </th>
                <td className="text-muted">{PATTERN_NAMES[one.pattern]}</td>
                <td>{SPEED_CLASS_NAMES[one.speedClass]}</td>
                <td title={one.assisting.join(", ")}>{one.main.join(", ")}</td>
                <td className="w-1/5 max-w-0 truncate text-muted">{one.gear.join(", ")}</td>
                <td
                  className="w-1/4 max-w-0 truncate text-muted"
                  title={`Easier: ${stepNames(one.easier) || "none"}. Harder: ${stepNames(one.harder) || "none"}.`}
                >
                  {one.easier.length > 0 ? `↓ ${stepNames(one.easier)} ` : ""}
                  {one.harder.length > 0 ? `↑ ${stepNames(one.harder)}` : ""}
                </td>
                <td className="w-1/5 max-w-0 truncate text-secondary">{one.excludes.join(", ")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {exercises.length === 0 ? (
        <Empty
          action={
            mayEdit ? (
              <Form method="post">
                <button type="submit" name="intent" value="fill" className="btn btn-primary">
                  Copy the shipped exercises and tests
                </button>
              </Form>
            ) : null
          }
        >
          No exercise yet. Start from the shipped list and make it your own.
        </Empty>
      ) : listed.length === 0 ? (
        <p className="py-3 text-muted">No exercise fits. Clear a filter above.</p>
      ) : null}
    </Page>
  );
}

const stepNames = (steps: Array<{ name: string }>) => steps.map((step) => step.name).join(", ");

function withExercise(params: URLSearchParams, id: string): string {
  const next = new URLSearchParams(params);
  next.set("exercise", id);
  return next.toString();
}

function ExerciseEditor({
  chosen,
  exercises,
  result,
  onNew,
}: {
  chosen: ExerciseOnPage | undefined;
  exercises: ExerciseOnPage[];
  result: FormResult | undefined;
  onNew: () => void;
}) {
  const problems = result?.problems ?? {};
  const others = useMemo(
    () => exercises.filter((one) => one.id !== chosen?.id && !one.away),
    [exercises, chosen],
  );
  return (
    <div className="lg:sticky lg:top-14 lg:max-h-[calc(100dvh-4.5rem)] lg:overflow-y-auto">
      <Form method="post" aria-label="Exercise" className="grid gap-2" noValidate>
        <h2>{chosen ? chosen.name : "New exercise"}</h2>
        {chosen ? (
          <p className="text-sm text-muted">
            {chosen.changedBy ? `Changed by ${chosen.changedBy}.` : "As shipped."}{" "}
            <button type="button" className="underline" onClick={onNew}>
              New one instead
            </button>
          </p>
        ) : null}
        <input type="hidden" name="id" value={chosen?.id ?? ""} />
        <Field
          label="Name"
          name="name"
          inline
          defaultValue={chosen?.name}
          problem={problems.name}
        />
        <Select label="Pattern" name="pattern" inline defaultValue={chosen?.pattern}>
          {PATTERNS.map((one) => (
            <option key={one} value={one}>
              {PATTERN_NAMES[one]}
            </option>
          ))}
        </Select>
        <Select label="Speed class" name="speedClass" inline defaultValue={chosen?.speedClass}>
          {SPEED_CLASSES.map((one) => (
            <option key={one} value={one}>
              {SPEED_CLASS_NAMES[one]}
            </option>
          ))}
        </Select>
        <Select label="Sides" name="sides" inline defaultValue={chosen?.sides}>
          {SIDES.map((one) => (
            <option key={one} value={one}>
              {SIDES_NAMES[one]}
            </option>
          ))}
        </Select>
        <Field
          label="Gear"
          name="gear"
          inline
          placeholder="bar, rack"
          defaultValue={chosen?.gear.join(", ")}
        />
        <Field
          label="Cue"
          name="cue"
          inline
          hint="one short line, on the athlete's card"
          maxLength={80}
          defaultValue={chosen?.cue}
          problem={problems.cue}
        />
        <Checks
          name="main"
          title="Main muscles"
          all={MUSCLES}
          on={chosen?.main ?? []}
          problem={problems.main}
        />
        <Checks name="assisting" title="Assisting" all={MUSCLES} on={chosen?.assisting ?? []} />
        <Checks
          name="excludes"
          title="Left out for"
          all={EXERCISE_LIMITS}
          on={chosen?.excludes ?? []}
        />
        <Select label="Easier one" name="easier" inline defaultValue={chosen?.easier[0]?.id ?? ""}>
          <option value="">none</option>
          {others.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
        {result?.message ? <Notice kind="problem" title={result.message} /> : null}
        {result?.ok ? (
          <p role="status" className="font-medium text-primary">
            Kept.
          </p>
        ) : null}
        <button type="submit" name="intent" value="exercise" className="btn btn-primary">
          {chosen ? "Keep the change" : "Add the exercise"}
        </button>
      </Form>
      {chosen ? (
        <Form method="post" className="mt-2">
          <input type="hidden" name="id" value={chosen.id} />
          <button
            type="submit"
            name="intent"
            value={chosen.away ? "back" : "away"}
            className="btn w-full"
          >
            {chosen.away ? "Take it back into the lists" : "Put away"}
          </button>
        </Form>
      ) : null}
    </div>
  );
}

function Checks({
  name,
  title,
  all,
  on,
  problem,
}: {
  name: string;
  title: string;
  all: readonly string[];
  on: readonly string[];
  problem?: string | undefined;
}) {
  return (
    <details open={problem !== undefined || undefined}>
      <summary className="cursor-pointer">
        <span className="text-muted">{title}</span> {on.join(", ") || "none"}
      </summary>
      <fieldset className="grid grid-cols-2">
        <legend className="sr-only">{title}</legend>
        {all.map((one) => (
          <label key={one} className="flex min-h-7 items-center gap-1 text-sm">
            <input
              type="checkbox"
              name={name}
              value={one}
              defaultChecked={on.includes(one)}
              className="checkbox checkbox-xs"
            />
            {one}
          </label>
        ))}
      </fieldset>
      {problem ? <p className="font-medium text-accent">{problem}</p> : null}
    </details>
  );
}
