import { Undo2 } from "lucide-react";
import { useEffect, useState } from "react";
import { Form, Link } from "react-router";
import { type Complex, simplerComplex, withOwnGap } from "../../../core/contrast/complex";
import {
  type AthleteRun,
  dueIn,
  EARLY_UNDER_SHARE,
  earlyStart,
  foldRun,
  type RunEntry,
} from "../../../core/contrast/run";
import { plainNumber } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { type Tap, usePairingLog } from "../../offline/pairing-outbox";
import { notThere } from "../../platform/answers.server";
import { principalOf } from "../../platform/guard.server";
import { keepForm } from "../../ui/keep-form";
import { Page } from "../../ui/page";
import { endPairing, readPairing } from "../../workflows/floor/pairing.server";
import type { Route } from "./+types/pairing";
import { Outputs } from "./pairing-outputs";

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

/** The rests of a run that is over: how many, how many early, how many by two clocks. */
function restsWords(rests: AthleteRun["rests"]): string {
  const early = rests.filter((one) => one.early).length;
  const estimated = rests.filter((one) => one.estimated).length;
  const sum = (pick: (one: (typeof rests)[number]) => number) =>
    formatClock(Math.round(rests.reduce((total, one) => total + pick(one), 0)));
  return [
    `rested ${sum((one) => one.takenS)} of ${sum((one) => one.plannedS)}`,
    early > 0 ? `${early} of ${rests.length} started early` : "",
    estimated > 0 ? `${estimated} estimated, by two tablets' clocks` : "",
  ]
    .filter(Boolean)
    .join(" · ");
}

/** A pairing on the floor: everybody's clocks at once, one tap a start and one a finish. */
export default function Pairing({ loaderData }: Route.ComponentProps) {
  const { complex, athletes, ended } = loaderData;
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
    return { ...one, own, run: foldRun(own, one.athleteId, log.entries) };
  });
  const next = rows
    .flatMap((row) => {
      const due = nowMs === undefined ? undefined : dueIn(row.run.stage, nowMs);
      return due ? [{ name: row.name, ...due }] : [];
    })
    .sort((a, b) => a.leftS - b.leftS)[0];
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
        <section aria-labelledby="rounds-rule">
          <h2 id="rounds-rule">What it goes by</h2>
          <p className="text-muted">
            A start under {100 * EARLY_UNDER_SHARE} % of the planned rest says so. Output 10 % under
            round 1 proposes the end: power is judged by output, not by tiredness.
          </p>
          <p className="mt-2 text-muted">Pain or dizziness: stop, and refer.</p>
          <p className="mt-2">
            <Link className="underline" to="/floor/pairing">
              All pairings
            </Link>
          </p>
        </section>
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
      <ul className="border-t border-rule">
        {rows.map((row) => (
          <AthleteRow
            key={row.athleteId}
            name={row.name}
            loads={row.loads}
            complex={row.own}
            run={row.run}
            entries={log.entries}
            nowMs={nowMs}
            tap={log.tap}
            closed={ended}
          />
        ))}
      </ul>
    </Page>
  );
}

function AthleteRow({
  name,
  loads,
  complex,
  run,
  entries,
  nowMs,
  tap,
  closed,
}: {
  name: string;
  loads: string[];
  complex: Complex;
  run: AthleteRun;
  entries: readonly RunEntry[];
  nowMs: number | undefined;
  tap: (entry: Tap) => string;
  closed: boolean;
}) {
  const { stage, athleteId } = run;
  const item = stage.kind === "over" ? undefined : complex.items[stage.item];
  const due = nowMs === undefined ? undefined : dueIn(stage, nowMs);
  const at =
    stage.kind === "over" ? undefined : { athleteId, round: stage.round, item: stage.item };
  const last = [...entries]
    .reverse()
    .find(
      (one) =>
        one.athleteId === athleteId &&
        one.kind !== "void" &&
        !entries.some((two) => two.kind === "void" && two.of === one.id),
    );
  const lastRest = run.rests[run.rests.length - 1];
  const early = lastRest?.early && stage.kind === "working" ? lastRest : undefined;
  const soon = nowMs === undefined ? undefined : earlyStart(stage, nowMs);
  const ran = due !== undefined && due.leftS <= 0;
  return (
    <li
      aria-label={name}
      className="grid items-center gap-x-4 gap-y-2 border-b border-rule py-2 sm:grid-cols-[9rem_5.5rem_1fr_auto]"
    >
      <div>
        <p className="text-[1.25rem] font-bold">{name}</p>
        <p className="text-muted">
          {stage.kind === "over" ? (
            stage.why === "done" ? (
              "all rounds done"
            ) : (
              "stopped"
            )
          ) : (
            <>
              round {stage.round} of {complex.rounds}
            </>
          )}
        </p>
      </div>
      <p
        className={`text-[2rem] leading-none font-bold tabular-nums ${ran ? "rest-over text-accent" : due?.warn ? "text-secondary" : ""}`}
      >
        {due ? (
          <>
            <span className="sr-only">rest: </span>
            {due.leftS > 0
              ? formatClock(Math.ceil(due.leftS))
              : `+${formatClock(Math.floor(-due.leftS))}`}
          </>
        ) : stage.kind === "working" && nowMs !== undefined ? (
          <span className="text-muted">
            <span className="sr-only">at work: </span>
            {formatClock(Math.max(0, Math.floor((nowMs - stage.sinceMs) / 1000)))}
          </span>
        ) : (
          <span className="text-muted">–</span>
        )}
      </p>
      <div className="min-w-0">
        {item && stage.kind !== "over" ? (
          <p className="text-[1.15rem]">
            <b>{item.name}</b> × {item.reps}
            {item.kind === "sprint" ? " m" : item.sides ? " a side" : ""}
            {loads[stage.item] ? `, ${loads[stage.item]}` : ""}
            {due?.warn && !ran ? <span className="text-secondary"> · get ready</span> : null}
          </p>
        ) : null}
        {early ? (
          <p className="text-accent">
            Started early: {formatClock(Math.round(early.takenS))} of {formatClock(early.plannedS)}{" "}
            rest.
          </p>
        ) : lastRest && stage.kind === "working" ? (
          <p className="text-muted">
            Rest before it {formatClock(Math.round(lastRest.takenS))} of{" "}
            {formatClock(lastRest.plannedS)}
            {lastRest.estimated ? ", estimated: two tablets" : ""}
          </p>
        ) : null}
        {stage.kind === "over" && run.rests.length > 0 ? (
          <p className="text-muted">{restsWords(run.rests)}</p>
        ) : null}
        {run.endProposed ? (
          <p className="text-accent">
            {complex.items[run.endProposed.item]?.name} is{" "}
            {plainNumber(run.endProposed.lossPercent, 0)} % under round 1: enough done.{" "}
            {stage.kind !== "over" && at && !closed ? (
              <button
                type="button"
                className="min-h-11 underline"
                onClick={() =>
                  tap({
                    kind: "stop",
                    ...at,
                    reason: "Output 10 % under round 1",
                    atMs: Date.now(),
                  })
                }
              >
                End it for {name}
              </button>
            ) : null}
          </p>
        ) : null}
        <Outputs complex={complex} run={run} tap={tap} closed={closed} name={name} />
      </div>
      <div className="flex items-center gap-2">
        {at && !closed ? (
          stage.kind === "working" ? (
            <button
              type="button"
              className="btn btn-primary min-h-16 min-w-28 text-[1.2rem]"
              aria-label={`Done: ${name}`}
              onClick={() => tap({ kind: "done", ...at, atMs: Date.now() })}
            >
              Done
            </button>
          ) : (
            <button
              type="button"
              className={`btn min-h-16 min-w-28 text-[1.2rem] ${soon ? "" : "btn-primary"}`}
              aria-label={`Start: ${name}`}
              onClick={() => tap({ kind: "start", ...at, atMs: Date.now() })}
            >
              {soon ? "Start early" : "Start"}
            </button>
          )
        ) : null}
        {last && !closed ? (
          <button
            type="button"
            className="btn min-h-16 min-w-12"
            aria-label={`Undo: ${name}`}
            title="Take the last tap back"
            onClick={() =>
              tap({
                kind: "void",
                of: last.id,
                athleteId,
                round: last.round,
                item: last.item,
                atMs: Date.now(),
              })
            }
          >
            <Undo2 className="size-5" aria-hidden />
          </button>
        ) : null}
      </div>
    </li>
  );
}
