import { signedMps } from "../../../core/review/equal-load";
import { lossWords } from "../../../core/review/wave";
import { formatKg, plainNumber } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { readIn } from "../../../core/units/written";
import { DECISION_WORDS } from "../../ui/call-keys";
import { Dated } from "../../ui/dates";
import { useUnit } from "../../ui/unit";
import type { WavePage } from "../../workflows/review/read-wave.server";
import { SetChart } from "./day-chart";
import { VERDICT_MARKS } from "./wave-axis";

export type Row = NonNullable<WavePage["rows"]>[number];

const VERDICT_WORDS = { rises: "rises", falls: "falls", unclear: "unclear" };

const percent = (value: number) => `${plainNumber(value, 0)} %`;

export const SORTS = {
  call: "by call",
  change: "by change",
  fade: "by fade",
  cut: "by sets cut",
  name: "by name",
} as const;
export type Sort = keyof typeof SORTS;

const callWeight = (row: Row) => (row.calls[0] ? (row.calls[0].decided ? 1 : 0) : 2);

/** Rows as the coach wants them: what waits first, or by one figure. */
export function sorted(rows: readonly Row[], sort: Sort): Row[] {
  const by: Record<Sort, (a: Row, b: Row) => number> = {
    call: (a, b) =>
      callWeight(a) - callWeight(b) ||
      (a.calls[0]?.kind ?? "").localeCompare(b.calls[0]?.kind ?? ""),
    change: (a, b) => (b.speed?.perWave.estimate ?? -9) - (a.speed?.perWave.estimate ?? -9),
    fade: (a, b) => (b.fade?.percent ?? -99) - (a.fade?.percent ?? -99),
    cut: (a, b) => (b.cutPercent ?? -1) - (a.cutPercent ?? -1),
    name: () => 0,
  };
  return [...rows].sort((a, b) => by[sort](a, b) || a.name.localeCompare(b.name));
}

/** Everybody in a line: speed by day, change with its chance, fade, cut sets, faults, the call. */
export function WaveTable({
  rows,
  opened,
  onOpen,
}: {
  rows: readonly Row[];
  opened: string | undefined;
  onOpen: (athleteId: string) => void;
}) {
  const unit = useUnit();
  return (
    <div className="overflow-x-auto">
      <table className="ledger ledger-tight print:text-[12px]">
        <thead>
          <tr>
            <th scope="col">Athlete</th>
            <th scope="col" className="!text-right max-sm:hidden">
              {unit}
            </th>
            <th scope="col" className="max-sm:hidden">
              Speed by day, m/s
            </th>
            <th scope="col">Change a wave</th>
            <th scope="col" className="max-sm:hidden">
              Fade, last day
            </th>
            <th scope="col" className="!text-right max-sm:hidden">
              Cut
            </th>
            <th scope="col" className="max-sm:hidden">
              Faults
            </th>
            <th scope="col">Call</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr
              key={row.athleteId}
              aria-selected={row.athleteId === opened}
              className={row.athleteId === opened ? "bg-wash" : ""}
            >
              <th scope="row" className="!text-base-content">
                <button
                  type="button"
                  aria-pressed={row.athleteId === opened}
                  className="min-h-6 text-left font-bold hover:underline"
                  onClick={() => onOpen(row.athleteId)}
                >
                  {row.name}
                </button>
              </th>
              <td className="text-right whitespace-nowrap max-sm:hidden">
                {row.loadKg === undefined ? "" : formatKg(row.loadKg, unit, 1).replace(/\s.*/, "")}
              </td>
              <td className="whitespace-nowrap max-sm:hidden">
                {row.speeds.map((day, i) => (
                  <span key={day.date} className={i === row.speeds.length - 1 ? "font-bold" : ""}>
                    {i > 0 ? " · " : ""}
                    {formatVelocity(day.speedMps)}
                  </span>
                ))}
                {row.speeds.length === 0 ? <span className="text-muted">none measured</span> : null}
              </td>
              <td className="whitespace-nowrap">
                {row.speed ? (
                  <>
                    <span aria-hidden="true">{VERDICT_MARKS[row.speed.verdict]}</span>{" "}
                    <b>{signedMps(row.speed.perWave.estimate)}</b>{" "}
                    <span className="text-muted max-sm:block">
                      {VERDICT_WORDS[row.speed.verdict]}, {percent(100 * row.speed.chanceRises)} up
                    </span>
                  </>
                ) : (
                  <span className="text-muted">not comparable</span>
                )}
              </td>
              <td className="whitespace-nowrap max-sm:hidden">
                <span className="flex items-center gap-2">
                  {row.lastSets.length > 1 ? (
                    <span className="print:hidden">
                      <SetChart sets={row.lastSets} width={86} height={22} />
                    </span>
                  ) : null}
                  {row.fade ? (
                    <span className={row.fade.fades ? "font-bold" : ""}>
                      {lossWords(row.fade.percent)}
                      {row.fade.fades ? " fades" : ""}
                    </span>
                  ) : null}
                </span>
              </td>
              <td className="text-right whitespace-nowrap max-sm:hidden">
                {row.cut} of {row.setsDone}
              </td>
              <td className="text-sm whitespace-normal max-sm:hidden print:text-[12px]">
                {row.faults.map((one) => `${one.fault} ${one.times}`).join(", ") || (
                  <span className="text-muted">none</span>
                )}
              </td>
              <td className="min-w-36 whitespace-normal">
                <CallCell row={row} unit={unit} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function CallCell({ row, unit }: { row: Row; unit: "kg" | "lb" }) {
  const [first, ...more] = row.calls;
  if (!first)
    return (
      <span className="text-muted">
        <Dated>{readIn(row.standing, unit)}</Dated>
      </span>
    );
  return (
    <>
      <b>
        <Dated>{readIn(first.proposal, unit)}</Dated>
      </b>{" "}
      <span className="text-muted">
        {first.decided ? DECISION_WORDS[first.decided.decision] : "waits"}
        {more.length > 0 ? `, and ${more.length} more` : ""}
      </span>
    </>
  );
}
