import { Link } from "react-router";
import { gapVerdictWords } from "../../../core/contrast/gap-test";
import { formatKg, plainNumber } from "../../../core/units/mass";
import { formatPercent } from "../../../core/units/percent";
import { Day } from "../../ui/dates";
import { SideTable } from "../../ui/side-table";
import { useUnit } from "../../ui/unit";
import { Figure } from "../../ui/working";
import type { BoxSummary } from "../../workflows/athletes/box-summary.server";
import type { AthleteContrast } from "../../workflows/athletes/contrast.server";

/** What stands on the set-up card, where the ladder has come to, and the faults. */
export function BoxSection({ athleteId, box }: { athleteId: string; box: BoxSummary }) {
  return (
    <section id="box" aria-labelledby="box-title" className="mb-6 scroll-mt-24">
      <h2 id="box-title" className="border-b border-rule pb-1">
        Box card
      </h2>
      {box.setup ? (
        <p className="pt-2">
          {box.variantName}: {box.setup.join(" · ")}
        </p>
      ) : (
        <p className="pt-2 text-muted">
          No box squat set up for this athlete. Until a height is measured, no box height is
          assumed.
        </p>
      )}
      {box.ladder ? (
        <p>
          Ladder: {box.ladder.rung}
          {box.ladder.pass ? (
            <span className="text-muted"> · passed when: {box.ladder.pass}</span>
          ) : null}
        </p>
      ) : null}
      {box.faults.length > 0 ? (
        <ul>
          {box.faults.map((one) => (
            <li key={one.fault} className="border-b border-faint py-1">
              {one.fault}
              <span className="text-muted">
                {" "}
                {one.times} × · last <Day of={one.lastOn} />
                {one.cured ? ", cured" : ""}
                {one.returnsAt === undefined
                  ? ""
                  : ` · comes back at ${formatPercent(one.returnsAt)} of the max`}
              </span>
            </li>
          ))}
        </ul>
      ) : null}
      <p className="pt-1">
        <Link className="underline" to={`/athletes/${athleteId}/box`}>
          {box.setup ? "The whole card" : "Set it up"}
        </Link>
      </p>
    </section>
  );
}

const VERDICTS = { better: "▲", same: "", fading: "▼" } as const;
const VERDICT_WORDS = { better: "better", same: "same", fading: "fading" } as const;

/** How the athlete answers to contrast work: own gap, the newest pairings, left against right. */
export function ContrastSection({
  athleteId,
  contrast,
}: {
  athleteId: string;
  contrast: AthleteContrast;
}) {
  const { gaps, runs, sides } = contrast;
  return (
    <section id="contrast" aria-labelledby="contrast-title" className="mb-6 scroll-mt-24">
      <h2 id="contrast-title" className="border-b border-rule pb-1">
        Contrast
      </h2>
      {gaps.length === 0 ? (
        <p className="pt-2 text-muted">
          No own gap is known: published means stand for it.{" "}
          <Link className="underline" to={`/lab/gap?athlete=${athleteId}`}>
            Test it
          </Link>
        </p>
      ) : (
        <ul className="pt-1">
          {gaps.map((one) => (
            <li key={one.trial} className="border-b border-faint py-1">
              Own gap, {one.name.toLowerCase()}:{" "}
              {one.analysis ? (
                <Figure
                  id={`contrast/gap/${one.trial}`}
                  working={one.analysis.ok ? one.analysis.working : undefined}
                  className="font-bold"
                >
                  {gapVerdictWords(one.analysis, one.unit)}
                </Figure>
              ) : (
                "no smallest change set"
              )}{" "}
              <Link
                className="text-muted underline"
                to={`/lab/gap?athlete=${athleteId}&trial=${one.trial}`}
              >
                {one.days} {one.days === 1 ? "day" : "days"}
              </Link>
            </li>
          ))}
        </ul>
      )}
      <div className="grid gap-x-8 md:grid-cols-[1fr_auto]">
        <div>
          <h3 className="pt-2 font-bold">Newest pairings</h3>
          {runs.length === 0 ? <p className="text-muted">None yet.</p> : null}
          <ul>
            {runs.map((run) => (
              <li key={run.id} className="border-b border-faint py-1">
                <Link className="underline" to={`/floor/pairing/${run.id}`}>
                  {run.name}
                </Link>{" "}
                <span className="text-muted">
                  <Day of={run.date} />
                  {run.early > 0 ? ` · ${run.early} of ${run.rests} rests cut short` : ""}
                </span>
                {run.items.map((item) => (
                  <OutputLine key={`${item.id}/${item.side}`} item={item} />
                ))}
              </li>
            ))}
          </ul>
        </div>
        {sides.length > 0 ? (
          <div>
            <h3 className="pt-2 font-bold" id="sides-title">
              Left and right, four weeks
            </h3>
            <SideTable rows={sides} labelledBy="sides-title" />
          </div>
        ) : null}
      </div>
    </section>
  );
}

/** What each round of an item gave, of one side where it is done by sides. */
function OutputLine({ item }: { item: AthleteContrast["runs"][number]["items"][number] }) {
  const unit = useUnit();
  return (
    <span className="block">
      {item.name}
      {item.side ? `, ${item.side}` : ""}
      {item.baseline === undefined ? "" : `, baseline ${plainNumber(item.baseline, 2)}`}:{" "}
      {item.rounds.map((one, i) => (
        <span key={one.round}>
          {i > 0 ? " · " : ""}
          {one.kg === undefined ? "" : `${formatKg(one.kg, unit, 1)}: `}
          {plainNumber(one.value, 2)}
          {one.round > 1 && one.verdict !== "same" ? (
            <>
              <span aria-hidden> {VERDICTS[one.verdict]}</span>
              <span className="sr-only"> {VERDICT_WORDS[one.verdict]}</span>
            </>
          ) : null}
        </span>
      ))}{" "}
      <span className="text-muted">{item.unit}</span>
    </span>
  );
}
