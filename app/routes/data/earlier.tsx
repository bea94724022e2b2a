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
import { SheetFile, SheetText, usePastedSheet } from "../../ui/pasted-sheet";
import { checkEarlier, keepEarlier, startEarlier } from "../../workflows/data/earlier.server";
import type { Route } from "./+types/earlier";
import { CheckedLines, KeepButtons, LiftQuestions } from "./checked-sheet";

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
          <LiftQuestions
            questions={checked.lifts}
            answers={lifts}
            onAnswer={(key, id) => setLifts({ ...lifts, [key]: id })}
          >
            {checked.askDates ? <DateQuestion slash={slash} onSlash={setSlash} /> : null}
          </LiftQuestions>
        ) : null}
        <KeepButtons checked={checked} open={open} asked={asked} busy={busy} />
        {checked ? (
          <CheckedLines
            checked={checked}
            roles={EARLIER_COLUMNS}
            names={EARLIER_COLUMN_NAMES}
            mapping={mapping ?? checked.mapping}
            onMap={setMapping}
          />
        ) : null}
      </Form>
    </Page>
  );
}

function DateQuestion({ slash, onSlash }: { slash: string; onSlash: (slash: string) => void }) {
  return (
    <Select
      label="In dates such as 3/4/2026 the first number is"
      value={slash}
      onChange={(event) => onSlash(event.target.value)}
    >
      <option value="">choose …</option>
      <option value="day-first">the day</option>
      <option value="month-first">the month</option>
    </Select>
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
