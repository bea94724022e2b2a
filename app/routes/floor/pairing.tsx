import { useEffect, useState } from "react";
import { Link } from "react-router";
import { simplerComplex, withOwnGap } from "../../../core/contrast/complex";
import { dueIn, foldRun, sidesOf } from "../../../core/contrast/run";
import { sideLedger } from "../../../core/contrast/sides";
import { formatClock } from "../../../core/units/time";
import { usePairingLog } from "../../offline/pairing-outbox";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Page } from "../../ui/page";
import { SideTable } from "../../ui/side-table";
import { Figures } from "../../ui/working";
import { endPairing, readPairing } from "../../workflows/floor/pairing.server";
import type { Route } from "./+types/pairing";
import { PairingRow } from "./pairing-row";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.complex.name ?? "Pairing"} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const found = await readPairing(principalOf(context), params.runId);
  if (!found.ok) throw notThere(found);
  return found.value;
}

export async function action({ context, params }: Route.ActionArgs) {
  return endPairing(principalOf(context), params.runId);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** A pairing on the floor: everybody's clocks at once, one tap a start and one a finish. */
export default function Pairing({ loaderData }: Route.ComponentProps) {
  const { complex, athletes, ended, settings } = loaderData;
  const log = usePairingLog(loaderData.id, loaderData.entries);
  const [nowMs, setNowMs] = useState<number>();
  useEffect(() => {
    const tick = () => setNowMs(Date.now());
    tick();
    const timer = setInterval(tick, 250);
    return () => clearInterval(timer);
  }, []);
  const rows = athletes.map((one) => {
    const own = withOwnGap(one.simpler ? simplerComplex(complex) : complex, one.gapS);
    return { ...one, own, run: foldRun(own, one.athleteId, log.entries, settings) };
  });
  const next = rows
    .flatMap((row) => {
      const due = nowMs === undefined ? undefined : dueIn(row.run.stage, nowMs);
      return due ? [{ name: row.name, ...due }] : [];
    })
    .sort((a, b) => a.leftS - b.leftS)[0];
  const ledger = rows.flatMap((row) =>
    sideLedger(sidesOf(row.own, row.run)).map((one) => ({ who: row.name, ...one })),
  );
  return (
    <Page
      title={complex.name}
      facts={`${loaderData.date} · ${athletes.length} athletes · ${complex.rounds} rounds`}
      actions={
        <>
          {log.unsent > 0 ? (
            <span role="status" className="self-center text-secondary">
              {log.unsent} {log.unsent === 1 ? "tap waits" : "taps wait"} for the server
            </span>
          ) : null}
          {ended ? (
            <span className="self-center text-muted">ended</span>
          ) : (
            <Form method="post">
              <button type="submit" className="btn">
                End the pairing
              </button>
            </Form>
          )}
        </>
      }
      margin={
        <>
          {ledger.length > 0 ? (
            <section aria-labelledby="sides-done" className="mb-4">
              <h2 id="sides-done">Left and right</h2>
              <SideTable rows={ledger} labelledBy="sides-done" />
            </section>
          ) : null}
          <section aria-labelledby="rounds-rule">
            <h2 id="rounds-rule">What it goes by</h2>
            <p className="text-muted">
              A start under {settings.earlyUnderPercent} % of the planned rest says so. Output{" "}
              {settings.endAtLossPercent} % under round 1 proposes the end: power is judged by
              output, not by tiredness.
            </p>
            <p className="mt-2 text-muted">Pain or dizziness: stop, and refer.</p>
            <p className="mt-2">
              <Link className="underline" to="/floor/pairing">
                All pairings
              </Link>
            </p>
          </section>
        </>
      }
    >
      <p role="status" className="mb-2 min-h-8 text-[1.2rem]">
        {next ? (
          next.leftS > 0 ? (
            <>
              Next: <b>{next.name}</b> in {formatClock(Math.ceil(next.leftS))}
            </>
          ) : (
            <>
              <b>{next.name}</b> is due
            </>
          )
        ) : (
          <span className="text-muted">Nobody rests.</span>
        )}
      </p>
      <Figures label="Loads">
        <ul className="border-t border-rule">
          {rows.map((row) => (
            <PairingRow
              key={row.athleteId}
              name={row.name}
              unit={row.unit}
              numbers={row.loads}
              complex={row.own}
              run={row.run}
              entries={log.entries}
              nowMs={nowMs}
              tap={log.tap}
              settings={settings}
              closed={ended}
            />
          ))}
        </ul>
      </Figures>
    </Page>
  );
}
