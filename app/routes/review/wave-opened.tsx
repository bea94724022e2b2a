import { Link } from "react-router";
import { signedMps } from "../../../core/review/equal-load";
import { lossWords } from "../../../core/review/wave";
import { formatKg, plainNumber } from "../../../core/units/mass";
import { filmedWords, formatVelocity } from "../../../core/units/velocity";
import { readIn } from "../../../core/units/written";
import { CallKeys, CallWords, DecidedLine } from "../../ui/call-keys";
import { Dated, Day } from "../../ui/dates";
import { useUnit } from "../../ui/unit";
import type { WavePage } from "../../workflows/review/read-wave.server";
import { DayChart, SetChart } from "./day-chart";

type Opened = NonNullable<WavePage["opened"]>;
type Wave = NonNullable<WavePage["wave"]>;

/** One athlete's wave: the calls with their keys, the days, the last day's sets, the rule. */
export function WaveOpened({
  opened,
  wave,
  mayDecide,
  problem,
}: {
  opened: Opened;
  wave: Wave;
  mayDecide: boolean;
  problem: string | undefined;
}) {
  const unit = useUnit();
  const keyed = opened.calls.find((call) => !call.decided) ?? opened.calls[0];
  return (
    <section aria-labelledby="opened">
      <h2 id="opened">
        <Link className="hover:underline" to={`/athletes/${opened.athleteId}`}>
          {opened.name}
        </Link>
      </h2>
      <p className="text-muted">
        {opened.there} of {opened.sessions} sessions, {opened.setsDone} sets, {opened.cut} cut
        {opened.maxKg === undefined ? "" : ` · max ${formatKg(opened.maxKg, unit, 1)}`}
      </p>
      {opened.calls.map((call) => (
        <div key={call.about} className="mt-2 border-t border-rule pt-2">
          <CallWords call={call} unit={unit} />
          {call.decided ? (
            <DecidedLine decided={call.decided} keys={call === keyed} mayDecide={mayDecide} />
          ) : mayDecide ? (
            <CallKeys
              key={call.about}
              call={call}
              groupId={wave.groupId}
              keys={call === keyed}
              problem={call === keyed ? problem : undefined}
            />
          ) : null}
        </div>
      ))}
      {opened.calls.length === 0 ? (
        <p className="mt-2 font-bold">
          <Dated>{readIn(opened.standing, unit)}</Dated>
        </p>
      ) : null}
      {opened.raised ? (
        <p className="mt-1 text-muted">
          {plainNumber(opened.raised.percent, 1)} % of {formatKg(opened.raised.toKg, unit, 1)} is{" "}
          {formatKg(opened.raised.wantedKg, unit, 2)}
          {opened.raised.barKg === undefined
            ? ""
            : `: ${formatKg(opened.raised.barKg, unit, 1)} on the bar`}
        </p>
      ) : null}
      {opened.speed ? (
        <>
          <h3 className="mt-3 font-bold">
            Speed at {formatKg(opened.speed.loadKg, unit, 1)}, m/s{filmedWords(opened.speed)}
          </h3>
          <DayChart days={opened.allDays} label="Speed by day" from={wave.from} />
          <p className="text-sm text-muted">
            {signedMps(opened.speed.perWave.estimate)} a wave (90 %{" "}
            {signedMps(opened.speed.perWave.low)} to {signedMps(opened.speed.perWave.high)}), over{" "}
            {opened.speed.days} days, shrunk towards {wave.towards}.{" "}
            {opened.speed.sessionsMore
              ? `About ${opened.speed.sessionsMore} more weekly days would settle a rise of 0.03.`
              : ""}
          </p>
        </>
      ) : null}
      {opened.lastSets.length > 0 ? (
        <>
          <h3 className="mt-3 font-bold">The last day, set by set</h3>
          <SetChart sets={opened.lastSets} />
          <p className="text-sm text-muted">
            {opened.fade
              ? `${lossWords(opened.fade.percent)} from first to last (90 % ${lossWords(opened.fade.low)} to ${lossWords(opened.fade.high)})`
              : "Too few sets at one load to tell a fade."}
          </p>
        </>
      ) : null}
      <h3 className="mt-3 font-bold">The rule, and what it read</h3>
      <ul>
        {opened.rule.map((line) => (
          <li key={line.label} className="border-b border-faint py-1">
            <span className="flex justify-between gap-2">
              <span>{line.label}</span>
              <b>{line.holds}</b>
            </span>
            <span className="block text-sm text-muted">
              <Dated>{readIn(line.read, unit)}</Dated>
            </span>
          </li>
        ))}
      </ul>
      <OpenedTables opened={opened} />
      <p className="mt-3 text-sm text-muted">
        No experiment: sleep, other training and life changed with the weeks too.
      </p>
    </section>
  );
}

/** The same in figures: the weeks, and earlier waves of the lift. */
function OpenedTables({ opened }: { opened: Opened }) {
  const unit = useUnit();
  return (
    <>
      <h3 className="mt-3 font-bold">Week by week</h3>
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">Week</th>
            <th scope="col" className="!text-right">
              Load
            </th>
            <th scope="col" className="!text-right">
              m/s
            </th>
            <th scope="col" className="!text-right">
              Sets
            </th>
          </tr>
        </thead>
        <tbody>
          {opened.weeks.map((week) => (
            <tr key={week.week}>
              <th scope="row">
                {week.week}, <Day short of={week.date} />
              </th>
              <td className="text-right">
                {week.loadKg === undefined ? "away" : formatKg(week.loadKg, unit, 1)}
              </td>
              <td className="text-right">
                {week.speedMps === undefined ? "" : formatVelocity(week.speedMps)}
              </td>
              <td className="text-right">
                {week.doneSets} of {week.plannedSets}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-sm text-muted">
        Tonnage {opened.tonnage.map((day) => formatKg(day.kg, unit, 0)).join(" · ") || "none"}
      </p>
      {opened.earlier.length > 0 ? (
        <>
          <h3 className="mt-3 font-bold">Earlier waves of this lift</h3>
          <ul>
            {opened.earlier.map((one) => (
              <li key={one.from} className="border-b border-faint py-1 text-sm">
                <Day of={one.from} /> to <Day of={one.to} />: {one.sets} sets, {one.cut} cut,{" "}
                {formatKg(one.tonnageKg, unit, 0)}
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </>
  );
}
