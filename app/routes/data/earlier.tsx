import { useState } from "react";
import { Link, useNavigation } from "react-router";
import {
  EARLIER_COLUMN_NAMES,
  EARLIER_COLUMNS,
  type EarlierMapping,
} from "../../../core/maxes/earlier-rows";
import { formObject } from "../../forms/athlete";
import { MOST_LIST_TEXT } from "../../forms/athlete-list";
import { EarlierForm } from "../../forms/earlier";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { ColumnRoles, SheetFile, SheetText, usePastedSheet } from "../../ui/pasted-sheet";
import {
  type CheckedSheet,
  checkEarlier,
  keepEarlier,
  startEarlier,
} from "../../workflows/data/earlier.server";
import type { Route } from "./+types/earlier";

export function meta() {
  return [{ title: "Earlier sessions · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return startEarlier(principalOf(context));
}

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const parsed = EarlierForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success) {
    const [message] = Object.values(fieldProblems(parsed.error));
    return { ok: false as const, message: message ?? "This sheet could not be read." };
  }
  const check = () => checkEarlier(principal, parsed.data);
  if (parsed.data.intent === "check")
    return { ok: false as const, message: "", checked: await check() };
  const kept = await keepEarlier(principal, parsed.data);
  if (kept.ok) return { ok: true as const, kept: kept.value };
  return { ok: false as const, message: kept.message, checked: await check() };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

const EXAMPLE =
  "Date\tAthlete\tLift\tSets\tReps\tLoad\tSpeed\n2026-01-05\tFirst Last\tBack squat\t5\t3\t80\t0.82";

/** A coach's own sheet of sessions from before: read line by line, kept as history. */
export default function Earlier({ loaderData, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  const [mapping, setMapping] = useState<EarlierMapping>();
  const [lifts, setLifts] = useState<Record<string, string>>({});
  const [slash, setSlash] = useState("");
  const [checkedText, setCheckedText] = useState("");
  const sheet = usePastedSheet(MOST_LIST_TEXT, () => {
    setMapping(undefined);
    setLifts({});
    setSlash("");
  });
  const checked =
    actionData && "checked" in actionData && checkedText === sheet.text
      ? actionData.checked
      : undefined;
  const kept = actionData && "kept" in actionData ? actionData.kept : undefined;
  const open = checked
    ? checked.bad + checked.lifts.length + (checked.askDates ? 1 : 0) + checked.problems.length
    : 0;
  const asked = checked ? checked.lifts.length > 0 || checked.askDates : false;
  return (
    <Page
      title="Earlier sessions"
      facts="Your own sheet of sets from before, kept as history and marked imported."
      actions={
        <Link className="btn" to="/data">
          Data
        </Link>
      }
      margin={<Known lifts={loaderData.lifts} />}
    >
      {kept ? (
        <Notice
          kind="note"
          title={`Kept: ${kept.kept} lines${kept.known > 0 ? `, ${kept.known} were here already` : ""}${kept.left > 0 ? `, ${kept.left} left out` : ""}.`}
        >
          They stand on each athlete's page, under History.
        </Notice>
      ) : null}
      <Form
        method="post"
        aria-label="Earlier sessions"
        noValidate
        onSubmit={() => setCheckedText(sheet.text)}
      >
        <input type="hidden" name="fileName" value={sheet.fileName} />
        <input type="hidden" name="mapping" value={mapping ? JSON.stringify(mapping) : ""} />
        <input type="hidden" name="lifts" value={JSON.stringify(lifts)} />
        <input type="hidden" name="slash" value={slash} />
        <div className="flex flex-wrap items-end gap-3">
          <span className="w-40">
            <Select label="Bare loads are in" name="unit" defaultValue={loaderData.unit}>
              <option value="kg">kilograms</option>
              <option value="lb">pounds</option>
            </Select>
          </span>
          <SheetFile sheet={sheet} />
        </div>
        {sheet.fault ? <Notice kind="problem" title={sheet.fault} /> : null}
        <SheetText
          sheet={sheet}
          label="The sheet: a header, then a line for the sets of one lift at one load"
          example={EXAMPLE}
          rows={checked ? 5 : 10}
        />
        {actionData && !actionData.ok && actionData.message ? (
          <Notice kind="problem" title={actionData.message} />
        ) : null}
        {checked ? (
          <Questions
            checked={checked}
            lifts={lifts}
            onLift={(key, id) => setLifts({ ...lifts, [key]: id })}
            slash={slash}
            onSlash={setSlash}
          />
        ) : null}
        <div className="mt-2 flex flex-wrap gap-2">
          <button
            type="submit"
            name="intent"
            value="check"
            className={checked && open === 0 ? "btn" : "btn btn-primary"}
            disabled={busy}
          >
            {busy ? "Reading …" : "Check the sheet"}
          </button>
          {checked && checked.good > 0 && open === 0 ? (
            <button
              type="submit"
              name="intent"
              value="keep"
              className="btn btn-primary"
              disabled={busy}
            >
              Keep all {checked.good} lines
            </button>
          ) : null}
          {checked && checked.good > 0 && checked.bad > 0 && !asked ? (
            <button type="submit" name="intent" value="keep-good" className="btn" disabled={busy}>
              Keep the {checked.good} good lines, leave {checked.bad}
            </button>
          ) : null}
        </div>
        {checked ? (
          <Checked checked={checked} mapping={mapping ?? checked.mapping} onMap={setMapping} />
        ) : null}
      </Form>
    </Page>
  );
}

function Questions({
  checked,
  lifts,
  onLift,
  slash,
  onSlash,
}: {
  checked: CheckedSheet;
  lifts: Record<string, string>;
  onLift: (key: string, id: string) => void;
  slash: string;
  onSlash: (slash: string) => void;
}) {
  if (checked.lifts.length === 0 && !checked.askDates) return null;
  return (
    <fieldset className="my-2 grid max-w-xl gap-2 border-l-[3px] border-primary pl-3">
      <legend className="font-bold">Asked once, for all lines</legend>
      {checked.lifts.map((question) => (
        <Select
          key={question.key}
          label={`"${question.text}" is`}
          value={lifts[question.key] ?? ""}
          onChange={(event) => onLift(question.key, event.target.value)}
        >
          <option value="">choose …</option>
          {question.choices.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
      ))}
      {checked.askDates ? (
        <Select
          label="In dates such as 3/4/2026 the first number is"
          value={slash}
          onChange={(event) => onSlash(event.target.value)}
        >
          <option value="">choose …</option>
          <option value="day-first">the day</option>
          <option value="month-first">the month</option>
        </Select>
      ) : null}
    </fieldset>
  );
}

function Checked({
  checked,
  mapping,
  onMap,
}: {
  checked: CheckedSheet;
  mapping: EarlierMapping;
  onMap: (mapping: EarlierMapping) => void;
}) {
  const { header, lines, total, bad, good, problems } = checked;
  return (
    <section aria-labelledby="checked-title" className="mt-3">
      <h2 id="checked-title" role="status">
        {total} {total === 1 ? "line" : "lines"}: {good} to keep
        {bad > 0 ? `, ${bad} to mend` : ""}
      </h2>
      {problems.map((text) => (
        <Notice key={text} kind="problem" title={text} />
      ))}
      <ColumnRoles
        titles={header}
        roles={EARLIER_COLUMNS}
        names={EARLIER_COLUMN_NAMES}
        columns={mapping}
        onChange={onMap}
      />
      {lines.length > 0 ? (
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col" className="!text-right">
                Line
              </th>
              <th scope="col">As written</th>
              <th scope="col">What is wrong</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((one) => (
              <tr key={one.line} className={one.problems.length > 0 ? "bg-rust-wash" : ""}>
                <td className="text-right text-muted">{one.line}</td>
                <td>{one.text}</td>
                <td className="font-medium text-accent">{one.problems.join(" ")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {total > lines.length ? (
        <p className="py-1 text-muted">
          {total - lines.length} more lines are not shown; those with faults stand first.
        </p>
      ) : null}
    </section>
  );
}

function Known({ lifts }: { lifts: string[] }) {
  return (
    <div className="text-sm">
      <h2>Columns</h2>
      <p className="text-muted">
        Date, athlete, lift and load are needed, and sets or reps; 5x3 in one cell is both. A speed
        is kept as the sheet has it: it makes no profile.
      </p>
      <h2 className="mt-3">Your lifts</h2>
      <ul>
        {lifts.map((one) => (
          <li key={one} className="border-b border-faint py-0.5">
            {one}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-muted">
        A part of a name is enough where only one lift has it; else it is asked once. Imported loads
        count as lifted before, and as nothing else.
      </p>
    </div>
  );
}
