import { useEffect, useMemo, useState } from "react";
import { Link } from "react-router";
import { dueIn, sidesOf } from "../../../core/contrast/run";
import { sideLedger } from "../../../core/contrast/sides";
import { actWords } from "../../../core/floor/act-words";
import type { FrozenSession } from "../../../core/floor/frozen";
import type { ClockMark } from "../../../core/units/clock";
import { formatClock } from "../../../core/units/time";
import { packLog } from "../../forms/pack-session-log";
import { unpackLog } from "../../forms/session-log";
import { deviceClock } from "../../offline/device";
import { useSessionLog } from "../../offline/use-session-log";
import { notThere } from "../../platform/answers.server";
import { now } from "../../platform/clock.server";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Page } from "../../ui/page";
import { PairingRow } from "../../ui/pairing/pairing-row";
import { PairingTile, TILES_FROM } from "../../ui/pairing/pairing-tile";
import type { Tap } from "../../ui/pairing/tap";
import { SideTable } from "../../ui/side-table";
import { Figures } from "../../ui/working";
import { finishSession } from "../../workflows/floor/end-session.server";
import { readPairing } from "../../workflows/floor/pairing.server";
import type { Route } from "./+types/pairing";
import { LogLine } from "./log-line";

export function meta({ loaderData }: Route.MetaArgs) {
  return [{ title: `${loaderData?.title ?? "Pairing"} · Sprezza` }];
}

export async function loader({ context, params }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const found = await readPairing(principal, params.runId);
  if (!found.ok) throw notThere(found);
  const { id, frozen, status, entries } = found.value;
  return {
    id,
    title: frozen.title,
    status,
    log: packLog({ frozen, entries }),
    serverNowMs: now().getTime(),
    mayEnd: mayWrite(principal, "/floor/pairing/:runId"),
  };
}

export async function action({ context, params }: Route.ActionArgs) {
  return finishSession(principalOf(context), params.runId);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** A pairing on the floor: everybody's clocks at once, one tap a start and one a finish. */
export default function Pairing({ loaderData }: Route.ComponentProps) {
  const { id, status, serverNowMs, mayEnd } = loaderData;
  const packed = useMemo(() => unpackLog(loaderData.log), [loaderData.log]);
  return (
    <PairingScreen
      key={id}
      sessionId={id}
      {...packed}
      serverNowMs={serverNowMs}
      ended={status === "ended"}
      mayEnd={mayEnd}
    />
  );
}

function PairingScreen(
  props: Parameters<typeof useSessionLog>[0] & { frozen: FrozenSession; mayEnd: boolean },
) {
  const { log, view } = useSessionLog(props);
  const [clock, setClock] = useState<ClockMark>();
  /** Of many, the one whose loads and outputs are open. */
  const [opened, setOpened] = useState<string>();
  useEffect(() => {
    const tick = () => setClock(deviceClock().mark());
    tick();
    const timer = setInterval(tick, 250);
    return () => clearInterval(timer);
  }, []);
  const ended = view.ended || props.ended;
  const [pairing] = view.floor.pairings;
  if (!pairing) return null;
  const { slot } = pairing;
  const { complex, settings } = slot;
  const rows = pairing.athletes;
  const next = rows
    .flatMap((row) => {
      const due = clock === undefined ? undefined : dueIn(row.run.stage, clock);
      return due ? [{ name: row.athlete.name, ...due }] : [];
    })
    .sort((a, b) => a.leftS - b.leftS)[0];
  const ledger = rows.flatMap((row) =>
    sideLedger(sidesOf(row.complex, row.run)).map((one) => ({ who: row.athlete.name, ...one })),
  );
  const propsOf = (row: (typeof rows)[number]) => {
    const { athleteId, name, unit } = row.athlete;
    const last = log.fold.counting(slot.slotId, athleteId).at(-1);
    const at = { athleteId, slotId: slot.slotId, stationId: row.stationId };
    return {
      name,
      line: row,
      last: last && actWords(last.body, { complex, unit }),
      now: clock,
      tap: (tap: Tap) => void log.append({ ...tap, ...at }),
      undo: () => void (last && log.append({ kind: "void" }, [last.entry.id])),
      settings,
      closed: ended,
    };
  };
  return (
    <Page
      title={complex.name}
      facts={`${props.frozen.date} · ${rows.length} athletes · ${complex.rounds} rounds`}
      actions={
        <>
          <span className="self-center">
            <LogLine view={view} />
          </span>
          {ended ? (
            <span className="self-center text-muted">ended</span>
          ) : props.mayEnd ? (
            <Form method="post">
              <button type="submit" className="btn">
                End the pairing
              </button>
            </Form>
          ) : null}
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
        {rows.length >= TILES_FROM ? (
          <ul className="mb-3 grid grid-cols-[repeat(auto-fill,minmax(14rem,1fr))] gap-1.5">
            {rows.map((row) => (
              <PairingTile
                key={row.athlete.athleteId}
                {...propsOf(row)}
                opened={opened === row.athlete.athleteId}
                open={() => setOpened(row.athlete.athleteId)}
              />
            ))}
          </ul>
        ) : null}
        <ul className="border-t border-rule">
          {rows
            .filter((row) => rows.length < TILES_FROM || row.athlete.athleteId === opened)
            .map((row) => (
              <PairingRow key={row.athlete.athleteId} {...propsOf(row)} />
            ))}
        </ul>
      </Figures>
    </Page>
  );
}
