import type { AthleteFacts, AthleteLine } from "../../../core/maxes/athlete-rows";
import { GOAL_NAMES, SEASON_PHASE_NAMES } from "../../../core/maxes/season";
import { formatMass } from "../../../core/units/mass";
import { Notice } from "../../ui/page";
import type { CheckedList } from "../../workflows/athletes/athlete-list.server";

/** A checked list: what each line becomes, its faults, and the questions that wait. */
export function CheckedLines({
  checked,
  choices,
  onChoose,
}: {
  checked: CheckedList;
  choices: Record<string, string>;
  onChoose: (line: number, choice: string) => void;
}) {
  const { lines, total, bad, ask, add, update, problems, newSquads } = checked;
  const words = [
    add > 0 ? `${add} new` : "",
    update > 0 ? `${update} to bring up to date` : "",
    ask > 0 ? `${ask} to be answered` : "",
    bad > 0 ? `${bad} to mend` : "",
  ].filter(Boolean);
  return (
    <section aria-labelledby="checked-title" className="mt-3">
      <h2 id="checked-title" role="status">
        {total} {total === 1 ? "line" : "lines"}: {words.join(", ") || "nothing read"}
      </h2>
      {problems.map((text) => (
        <Notice key={text} kind="problem" title={text} />
      ))}
      {newSquads.length > 0 ? (
        <Notice kind="note" title={`New squads: ${newSquads.join(", ")}.`}>
          They are made with the list. Write an existing name to use that instead.
        </Notice>
      ) : null}
      {lines.length > 0 ? (
        <div className="overflow-x-auto">
          <table className="ledger mt-1">
            <thead>
              <tr>
                <th scope="col" className="!text-right">
                  Line
                </th>
                <th scope="col">Athlete</th>
                <th scope="col">Becomes</th>
                <th scope="col">Read as</th>
              </tr>
            </thead>
            <tbody>
              {lines.map((line) => (
                <Line
                  key={line.line}
                  line={line}
                  choice={choices[line.line]}
                  onChoose={(choice) => onChoose(line.line, choice)}
                />
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
      {total > lines.length ? (
        <p className="py-1 text-muted">
          {total - lines.length} more lines are not shown; those with faults stand first.
        </p>
      ) : null}
    </section>
  );
}

function Line({
  line,
  choice,
  onChoose,
}: {
  line: AthleteLine;
  choice: string | undefined;
  onChoose: (choice: string) => void;
}) {
  const { fate, problems, name, facts } = line;
  const twice = problems.some((text) => text.includes("stands on line"));
  return (
    <tr className={problems.length > 0 ? "bg-rust-wash" : ""}>
      <td className="text-right text-muted">{line.line}</td>
      <th scope="row" className="!text-base-content">
        {name || "?"}
      </th>
      <td>
        {fate.kind === "ask" || (choice !== undefined && fate.kind !== "add") || twice ? (
          <select
            aria-label={`Who is ${name}, line ${line.line}`}
            className="field !h-8"
            value={choice ?? ""}
            onChange={(event) => onChoose(event.target.value)}
          >
            <option value="">choose …</option>
            {fate.kind === "ask"
              ? fate.choices.map((one) => (
                  <option key={one.id} value={one.id}>
                    {name}, {one.squad || "alone"}
                    {one.archived ? ", archived" : ""}
                  </option>
                ))
              : null}
            <option value="new">another person</option>
          </select>
        ) : fate.kind === "update" ? (
          <>
            up to date{" "}
            <button type="button" className="text-muted underline" onClick={() => onChoose("new")}>
              another person
            </button>
          </>
        ) : (
          "new"
        )}
      </td>
      <td>
        {problems.map((text) => (
          <p key={text} className="font-medium text-accent">
            {text}
          </p>
        ))}
        {factWords(facts).map(([label, value]) => (
          <span key={label} className="mr-4 inline-block">
            <span className="text-muted">{label}</span> {value}
          </span>
        ))}
      </td>
    </tr>
  );
}

function factWords(facts: AthleteFacts): Array<[string, string]> {
  const words: Array<[string, string | undefined]> = [
    ["squad", facts.squad],
    ["room", facts.room],
    ["sport", facts.sport],
    ["born", facts.birthYear?.toString()],
    ["trains since", facts.trainingSince],
    ["goal", facts.goal && GOAL_NAMES[facts.goal]],
    ["phase", facts.seasonPhase && SEASON_PHASE_NAMES[facts.seasonPhase]],
    ["reads", facts.unit],
    ["stature", facts.statureCm === undefined ? undefined : `${facts.statureCm} cm`],
    ["body mass", facts.bodyMass && formatMass(facts.bodyMass)],
  ];
  return words.flatMap(([label, value]) => (value === undefined ? [] : [[label, value]]));
}
