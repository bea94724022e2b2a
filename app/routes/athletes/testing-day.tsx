import { Link, useNavigation } from "react-router";
import type { DayEntry, TestingDay } from "../../../core/maxes/testing-day";
import { formatMass } from "../../../core/units/mass";
import { isDate } from "../../../core/units/time";
import { idFrom } from "../../forms/primitives/id";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import {
  checkTestingDay,
  type KeptDay,
  keepTestingDay,
  MOST_PASTED,
  makeWorkingMaxes,
  startTestingDay,
} from "../../workflows/athletes/testing-day.server";
import type { Route } from "./+types/testing-day";

export function meta() {
  return [{ title: "Testing day · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return startTestingDay(principalOf(context));
}

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const form = await readForm(request);
  if (form.get("intent") === "use") {
    const ids = String(form.get("records") ?? "").split(",");
    if (!ids.every((id) => idFrom(id) === id))
      return { ok: false as const, message: "These records could not be read.", day: undefined };
    const used = await makeWorkingMaxes(principal, ids);
    return used.ok
      ? { ok: true as const, used: used.value }
      : { ok: false as const, message: used.message, day: undefined };
  }
  const text = String(form.get("text") ?? "");
  const lifts = Object.fromEntries(
    [...form].flatMap(([name, value]) =>
      name.startsWith("lift:") && value !== "" ? [[name.slice(5), String(value)]] : [],
    ),
  );
  const date = String(form.get("date") ?? "");
  const fail = (message: string) => ({ ok: false as const, message, day: undefined });
  if (text.trim() === "")
    return fail("Paste the testing day first: a header, then a line an athlete.");
  if (text.length > MOST_PASTED)
    return fail("This is over 200,000 characters. Paste a squad at a time.");
  if (!isDate(date)) return fail("Choose the day of the tests.");
  if (form.get("intent") === "keep") {
    const kept = await keepTestingDay(principal, { text, date, lifts });
    if (!kept.ok) {
      return {
        ok: false as const,
        message: kept.message,
        day: await checkTestingDay(principal, { text, date, lifts }),
        answered: lifts,
      };
    }
    return { ok: true as const, kept: kept.value };
  }
  return {
    ok: false as const,
    message: "",
    day: await checkTestingDay(principal, { text, date, lifts }),
    answered: lifts,
  };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

/** A whole testing day from a spreadsheet: checked line by line, kept whole or not at all. */
export default function TestingDayPage({ loaderData, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  const failure = actionData && !actionData.ok ? actionData : undefined;
  const day = failure && "day" in failure ? failure.day : undefined;
  const bad = day
    ? day.problems.length +
      day.questions.length +
      day.lines.filter((one) => one.problems.length > 0).length
    : 0;
  const answered = failure && "answered" in failure ? (failure.answered ?? {}) : {};
  const done = actionData?.ok ? actionData : undefined;
  return (
    <Page
      title="Testing day"
      facts="Paste it from a spreadsheet. Every line is checked; all of it is kept, or none."
      margin={
        <div className="text-sm">
          <h2>Columns</h2>
          <p className="text-muted">
            The first line names them, in any order. A lift by its name or the start of it.
          </p>
          <ul className="mt-1">
            {loaderData.columns.map((column) => (
              <li key={column} className="border-b border-faint py-0.5">
                {column}
              </li>
            ))}
          </ul>
          <p className="mt-2 text-muted">
            A lift's cell: 92.5, 205 lb, or a set as 85 x 3. A test's cell: its trials with blanks
            between.
          </p>
        </div>
      }
    >
      {done && "used" in done && done.used ? (
        <Notice
          kind="note"
          title={`${done.used.maxes} working maxes of ${done.used.athletes} athletes: plans count from them now.`}
        >
          <Link className="underline" to="/athletes">
            To the squad table
          </Link>
        </Notice>
      ) : null}
      {done && "kept" in done && done.kept ? <Kept kept={done.kept} /> : null}
      <Form method="post" aria-label="Testing day" noValidate>
        <div className="flex flex-wrap items-end gap-3">
          <Field
            label="Day of the tests"
            name="date"
            type="date"
            defaultValue={loaderData.today}
            max={loaderData.today}
          />
        </div>
        <label htmlFor="paste" className="mt-2 block text-muted">
          The lines
        </label>
        <textarea
          id="paste"
          name="text"
          rows={8}
          spellCheck={false}
          className="field !h-auto w-full py-2 font-mono text-[0.85rem]"
          placeholder={
            "Athlete\tBench press, straight bar\tVertical jump, hands on hips\nFirst Last\t92.5\t38.1 38.9"
          }
        />
        {failure?.message ? <Notice kind="problem" title={failure.message} /> : null}
        {day?.questions.map((question) => (
          <div key={question.key} className="my-2 w-96 max-w-full">
            <Select
              label={`"${question.text}" is, on every line`}
              name={`lift:${question.key}`}
              defaultValue=""
            >
              <option value="">choose …</option>
              {question.choices.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </Select>
          </div>
        ))}
        {Object.entries(answered).map(([key, id]) => (
          <input key={key} type="hidden" name={`lift:${key}`} value={id} />
        ))}
        <div className="mt-2 flex flex-wrap gap-2">
          <button
            type="submit"
            name="intent"
            value="check"
            className={day && bad === 0 ? "btn" : "btn btn-primary"}
            disabled={busy}
          >
            Check the lines
          </button>
          {day && bad === 0 ? (
            <button
              type="submit"
              name="intent"
              value="keep"
              className="btn btn-primary"
              disabled={busy}
            >
              Keep all {day.entries} values
            </button>
          ) : null}
        </div>
      </Form>
      {day ? <Checked day={day} bad={bad} /> : null}
    </Page>
  );
}

/** What a kept day ends with: its records, one button from being what plans count from. */
function Kept({ kept }: { kept: KeptDay }) {
  return (
    <Notice kind="note" title={`Kept: ${kept.entries} values of ${kept.athletes} athletes.`}>
      {kept.records.length > 0 ? (
        <Form method="post" className="mt-1 flex flex-wrap items-center gap-3">
          <input type="hidden" name="records" value={kept.records.join(",")} />
          <button type="submit" name="intent" value="use" className="btn btn-primary">
            Use these {kept.records.length} as working maxes
          </button>
          <span>Of several records of one lift the newest stands, of one day the heaviest.</span>
        </Form>
      ) : (
        <Link className="underline" to="/athletes">
          To the squad table
        </Link>
      )}
    </Notice>
  );
}

function Checked({ day, bad }: { day: TestingDay; bad: number }) {
  return (
    <section aria-labelledby="checked-title" className="mt-4">
      <h2 id="checked-title" role="status">
        {bad === 0
          ? `${day.lines.length} lines read, ${day.entries} values, nothing wrong`
          : bad === day.questions.length
            ? "Say which lift it is, above; then check the lines again"
            : `${bad} to mend of ${day.lines.length} lines; nothing is kept until all are right`}
      </h2>
      {day.problems.map((text) => (
        <Notice key={text} kind="problem" title={text} />
      ))}
      <div className="overflow-x-auto">
        <table className="ledger mt-1">
          <thead>
            <tr>
              <th scope="col" className="!text-right">
                Line
              </th>
              <th scope="col">Athlete</th>
              <th scope="col">Read as</th>
            </tr>
          </thead>
          <tbody>
            {day.lines.map((line) => (
              <tr key={line.line} className={line.problems.length > 0 ? "bg-rust-wash" : ""}>
                <td className="text-right text-muted">{line.line}</td>
                <th scope="row" className="!text-base-content">
                  {line.athleteName || "?"}
                </th>
                <td>
                  {line.problems.map((text) => (
                    <p key={text} className="font-medium text-accent">
                      {text}
                    </p>
                  ))}
                  {line.entries.map(({ column, entry }) => (
                    <span key={column} className="mr-4 inline-block">
                      <span className="text-muted">{column}</span> {describeEntry(entry)}
                    </span>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

function describeEntry(entry: DayEntry) {
  if (entry.kind === "body-mass") return formatMass(entry.mass);
  if (entry.kind === "result") return entry.trials.join(", ");
  return (
    <>
      {formatMass(entry.load)}
      {entry.record === "rep-max-estimate" ? " (estimate)" : ""}
      {entry.look ? <b className="text-secondary"> {entry.look}</b> : null}
    </>
  );
}
