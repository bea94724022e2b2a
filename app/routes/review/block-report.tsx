import { NOT_COMPARABLE } from "../../../core/profile/compare";
import { formatKg, plainNumber } from "../../../core/units/mass";
import { Dated } from "../../ui/dates";
import { useUnit } from "../../ui/unit";
import { useAddress } from "../../ui/use-address";
import { Figure, Figures } from "../../ui/working";
import type { BlockPage } from "../../workflows/review/read-block.server";

type Opened = NonNullable<Extract<BlockPage, { opened: unknown }>["opened"]>;
type Block = NonNullable<BlockPage["block"]>;

const percent = (share: number) => `${Math.round(100 * share)} %`;
const ERROR_OF = { typed: "typed", own: "the athlete's own", team: "the team's" };

/** One athlete's block on one page: what was done, maxes, tests with their chances, the line, the box. */
export function BlockReport({ opened, block }: { opened: Opened; block: Block }) {
  const unit = useUnit();
  return (
    <Figures label="Report of the block">
      <p>
        {opened.sessions} sessions in {block.weeks} weeks, {opened.setsDone} of {opened.setsPlanned}{" "}
        sets done, {opened.cut} cut; {formatKg(opened.tonnageKg, unit, 0)} moved.
      </p>
      <h2 className="mt-4">Maxes</h2>
      <div className="overflow-x-auto">
        <table className="ledger max-w-3xl">
          <thead>
            <tr>
              <th scope="col">Lift</th>
              <th scope="col">Before</th>
              <th scope="col">Since</th>
              <th scope="col" className="!text-right">
                Change
              </th>
            </tr>
          </thead>
          <tbody>
            {opened.maxes.map((max) => (
              <tr key={max.lift}>
                <th scope="row" className="!text-base-content">
                  {max.lift}
                </th>
                <td className="whitespace-nowrap">
                  <Dated>
                    {max.before
                      ? `${formatKg(max.before.kg, unit, 1)}, ${max.before.date}`
                      : "none"}
                  </Dated>
                </td>
                <td className="whitespace-nowrap">
                  <Dated>
                    {max.after
                      ? `${formatKg(max.after.kg, unit, 1)}, ${max.after.date}`
                      : "not tested"}
                  </Dated>
                </td>
                <td className="text-right whitespace-nowrap">
                  {max.before && max.after
                    ? `${max.after.kg >= max.before.kg ? "+" : "−"}${formatKg(Math.abs(max.after.kg - max.before.kg), unit, 1)}`
                    : ""}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Tests opened={opened} />
      <Profiles opened={opened} />
      <Box opened={opened} />
    </Figures>
  );
}

/** Sprints, jumps, throws: each by its own error, with the chances and what they are. */
function Tests({ opened }: { opened: Opened }) {
  const address = useAddress();
  return (
    <section aria-labelledby="block-tests" className="mt-4">
      <h2 id="block-tests">Sprints, jumps, throws</h2>
      {opened.qualities.length === 0 ? (
        <p className="text-muted">None tested. Test days are entered on the athlete's page.</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="ledger">
            <thead>
              <tr>
                <th scope="col">Test</th>
                <th scope="col">Before</th>
                <th scope="col">Since</th>
                <th scope="col">Change</th>
                <th scope="col">Better, trivial, worse</th>
                <th scope="col" className="no-print">
                  Error, typed
                </th>
              </tr>
            </thead>
            <tbody>
              {opened.qualities.map((one) => {
                const value = (of: typeof one.before) =>
                  of
                    ? `${of.atLeast ? "at least " : ""}${plainNumber(of.value, one.decimals)} ${one.unit}, ${of.date}`
                    : "not tested";
                return (
                  <tr key={one.key}>
                    <th scope="row" className="!text-base-content">
                      {one.testName} {one.side}
                      {one.loadKg > 0 ? ` with ${plainNumber(one.loadKg, 1)} kg` : ""}
                    </th>
                    <td className="whitespace-nowrap print:whitespace-normal">
                      <Dated>{value(one.before)}</Dated>
                    </td>
                    <td className="whitespace-nowrap print:whitespace-normal">
                      <Dated>{value(one.after)}</Dated>
                    </td>
                    <td className="whitespace-nowrap">
                      {one.change ? (
                        <Figure id={`change/${one.key}`} working={one.change.working}>
                          {one.change.difference > 0 ? "+" : "−"}
                          {plainNumber(Math.abs(one.change.difference), one.decimals)} {one.unit}
                        </Figure>
                      ) : (
                        <span className="text-muted">{one.without}</span>
                      )}
                    </td>
                    <td>
                      {one.change ? (
                        <>
                          {percent(one.change.better)}, {percent(one.change.trivial)},{" "}
                          {percent(one.change.worse)}: <b>{one.change.verdict}</b>
                          <span className="block text-sm text-muted">
                            typical error {ERROR_OF[one.errorOf]}
                          </span>
                        </>
                      ) : (
                        ""
                      )}
                    </td>
                    <td className="no-print">
                      <input
                        className="field w-20"
                        inputMode="decimal"
                        aria-label={`Typical error of ${one.testName}, ${one.unit}`}
                        defaultValue={address.get(`error.${one.testId}`)}
                        onBlur={(event) =>
                          address.set(`error.${one.testId}`, event.target.value.trim())
                        }
                      />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      )}
      <p className="mt-1 text-sm text-muted">
        Chances under a flat prior, a way of judging that is disputed (Sainani 2018). Tests compare
        with their like: the same side, approach and load.
      </p>
    </section>
  );
}

function Profiles({ opened }: { opened: Opened }) {
  if (opened.profiles.length === 0) return null;
  return (
    <section aria-labelledby="block-profiles" className="mt-4">
      <h2 id="block-profiles">Speed over load</h2>
      <ul>
        {opened.profiles.map((one) => (
          <li key={one.lift} className="border-b border-faint py-1">
            <b>{one.lift}</b>{" "}
            <span className="text-muted">
              {one.before ?? "none before"} and {one.after ?? "none since"}
            </span>
            <span className="block">
              {one.shift?.ok ? (
                <>
                  {one.shift.words}{" "}
                  <Figure id={`profile/${one.lift}`} working={one.shift.working}>
                    how
                  </Figure>
                </>
              ) : one.shift ? (
                NOT_COMPARABLE[one.shift.reason]
              ) : (
                "One test alone: no shift is told."
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

const WIDE = 260;

/** Box squat beside free squat: the ratio, and how much of the one came over to the other. */
function Box({ opened }: { opened: Opened }) {
  const unit = useUnit();
  const { box } = opened;
  if (!box || (box.before === undefined && box.after === undefined)) return null;
  const { boxChangeKg, freeChangeKg } = box;
  const most = Math.max(5, Math.abs(boxChangeKg ?? 0), Math.abs(freeChangeKg ?? 0));
  const bar = (kg: number) => (Math.abs(kg) / most) * (WIDE - 20);
  return (
    <section aria-labelledby="block-box" className="mt-4">
      <h2 id="block-box">Box squat of the free squat</h2>
      <p>
        {box.before === undefined ? "no ratio before" : `${percent(box.before)} before`}
        {box.after === undefined ? "" : `, ${percent(box.after)} now`}
      </p>
      {boxChangeKg !== undefined && freeChangeKg !== undefined ? (
        <>
          <svg
            role="img"
            aria-label={`Box squat changed by ${formatKg(boxChangeKg, unit, 1)}, free squat by ${formatKg(freeChangeKg, unit, 1)}`}
            viewBox={`0 0 ${WIDE + 130} 48`}
            className="mt-1 block max-w-md text-[13px]"
          >
            {(
              [
                ["Box", boxChangeKg, 4],
                ["Free", freeChangeKg, 28],
              ] as const
            ).map(([name, kg, y]) => (
              <g key={name}>
                <text x={0} y={y + 13} className="fill-[var(--muted)]">
                  {name}
                </text>
                <rect
                  x={40}
                  y={y}
                  width={Math.max(2, bar(kg))}
                  height={16}
                  className={kg < 0 ? "fill-accent" : "fill-primary"}
                />
                <text x={46 + bar(kg)} y={y + 13} className="fill-base-content">
                  {kg < 0 ? "−" : "+"}
                  {formatKg(Math.abs(kg), unit, 1)}
                </text>
              </g>
            ))}
          </svg>
          <p className="text-sm text-muted">
            Two changes side by side; that one carried over to the other is a coach's judgement.
            {box.apart !== undefined && box.apart > 21
              ? ` The two were tested ${box.apart} days apart.`
              : ""}
          </p>
        </>
      ) : (
        <p className="text-muted">
          Both squats tested before and since would show how much carries over.
        </p>
      )}
    </section>
  );
}
