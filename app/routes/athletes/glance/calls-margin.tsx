import { useState } from "react";
import { Link } from "react-router";
import type { FormResult } from "../../../ui/adder";
import { CallKeys, CallWords, DecidedLine } from "../../../ui/call-keys";
import { Day } from "../../../ui/dates";
import { useUnit } from "../../../ui/unit";
import type { AthletePage } from "../page-data";

/** Calls that wait for this athlete, what was decided today, and how the last days went. */
export function CallsMargin({
  data,
  result,
}: {
  data: AthletePage;
  result: FormResult | undefined;
}) {
  const unit = useUnit();
  const { calls, decidedToday, lastDays, groupId } = data;
  const [chosen, setChosen] = useState<string>();
  const keyed = calls.find((call) => call.about === chosen) ?? calls[0];
  return (
    <>
      <section aria-labelledby="athlete-calls">
        <h2 id="athlete-calls">
          {calls.length === 0
            ? "No call waits"
            : `${calls.length} ${calls.length === 1 ? "call" : "calls"} for ${data.person.name.split(" ")[0]}`}
        </h2>
        {calls.map((call) => (
          // biome-ignore lint/a11y/noStaticElementInteractions: which call has the keys follows the focus
          <div
            key={call.about}
            className="border-b border-faint py-2"
            onFocus={() => setChosen(call.about)}
          >
            <CallWords call={call} unit={unit} />
            <CallKeys
              call={call}
              groupId={groupId}
              keys={call.about === keyed?.about}
              problem={
                call.about === keyed?.about && result?.ok === false ? result.message : undefined
              }
            />
          </div>
        ))}
        {decidedToday.map((one, i) => (
          <DecidedLine key={one.id} decided={one} keys={i === 0} mayDecide />
        ))}
        {calls.length === 0 ? (
          <p className="text-muted">
            What a wave or a session asks about this athlete is decided here or in{" "}
            <Link className="underline" to={`/review?group=${groupId}`}>
              Review
            </Link>
            .
          </p>
        ) : null}
      </section>
      {lastDays.length > 0 ? (
        <section aria-labelledby="last-days" className="mt-4">
          <h2 id="last-days">Last days, sets ended early</h2>
          <table className="ledger ledger-tight">
            <tbody>
              {lastDays.map((day) => (
                <tr key={day.sessionId}>
                  <th scope="row" className="whitespace-nowrap">
                    <Link className="hover:underline" to={`/review/${day.sessionId}`}>
                      <Day short of={day.date} />
                    </Link>
                  </th>
                  <td>
                    <SetTicks done={day.done} cut={day.cut} />
                  </td>
                  <td className={day.cut > 0 ? "text-secondary" : "text-muted"}>
                    {day.cut > 0 ? `${day.cut} of ${day.done}` : `none of ${day.done}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ) : null}
    </>
  );
}

/** A stroke a set; the ones that ended early stand last, and lower. */
function SetTicks({ done, cut }: { done: number; cut: number }) {
  const shown = Math.min(40, done);
  return (
    <svg
      aria-hidden="true"
      viewBox={`0 0 ${40 * 3} 12`}
      className="inline-block h-3 w-[120px] align-middle"
      preserveAspectRatio="xMinYMid meet"
    >
      {Array.from({ length: shown }, (_, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: the place is the identity
          key={i}
          x={i * 3}
          y={i >= shown - cut ? 5 : 0}
          width={2}
          height={i >= shown - cut ? 7 : 12}
          className={i >= shown - cut ? "fill-accent" : "fill-primary"}
        />
      ))}
    </svg>
  );
}
