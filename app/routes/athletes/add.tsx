import { useState } from "react";
import { Link, useNavigation } from "react-router";
import {
  ATHLETE_COLUMN_NAMES,
  ATHLETE_COLUMNS,
  type AthleteMapping,
} from "../../../core/maxes/athlete-rows";
import { formObject } from "../../forms/athlete";
import { AthleteListForm, MOST_LIST_TEXT } from "../../forms/athlete-list";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { ColumnRoles, SheetFile, SheetText, usePastedSheet } from "../../ui/pasted-sheet";
import { checkList, keepList, startList } from "../../workflows/athletes/athlete-list.server";
import type { Route } from "./+types/add";
import { CheckedLines } from "./checked-lines";

export function meta() {
  return [{ title: "Add athletes · Sprezza" }];
}

export function loader({ context }: Route.LoaderArgs) {
  return startList(principalOf(context));
}

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const parsed = AthleteListForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success) {
    const [message] = Object.values(fieldProblems(parsed.error));
    return { ok: false as const, message: message ?? "This list could not be read." };
  }
  if (parsed.data.intent === "check")
    return { ok: false as const, message: "", checked: await checkList(principal, parsed.data) };
  const kept = await keepList(principal, parsed.data);
  if (kept.ok) return { ok: true as const, kept: kept.value };
  return {
    ok: false as const,
    message: kept.message,
    checked: await checkList(principal, parsed.data),
  };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

const EXAMPLE = "Name\tSquad\tBorn\tBody mass\nFirst Last\tJuniors\t2008\t71.5";

/** Many athletes at once: pasted or from a file, checked line by line, kept in one go. */
export default function AddAthletes({ loaderData, actionData }: Route.ComponentProps) {
  const { squads, rooms } = loaderData;
  const busy = useNavigation().state !== "idle";
  const [mapping, setMapping] = useState<AthleteMapping>();
  const [choices, setChoices] = useState<Record<string, string>>({});
  const [checkedText, setCheckedText] = useState("");
  const sheet = usePastedSheet(MOST_LIST_TEXT, () => {
    setMapping(undefined);
    setChoices({});
  });
  const checked =
    actionData && "checked" in actionData && checkedText === sheet.text
      ? actionData.checked
      : undefined;
  const kept = actionData && "kept" in actionData ? actionData.kept : undefined;
  const good = checked ? checked.add + checked.update : 0;
  const open = checked ? checked.bad + checked.ask : 0;
  return (
    <Page
      title="Add athletes"
      facts="Paste a list, or choose a file. Who is here already is brought up to date."
      actions={
        <Link className="btn" to="/athletes">
          Athletes
        </Link>
      }
      margin={<Known />}
    >
      {kept ? (
        <Notice
          kind="note"
          title={`Kept: ${kept.added} added, ${kept.updated} brought up to date${kept.squads > 0 ? `, ${kept.squads} ${kept.squads === 1 ? "squad" : "squads"} made` : ""}.`}
        >
          {kept.leftLines > 0 ? (
            <>
              {kept.leftLines} lines were left out.{" "}
              <button type="button" className="underline" onClick={() => sheet.write(kept.left)}>
                Put them below to be mended
              </button>
            </>
          ) : (
            <>
              Next: their maxes, all in one paste under{" "}
              <Link className="underline" to="/athletes/testing-day">
                Testing day
              </Link>
              .
            </>
          )}
        </Notice>
      ) : null}
      <Form
        method="post"
        aria-label="Athletes"
        noValidate
        onSubmit={() => setCheckedText(sheet.text)}
      >
        <input type="hidden" name="fileName" value={sheet.fileName} />
        <input type="hidden" name="mapping" value={mapping ? JSON.stringify(mapping) : ""} />
        <input type="hidden" name="choices" value={JSON.stringify(choices)} />
        <div className="flex flex-wrap items-end gap-3">
          <span className="w-52">
            <Select label="Lines without a squad" name="squadId">
              {squads.map((one) => (
                <option key={one.id} value={one.id}>
                  go to {one.name}
                </option>
              ))}
              <option value="">train alone</option>
            </Select>
          </span>
          {rooms.length > 1 ? (
            <span className="w-52">
              <Select label="Room of new squads" name="roomId">
                {rooms.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
              </Select>
            </span>
          ) : null}
          <SheetFile sheet={sheet} />
        </div>
        {sheet.fault ? <Notice kind="problem" title={sheet.fault} /> : null}
        <SheetText
          sheet={sheet}
          label="The list: names, one a line, or a table with a header"
          example={EXAMPLE}
          rows={checked ? 5 : 10}
        />
        {actionData && !actionData.ok && actionData.message ? (
          <Notice kind="problem" title={actionData.message} />
        ) : null}
        <div className="mt-2 flex flex-wrap gap-2">
          <button
            type="submit"
            name="intent"
            value="check"
            className={good > 0 && open === 0 ? "btn" : "btn btn-primary"}
            disabled={busy}
          >
            {busy ? "Reading …" : "Check the list"}
          </button>
          {good > 0 && open === 0 ? (
            <button
              type="submit"
              name="intent"
              value="keep"
              className="btn btn-primary"
              disabled={busy}
            >
              Keep all {good}
            </button>
          ) : null}
          {good > 0 && open > 0 ? (
            <button type="submit" name="intent" value="keep-good" className="btn" disabled={busy}>
              Keep the {good} good lines, leave {open}
            </button>
          ) : null}
        </div>
        {checked ? (
          <>
            {checked.samples.length > 1 || checked.header ? (
              <ColumnRoles
                titles={checked.samples.map((_, i) => checked.header?.[i] ?? "")}
                samples={checked.samples}
                roles={ATHLETE_COLUMNS}
                names={ATHLETE_COLUMN_NAMES}
                columns={mapping ?? checked.mapping}
                onChange={setMapping}
              />
            ) : null}
            {mapping ? (
              <p className="text-muted">Check the list again to read it this way.</p>
            ) : null}
            <CheckedLines
              checked={checked}
              choices={choices}
              onChoose={(line, choice) => setChoices({ ...choices, [line]: choice })}
            />
          </>
        ) : null}
      </Form>
    </Page>
  );
}

function Known() {
  return (
    <div className="text-sm">
      <h2>Columns</h2>
      <p className="text-muted">
        In any order, under usual names; what is not known can be set after checking.
      </p>
      <ul className="mt-1">
        {ATHLETE_COLUMNS.map((role) => (
          <li key={role} className="border-b border-faint py-0.5">
            {ATHLETE_COLUMN_NAMES[role]}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-muted">
        A squad that is not here is made. Someone of the same name is brought up to date: only the
        columns that the list has are changed.
      </p>
    </div>
  );
}
