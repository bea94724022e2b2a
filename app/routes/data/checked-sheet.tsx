import { Children, type ReactNode } from "react";
import type { LiftQuestion } from "../../../core/maxes/lift-names";
import type { Columns } from "../../../core/reading/columns";
import { Select } from "../../ui/field";
import { Notice } from "../../ui/page";
import { ColumnRoles } from "../../ui/pasted-sheet";

/** A sheet that was read against the team: shown line by line before any of it is kept. */
interface Checked {
  header: string[];
  problems: string[];
  lines: Array<{ line: number; text: string; problems: string[] }>;
  total: number;
  bad: number;
  good: number;
}

/** What is asked once for all lines: names that fit several lifts, and what stands inside. */
export function LiftQuestions({
  questions,
  answers,
  onAnswer,
  children,
}: {
  questions: readonly LiftQuestion[];
  answers: Readonly<Record<string, string>>;
  onAnswer: (key: string, id: string) => void;
  children?: ReactNode;
}) {
  if (questions.length === 0 && Children.toArray(children).length === 0) return null;
  return (
    <fieldset className="my-2 grid max-w-xl gap-2 border-l-[3px] border-primary pl-3">
      <legend className="font-bold">Asked once, for all lines</legend>
      {questions.map((question) => (
        <Select
          key={question.key}
          label={`"${question.text}" is`}
          value={answers[question.key] ?? ""}
          onChange={(event) => onAnswer(question.key, event.target.value)}
        >
          <option value="">choose …</option>
          {question.choices.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
      ))}
      {children}
    </fieldset>
  );
}

/**
 * Checks the sheet, and keeps it where nothing is open.
 * @param open how much is still asked or wrong; `asked` whether a question waits
 */
export function KeepButtons({
  checked,
  open,
  asked,
  busy,
}: {
  checked: Checked | undefined;
  open: number;
  asked: boolean;
  busy: boolean;
}) {
  return (
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
          {checked.good === 1
            ? `Keep the good line, leave ${checked.bad}`
            : `Keep the ${checked.good} good lines, leave ${checked.bad}`}
        </button>
      ) : null}
    </div>
  );
}

/** The lines as written, the faulty first, and which column is what. */
export function CheckedLines<Role extends string>({
  checked,
  roles,
  names,
  mapping,
  onMap,
}: {
  checked: Checked;
  roles: readonly Role[];
  names: Readonly<Record<Role, string>>;
  mapping: Columns<Role>;
  onMap: (mapping: Columns<Role>) => void;
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
      <ColumnRoles titles={header} roles={roles} names={names} columns={mapping} onChange={onMap} />
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
