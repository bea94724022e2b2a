import { useState } from "react";
import { Link, useNavigation } from "react-router";
import {
  RECORD_COLUMN_NAMES,
  RECORD_COLUMNS,
  type RecordMapping,
} from "../../../core/maxes/record-rows";
import { MAX_KIND_NAMES, MAX_KINDS } from "../../../core/maxes/records";
import { formObject } from "../../forms/athlete";
import { MOST_LIST_TEXT } from "../../forms/athlete-list";
import { fieldProblems } from "../../forms/recipe";
import { RecordsForm } from "../../forms/records";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { SheetFile, SheetText, usePastedSheet } from "../../ui/pasted-sheet";
import { checkRecords, keepRecords, startRecords } from "../../workflows/data/records.server";
import type { Route } from "./+types/records";
import { CheckedLines, KeepButtons, LiftQuestions } from "./checked-sheet";

export function meta() {
  return [{ title: "Max records · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return startRecords(principalOf(context));
}

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const parsed = RecordsForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success) {
    const [message] = Object.values(fieldProblems(parsed.error));
    return { ok: false as const, message: message ?? "This sheet could not be read." };
  }
  const check = () => checkRecords(principal, parsed.data);
  if (parsed.data.intent === "check")
    return { ok: false as const, message: "", checked: await check() };
  const kept = await keepRecords(principal, parsed.data);
  if (kept.ok) return { ok: true as const, kept: kept.value };
  return { ok: false as const, message: kept.message, checked: await check() };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

const EXAMPLE =
  "athlete\tlift\tdate\tload\tunit\tkind\tnote\nFirst Last\tBack squat\t2026-01-05\t142.5\tkg\tTested in training\t";

/** Max records in, as records.csv goes out: read line by line, kept beside those that are there. */
export default function Records({ loaderData, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  const [mapping, setMapping] = useState<RecordMapping>();
  const [lifts, setLifts] = useState<Record<string, string>>({});
  const [checkedText, setCheckedText] = useState("");
  const sheet = usePastedSheet(MOST_LIST_TEXT, () => {
    setMapping(undefined);
    setLifts({});
  });
  const checked =
    actionData && "checked" in actionData && checkedText === sheet.text
      ? actionData.checked
      : undefined;
  const kept = actionData && "kept" in actionData ? actionData.kept : undefined;
  const asked = checked ? checked.lifts.length > 0 : false;
  const open = checked ? checked.bad + checked.lifts.length + checked.problems.length : 0;
  return (
    <Page
      title="Max records"
      facts="From a sheet or from records.csv. What is there already is kept once."
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
          title={`Kept: ${kept.kept} records${kept.known > 0 ? `, ${kept.known} were here already` : ""}${kept.left > 0 ? `, ${kept.left} left out` : ""}.`}
        >
          They stand on each athlete's page. No working max was changed: choose there which record
          percentages stand on.
        </Notice>
      ) : null}
      <Form
        method="post"
        aria-label="Max records"
        noValidate
        onSubmit={() => setCheckedText(sheet.text)}
      >
        <input type="hidden" name="fileName" value={sheet.fileName} />
        <input type="hidden" name="mapping" value={mapping ? JSON.stringify(mapping) : ""} />
        <input type="hidden" name="lifts" value={JSON.stringify(lifts)} />
        <div className="flex flex-wrap items-end gap-3">
          <span className="w-40">
            <Select label="Bare loads are in" name="unit" defaultValue={loaderData.unit}>
              <option value="kg">kilograms</option>
              <option value="lb">pounds</option>
            </Select>
          </span>
          <span className="w-52">
            <Select label="A record without a kind is" name="kind" defaultValue="tested">
              {MAX_KINDS.map((kind) => (
                <option key={kind} value={kind}>
                  {MAX_KIND_NAMES[kind]}
                </option>
              ))}
            </Select>
          </span>
          <SheetFile sheet={sheet} />
        </div>
        {sheet.fault ? <Notice kind="problem" title={sheet.fault} /> : null}
        <SheetText
          sheet={sheet}
          label="The sheet: a header, then a record a line"
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
          />
        ) : null}
        <KeepButtons checked={checked} open={open} asked={asked} busy={busy} />
        {checked ? (
          <CheckedLines
            checked={checked}
            roles={RECORD_COLUMNS}
            names={RECORD_COLUMN_NAMES}
            mapping={mapping ?? checked.mapping}
            onMap={setMapping}
          />
        ) : null}
      </Form>
    </Page>
  );
}

function Known({ lifts }: { lifts: string[] }) {
  return (
    <div className="text-sm">
      <h2>Columns</h2>
      <p className="text-muted">
        Athlete, lift, date and load are needed. Kinds are{" "}
        {Object.values(MAX_KIND_NAMES).join(", ")}. records.csv from Data has them all and comes
        back as it went out.
      </p>
      <h2 className="mt-3">Your lifts</h2>
      <ul>
        {lifts.map((one) => (
          <li key={one} className="border-b border-faint py-0.5">
            {one}
          </li>
        ))}
      </ul>
    </div>
  );
}
