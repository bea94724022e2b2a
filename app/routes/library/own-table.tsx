import { useState } from "react";
import { Link, redirect, useNavigation } from "react-router";
import type { PercentTable, TableQuestion, WrittenWeek } from "../../../core/recipe/percent-table";
import { AIMS } from "../../../core/recipe/recipe";
import { formObject } from "../../forms/athlete";
import { OwnTableForm, readOwnTable } from "../../forms/own-table";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { problemsOf } from "../../ui/adder";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { WaveColumnPicture } from "../../ui/wave-chart";
import { keepOwnTable } from "../../workflows/library/plan-library.server";
import type { Route } from "./+types/own-table";
import { LibraryTabs } from "./library-tabs";

export function meta() {
  return [{ title: "Your own table · Sprezza" }];
}

export function loader() {
  return null;
}

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = OwnTableForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success)
    return { ok: false as const, problems: fieldProblems(parsed.error), message: undefined };
  const kept = await keepOwnTable(principalOf(context), parsed.data);
  if (kept.ok) throw redirect(`/library/recipes?recipe=${kept.value.id}`);
  return { ok: false as const, problems: {}, message: kept.message };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

const EXAMPLE = "Week 1: 12x2 50\nWeek 2: 10x2 55\nWeek 3: 8x2 60\ndeload 6x2 45";

/** A coach's own table of sets and percentages, weeks downwards, as a recipe: read as it is typed. */
export default function OwnTablePage({ actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  const [text, setText] = useState("");
  const [answers, setAnswers] = useState<Record<TableQuestion["about"], string>>({
    column: "",
    list: "",
  });
  const [swapped, setSwapped] = useState(false);
  const order = swapped ? "reps-sets" : "sets-reps";
  const table =
    text.trim() === ""
      ? undefined
      : readOwnTable(text, {
          column: answers.column === "" ? undefined : Number(answers.column),
          list: (answers.list || undefined) as "each" | "share" | "weeks" | undefined,
          order,
        });
  const problems = problemsOf(actionData);
  return (
    <Page
      title="Library"
      facts="Your own table of sets and percentages becomes a recipe."
      actions={
        <Link className="btn" to="/library/recipes">
          Recipes
        </Link>
      }
      margin={<How />}
    >
      <LibraryTabs />
      <Form method="post" aria-label="Your own table" noValidate>
        <input type="hidden" name="column" value={answers.column} />
        <input type="hidden" name="list" value={answers.list} />
        <input type="hidden" name="order" value={order} />
        <label htmlFor="own-table" className="block text-muted">
          The table, a week a line
        </label>
        <textarea
          id="own-table"
          name="text"
          rows={7}
          spellCheck={false}
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            setAnswers({ column: "", list: "" });
          }}
          className="field !h-auto w-full max-w-3xl py-2 font-mono text-[0.9rem]"
          placeholder={EXAMPLE}
        />
        {problems.text ? <p className="font-medium text-accent">{problems.text}</p> : null}
        {actionData?.message ? <Notice kind="problem" title={actionData.message} /> : null}
        {table ? (
          <Read
            table={table}
            answers={answers}
            onAnswer={(about, value) => setAnswers({ ...answers, [about]: value })}
            swapped={swapped}
            onSwap={setSwapped}
          />
        ) : null}
        {table?.shape ? (
          <div className="mt-4 flex flex-wrap items-end gap-3 border-t border-rule pt-3">
            <span className="w-72">
              <Field label="Name of the recipe" name="name" problem={problems.name} required />
            </span>
            <span className="w-40">
              <Select label="For" name="aim">
                {AIMS.map((aim) => (
                  <option key={aim} value={aim}>
                    {aim}
                  </option>
                ))}
              </Select>
            </span>
            <button type="submit" className="btn btn-primary" disabled={busy}>
              Keep it as a recipe
            </button>
            <p className="basis-full text-sm text-muted">
              Rests and endings begin as the shipped recipes of that aim have them; the recipe opens
              next, to be changed.
            </p>
          </div>
        ) : null}
      </Form>
    </Page>
  );
}

function Read({
  table,
  answers,
  onAnswer,
  swapped,
  onSwap,
}: {
  table: PercentTable;
  answers: Record<TableQuestion["about"], string>;
  onAnswer: (about: TableQuestion["about"], value: string) => void;
  swapped: boolean;
  onSwap: (swapped: boolean) => void;
}) {
  return (
    <section aria-labelledby="read-title" className="mt-3">
      <h2 id="read-title" role="status">
        {table.shape
          ? `${table.weeks.length} ${table.weeks.length === 1 ? "week" : "weeks"} read`
          : table.problems.length > 0
            ? `${table.problems.length} to mend`
            : "A question first"}
      </h2>
      {table.problems.map((one) => (
        <Notice
          key={`${one.line}${one.text}`}
          kind="problem"
          title={`Line ${one.line}: ${one.text}`}
        />
      ))}
      {table.questions.map((question) => (
        <fieldset key={question.about} className="my-2 border-l-[3px] border-primary pl-3">
          <legend className="font-bold">{question.text}</legend>
          {question.choices.map((choice) => (
            <label key={choice.value} className="flex min-h-8 items-center gap-2">
              <input
                type="radio"
                name={`answer-${question.about}`}
                className="radio radio-sm border-control"
                checked={answers[question.about] === choice.value}
                onChange={() => onAnswer(question.about, choice.value)}
              />
              {choice.words}
            </label>
          ))}
        </fieldset>
      ))}
      {answers.list || answers.column ? (
        <button
          type="button"
          className="underline"
          onClick={() => onAnswer(answers.list ? "list" : "column", "")}
        >
          Ask me again
        </button>
      ) : null}
      {table.shape ? (
        <>
          <Weeks weeks={table.weeks} />
          <label className="mt-2 flex min-h-8 items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={swapped}
              onChange={(event) => onSwap(event.target.checked)}
            />
            Here the reps stand first: 4x2 is two sets of four
          </label>
        </>
      ) : null}
    </section>
  );
}

/** The weeks as they were read: a picture and the words of each. */
function Weeks({ weeks }: { weeks: readonly WrittenWeek[] }) {
  const highest = Math.max(...weeks.flatMap((week) => week.groups.map((one) => one.percent)), 1);
  return (
    <div className="flex gap-2 overflow-x-auto py-2">
      {weeks.map((week, i) => {
        const sets = week.groups.flatMap((group, at) =>
          Array.from({ length: group.sets }, (_, place) => ({
            key: `${at}.${place}`,
            height: group.percent / highest,
            shade: 0,
            label: place === 0 ? `${group.percent} %` : undefined,
          })),
        );
        const words = week.groups
          .map((group) => `${group.sets} × ${group.reps} @ ${group.percent} %`)
          .join(", ");
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a week is its place
          <div key={i} className="w-40 shrink-0">
            <p className="font-bold">
              Week {i + 1}
              {week.kind === "work" ? "" : `, ${week.kind}`}
            </p>
            <WaveColumnPicture
              column={{
                title: `Week ${i + 1}`,
                sets,
                ...(sets.length === 0 ? { words: week.kind } : {}),
              }}
            />
            <p className="text-sm text-muted">{words || "no sets written"}</p>
          </div>
        );
      })}
    </div>
  );
}

function How() {
  return (
    <div className="grid gap-2 text-sm">
      <h2>How it is read</h2>
      <p className="text-muted">
        A line is a week: sets x reps and a percentage of the working max. Several blocks of one
        session stand after one another.
      </p>
      <pre className="bg-base-100 p-2 whitespace-pre-wrap">
        {"12x2 50\n3x3 40, 3x3 45, 3x3 50\n70% 5x3; 80% 2x2\ndeload 5x2 40\ntest"}
      </pre>
      <p className="text-muted">
        From a spreadsheet, titles and a column of weeks are left aside; where several columns hold
        sets, you choose. A list such as 4x2 45/50/55 can mean three things: it is asked.
      </p>
      <p className="text-muted">
        What a recipe cannot hold exactly is said, and nothing is made of it.
      </p>
    </div>
  );
}
