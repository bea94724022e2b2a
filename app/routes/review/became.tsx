import { CALL_NAMES } from "../../../core/review/calls";
import { signedMps } from "../../../core/review/equal-load";
import { plainNumber } from "../../../core/units/mass";
import { readIn } from "../../../core/units/written";
import { DECISION_WORDS } from "../../ui/call-keys";
import { Dated, Day } from "../../ui/dates";
import { useUnit } from "../../ui/unit";
import type { BecameRow } from "../../workflows/review/became.server";

const VERDICTS = {
  rose: "▲ faster since",
  fell: "▼ slower since",
  "no-clear-change": "● no clear change",
};

/** What became of a decision, in words. */
export function becameWords(became: BecameRow["became"]): string {
  if (!became.known)
    return became.why === "too-early" ? "too early: not trained since" : "not comparable";
  if ("fadeNow" in became)
    return `fade ${plainNumber(became.fadeBefore, 0)} %, now ${plainNumber(became.fadeNow, 0)} %`;
  return `${VERDICTS[became.verdict]}: ${signedMps(became.changeMps)} m/s (90 % ${signedMps(became.lowMps)} to ${signedMps(became.highMps)}), ${became.days} ${became.days === 1 ? "day" : "days"}`;
}

/** Earlier calls with what became of them: each with its reason, so that the next is judged by them. */
export function Became({ rows }: { rows: readonly BecameRow[] }) {
  const unit = useUnit();
  return (
    <section aria-labelledby="became" className="mt-6">
      <h2 id="became">What became of earlier calls</h2>
      {rows.length === 0 ? (
        <p className="text-muted">
          No call on this lift was decided in the last months. Decide one, and what came of it
          stands here.
        </p>
      ) : (
        <div className="overflow-x-auto">
          <table className="ledger">
            <thead>
              <tr>
                <th scope="col">Athlete</th>
                <th scope="col">Call</th>
                <th scope="col">Decided</th>
                <th scope="col">Since</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ call, name, became }) => (
                <tr key={call.id}>
                  <th scope="row" className="!text-base-content">
                    {name}
                  </th>
                  <td>
                    {CALL_NAMES[call.kind]}
                    <span className="block text-sm text-muted">
                      <Dated>{readIn(call.proposal, unit)}</Dated>
                    </span>
                  </td>
                  <td>
                    {DECISION_WORDS[call.decision]} <Day of={call.date} />
                    {call.reason ? (
                      <span className="block text-sm text-muted">{call.reason}</span>
                    ) : null}
                  </td>
                  <td>{becameWords(became)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}
