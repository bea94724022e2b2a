import { Link } from "react-router";
import { gapVerdictWords } from "../../../../core/contrast/gap-test";
import { plainNumber } from "../../../../core/units/mass";
import { GapPicture } from "../../../ui/gap-picture";
import { Figure } from "../../../ui/working";
import type { AthletePage } from "../page-data";
import { BoxPicture } from "./box-picture";
import { OpensPart } from "./opens";

/** Box set-up, own gap, tests: side by side, each opened by its heading. */
export function Panels({ data }: { data: AthletePage }) {
  return (
    <div className="grid border-b border-rule md:grid-cols-2 xl:grid-cols-[1.05fr_1fr_1.1fr]">
      <BoxPanel data={data} />
      <GapPanel data={data} />
      <TestsPanel data={data} />
    </div>
  );
}

const PANEL = "py-2 pr-3 xl:border-l xl:border-rule xl:pl-3 xl:first:border-l-0 xl:first:pl-0";

function BoxPanel({ data }: { data: AthletePage }) {
  const { drawn, ladder } = data.box;
  return (
    <section aria-labelledby="glance-box" className={PANEL}>
      <h2 id="glance-box">
        <OpensPart part="box">Box set-up</OpensPart>
      </h2>
      {drawn ? (
        <div className="flex gap-3">
          <BoxPicture drawn={drawn} />
          <div className="leading-snug">
            <p className="text-[1.5rem] font-bold leading-tight">
              {plainNumber(drawn.heightCm, 1)}
              <span className="text-base font-normal"> cm</span>
            </p>
            <p className={drawn.fits ? "text-muted" : "text-accent"}>
              wanted {plainNumber(drawn.wantedCm, 1)}
              {drawn.fits ? "" : ", nothing fits"}
            </p>
            <p className="font-medium">
              {drawn.baseName} at {plainNumber(drawn.baseCm, 1)}
              {drawn.matsCm.length > 0
                ? `, ${drawn.matsCm.length} ${drawn.matsCm.length === 1 ? "mat" : "mats"}`
                : ""}
            </p>
            <p className="text-sm text-muted">
              {[
                drawn.style,
                drawn.stance && `stance ${drawn.stance}`,
                drawn.hook && `hooks ${drawn.hook}`,
                drawn.safety && `safeties ${drawn.safety}`,
              ]
                .filter(Boolean)
                .join(" · ")}
            </p>
            {drawn.rehearsedOn ? (
              <p className="text-sm">✓ rehearsed</p>
            ) : (
              <p className="text-sm text-accent">not rehearsed: two steps, empty bar</p>
            )}
          </div>
        </div>
      ) : (
        <p className="text-muted">
          {data.box.setup ? data.box.setup.join(" · ") : "No trial seat yet: no height is assumed."}{" "}
          <Link className="underline" to={`/athletes/${data.person.id}/box`}>
            Set it up
          </Link>
        </p>
      )}
      {ladder ? <p className="text-sm text-muted">Ladder: {ladder.rung}</p> : null}
    </section>
  );
}

function GapPanel({ data }: { data: AthletePage }) {
  const { gaps } = data.contrast;
  const shown = gaps.find((one) => one.analysis?.ok) ?? gaps[0];
  const analysis = shown?.analysis?.ok ? shown.analysis : undefined;
  return (
    <section aria-label="Own gap" className={PANEL}>
      <h2>
        <OpensPart part="contrast">Own contrast gap</OpensPart>
      </h2>
      {shown ? (
        <>
          <p>
            {shown.name}:{" "}
            <Figure
              id={`glance/gap/${shown.trial}`}
              working={analysis?.working}
              className="font-bold"
            >
              {shown.analysis
                ? gapVerdictWords(shown.analysis, shown.unit)
                : "no smallest change set"}
            </Figure>
            <span className="text-muted">
              {" "}
              {shown.days} {shown.days === 1 ? "day" : "days"}
            </span>
          </p>
          {analysis ? (
            <GapPicture
              analysis={analysis}
              unit={shown.unit}
              most={
                1.15 *
                Math.max(
                  analysis.worthwhile,
                  ...analysis.changes.map((one) => Math.abs(one.change) + one.error),
                )
              }
              width={290}
              height={130}
            />
          ) : null}
        </>
      ) : (
        <p className="text-muted">
          Not tested: published means stand for it.{" "}
          <Link className="underline" to={`/lab/gap?athlete=${data.person.id}`}>
            Test it
          </Link>
        </p>
      )}
    </section>
  );
}

const TEST = { width: 104, height: 14, most: 4 };

/** Tests, the last against the one before, each in units of the smallest change that counts. */
function TestsPanel({ data }: { data: AthletePage }) {
  const told = data.changes.qualities.filter((one) => one.results.length > 0).slice(0, 6);
  return (
    <section aria-labelledby="glance-tests" className={PANEL}>
      <h2 id="glance-tests">
        <OpensPart part="tests">Tests</OpensPart>
      </h2>
      {told.length === 0 ? (
        <p className="text-muted">No jump, throw or sprint yet.</p>
      ) : (
        <ul>
          {told.map((one) => {
            const [before, last] = [one.results.at(-2), one.results.at(-1)];
            const show = (value: number | undefined) =>
              value === undefined ? "" : value.toFixed(one.decimals);
            return (
              <li
                key={one.key}
                className="grid grid-cols-[1fr_auto] items-center gap-x-2 border-b border-faint py-0.5"
              >
                <span className="min-w-0 truncate">
                  {one.testName}
                  {one.side ? `, ${one.side}` : ""}
                </span>
                {one.change && one.worthwhile ? (
                  <ChangePicture
                    name={one.testName}
                    change={one.change}
                    worthwhile={one.worthwhile}
                    up={one.higherIsBetter}
                  />
                ) : (
                  <span />
                )}
                <span className="text-sm text-muted">
                  {before ? `${show(before.value)} → ` : ""}
                  {last?.atLeast ? "at least " : ""}
                  {show(last?.value)} {one.unit}
                </span>
                <span className="text-right text-sm">
                  {one.change ? (
                    <b>{one.change.verdict}</b>
                  ) : (
                    <span className="text-muted">{before ? "not judged" : "first time"}</span>
                  )}
                </span>
              </li>
            );
          })}
        </ul>
      )}
    </section>
  );
}

function ChangePicture({
  name,
  change,
  worthwhile,
  up,
}: {
  name: string;
  change: NonNullable<AthletePage["changes"]["qualities"][number]["change"]>;
  worthwhile: number;
  up: boolean;
}) {
  const unit = (up ? 1 : -1) / worthwhile;
  const x = (value: number) =>
    ((Math.max(-TEST.most, Math.min(TEST.most, value * unit)) + TEST.most) / (2 * TEST.most)) *
    TEST.width;
  return (
    <svg
      role="img"
      aria-label={`${name}: ${change.verdict}, ${(100 * change.better).toFixed(0)} % better, ${(100 * change.trivial).toFixed(0)} % too small to count, ${(100 * change.worse).toFixed(0)} % worse`}
      viewBox={`0 0 ${TEST.width} ${TEST.height}`}
      className="block w-[104px]"
    >
      <rect
        x={x(-1 / unit)}
        width={Math.abs(x(1 / unit) - x(-1 / unit))}
        y={0}
        height={TEST.height}
        className="fill-[var(--wash)]"
      />
      <line
        x1={TEST.width / 2}
        x2={TEST.width / 2}
        y1={0}
        y2={TEST.height}
        className="stroke-control"
      />
      <line
        x1={x(change.low)}
        x2={x(change.high)}
        y1={7}
        y2={7}
        className="stroke-base-content"
        strokeWidth={1.5}
      />
      <circle
        cx={x(change.difference)}
        cy={7}
        r={3.5}
        className={
          change.verdict === "better"
            ? "fill-primary"
            : change.verdict === "worse"
              ? "fill-accent"
              : "fill-base-100 stroke-base-content"
        }
      />
    </svg>
  );
}
