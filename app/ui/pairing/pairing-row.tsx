import { Minus, Plus, Undo2 } from "lucide-react";
import type { Complex } from "../../../core/contrast/complex";
import { type ItemNumber, numberSet } from "../../../core/contrast/item-load";
import {
  type AthleteRun,
  dueIn,
  earlyStart,
  loadSet,
  type RunSettings,
} from "../../../core/contrast/run";
import { type SeekAnswer, seekLoad, seekRounds } from "../../../core/contrast/seek";
import type { PairingLine } from "../../../core/floor/pairing-state";
import { type ClockMark, secondsBetween } from "../../../core/units/clock";
import { formatKg, type MassUnit, massKg, plainNumber } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { Figure } from "../working";
import { OutputField, Outputs, SidesDone } from "./pairing-outputs";
import type { Tap } from "./tap";

/** The rests of a run that is over: how many, how many early, how many by two clocks. */
function restsWords(rests: AthleteRun["rests"]): string {
  const early = rests.filter((one) => one.early).length;
  const estimated = rests.filter((one) => one.estimated).length;
  const sum = (pick: (one: (typeof rests)[number]) => number) =>
    formatClock(Math.round(rests.reduce((total, one) => total + pick(one), 0)));
  return [
    `rested ${sum((one) => one.takenS)} of ${sum((one) => one.plannedS)}`,
    early > 0 ? `${early} of ${rests.length} started early` : "",
    estimated > 0 ? `${estimated} estimated, by two clocks` : "",
  ]
    .filter(Boolean)
    .join(" · ");
}

/** Seconds left of a rest, over it, or at work. */
export function RowClock({
  stage,
  due,
  now,
}: {
  stage: AthleteRun["stage"];
  due: ReturnType<typeof dueIn>;
  now: ClockMark | undefined;
}) {
  const ran = due !== undefined && due.leftS <= 0;
  return (
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
      ) : stage.kind === "working" && now !== undefined ? (
        <span className="text-muted">
          <span className="sr-only">at work: </span>
          {formatClock(Math.floor(secondsBetween(stage.since, now).seconds))}
        </span>
      ) : (
        <span className="text-muted">–</span>
      )}
    </p>
  );
}

/** The rest before what is done now, or all of them where it is over. */
export function RowRests({ run }: { run: AthleteRun }) {
  const { stage, rests } = run;
  const lastRest = rests[rests.length - 1];
  const early = lastRest?.early && stage.kind === "working" ? lastRest : undefined;
  return (
    <>
      {early ? (
        <p className="text-accent">
          Started early: {formatClock(Math.round(early.takenS))} of {formatClock(early.plannedS)}{" "}
          rest.
        </p>
      ) : lastRest && stage.kind === "working" ? (
        <p className="text-muted">
          Rest before it {formatClock(Math.round(lastRest.takenS))} of{" "}
          {formatClock(lastRest.plannedS)}
          {lastRest.estimated ? ", estimated: two clocks" : ""}
        </p>
      ) : null}
      {stage.kind === "over" && run.rests.length > 0 ? (
        <p className="text-muted">{restsWords(run.rests)}</p>
      ) : null}
    </>
  );
}

/** One tap a start and one a finish, and the way back. */
export function RowTaps({
  name,
  run,
  last,
  soon,
  tap,
  undo,
}: {
  name: string;
  run: AthleteRun;
  /** What undo takes back, in words. */
  last: string | undefined;
  soon: boolean;
  tap: (entry: Tap) => void;
  undo: () => void;
}) {
  const { stage } = run;
  const at = stage.kind === "over" ? undefined : { round: stage.round, item: stage.item };
  return (
    <div className="flex items-center gap-2">
      {at ? (
        stage.kind === "working" ? (
          <button
            type="button"
            className="btn btn-primary min-h-16 min-w-28 text-[1.2rem]"
            aria-label={`Done: ${name}`}
            onClick={() => tap({ kind: "item-done", ...at })}
          >
            Done
          </button>
        ) : (
          <button
            type="button"
            className={`btn min-h-16 min-w-28 text-[1.2rem] ${soon ? "" : "btn-primary"}`}
            aria-label={`Start: ${name}`}
            onClick={() => tap({ kind: "item-start", ...at })}
          >
            {soon ? "Start early" : "Start"}
          </button>
        )
      ) : null}
      {last ? (
        <button
          type="button"
          className="btn min-h-16 min-w-12"
          aria-label={`Undo: ${name}`}
          title={`Take back ${last}`}
          onClick={undo}
        >
          <Undo2 className="size-5" aria-hidden />
        </button>
      ) : null}
    </div>
  );
}

/** What is done, and how often. */
export function ItemWords({ item }: { item: Complex["items"][number] }) {
  return (
    <>
      <b>{item.name}</b> × {item.reps}
      {item.kind === "sprint" ? " m" : item.sides ? " a side" : ""}
    </>
  );
}

/** One athlete of a pairing: the clock, what comes now and on what load, and one tap. */
export function PairingRow({
  name,
  line,
  last,
  now,
  tap,
  undo,
  settings,
  closed,
}: {
  name: string;
  line: PairingLine;
  /** What undo takes back, in words; undefined where there is nothing. */
  last: string | undefined;
  now: ClockMark | undefined;
  tap: (entry: Tap) => void;
  undo: () => void;
  settings: RunSettings;
  closed: boolean;
}) {
  const { complex, run } = line;
  const { unit, athleteId, loads: numbers } = line.athlete;
  const { stage } = run;
  const item = stage.kind === "over" ? undefined : complex.items[stage.item];
  const due = now === undefined ? undefined : dueIn(stage, now);
  const at = stage.kind === "over" ? undefined : { round: stage.round, item: stage.item };
  const planned = at && numbers[at.item];
  const number = at && planned && numberSet(planned, loadSet(run, at.item, at.round), unit);
  const soon = now === undefined ? undefined : earlyStart(stage, now, settings);
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
      <RowClock stage={stage} due={due} now={now} />
      <div className="min-w-0">
        {item && stage.kind !== "over" ? (
          <p className="text-[1.15rem]">
            <ItemWords item={item} />
            {number ? (
              <>
                {", "}
                <Figure
                  id={`pairing/${athleteId}/${stage.item}`}
                  working={number.working}
                  label={`${name}, ${item.name}, ${number.words}`}
                >
                  {number.words}
                </Figure>
                {number.side ? (
                  <span className="block text-base text-muted">side {number.side}</span>
                ) : null}
              </>
            ) : null}
            {due?.warn && !ran ? <span className="text-secondary"> · get ready</span> : null}
          </p>
        ) : null}
        {at && item && item.load.by !== "none" && planned?.kg === undefined && !closed ? (
          <OutputField
            label={`${name}: load of ${item.name}, ${unit}`}
            hint={`coach's load, ${unit}`}
            onValue={(amount) => tap({ kind: "item-load", ...at, kg: massKg({ amount, unit }) })}
          />
        ) : null}
        {at && planned?.steps && !closed && stage.kind !== "working" ? (
          <LoadSteps
            key={`${at.round}/${at.item}`}
            name={name}
            item={item?.name ?? ""}
            kg={number?.kg}
            steps={planned.steps}
            unit={unit}
            sought={item?.seek ? seekOf(complex, run, at.item, planned, settings) : undefined}
            onLoad={(kg) => tap({ kind: "item-load", ...at, kg })}
          />
        ) : null}
        <RowRests run={run} />
        {run.endProposed ? (
          <p className="text-accent">
            {complex.items[run.endProposed.item]?.name}
            {run.endProposed.side ? `, ${run.endProposed.side},` : ""} is{" "}
            {plainNumber(run.endProposed.lossPercent, 0)} % under round 1: enough done.{" "}
            {stage.kind !== "over" && at && !closed ? (
              <button
                type="button"
                className="min-h-11 underline"
                onClick={() =>
                  tap({
                    kind: "pairing-stop",
                    ...at,
                    reason: `Output ${settings.endAtLossPercent} % under round 1`,
                  })
                }
              >
                End it for {name}
              </button>
            ) : null}
          </p>
        ) : null}
        {closed ? null : <SidesDone complex={complex} run={run} tap={tap} name={name} />}
        <Outputs complex={complex} run={run} tap={tap} closed={closed} name={name} />
      </div>
      {closed ? null : (
        <RowTaps
          name={name}
          run={run}
          last={last}
          soon={soon !== undefined}
          tap={tap}
          undo={undo}
        />
      )}
    </li>
  );
}

/** What the search for an item's load says after the rounds so far. */
function seekOf(
  complex: Complex,
  run: AthleteRun,
  item: number,
  planned: ItemNumber,
  settings: RunSettings,
): SeekAnswer | undefined {
  const { measure, rounds } = seekRounds(complex, run, item, planned.kg);
  return measure && seekLoad({ rounds, measure, steps: planned.steps ?? [], settings });
}

/** Another load before the next start: a step down, a step up, and what output says. */
function LoadSteps({
  name,
  item,
  kg,
  steps,
  unit,
  sought,
  onLoad,
}: {
  name: string;
  item: string;
  kg: number | undefined;
  steps: readonly number[];
  unit: MassUnit;
  sought: SeekAnswer | undefined;
  onLoad: (kg: number) => void;
}) {
  const now = kg ?? steps[0] ?? 0;
  const lower = [...steps].reverse().find((one) => one < now - 1e-9);
  const higher = steps.find((one) => one > now + 1e-9);
  const to =
    sought?.kind === "raise" ? sought.toKg : sought?.kind === "found" ? sought.kg : undefined;
  const words = (load: number) => formatKg(load, unit, 1);
  return (
    <div className="mt-1 flex flex-wrap items-center gap-1.5">
      {(
        [
          [lower, "Lighter", Minus],
          [higher, "Heavier", Plus],
        ] as const
      ).map(([load, what, Icon]) => (
        <button
          key={what}
          type="button"
          className="btn min-h-11 min-w-11"
          aria-label={`${what}: ${name}, ${item}${load === undefined ? "" : `, ${words(load)}`}`}
          disabled={load === undefined}
          onClick={() => load !== undefined && onLoad(load)}
        >
          <Icon className="size-4" aria-hidden />
        </button>
      ))}
      {to !== undefined && Math.abs(to - now) > 1e-9 ? (
        <button type="button" className="btn min-h-11" onClick={() => onLoad(to)}>
          Take {words(to)}
        </button>
      ) : null}
      {sought && sought.kind !== "begin" ? (
        <Figure
          id={`pairing/seek/${name}/${item}`}
          working={sought.working}
          label={`${name}: what output says of the load`}
        >
          {sought.kind === "raise"
            ? sought.rose
              ? "output rose"
              : "one round so far"
            : sought.kind === "found"
              ? `found: ${words(sought.kg)}`
              : `heaviest here: ${words(sought.kg)}`}
        </Figure>
      ) : null}
    </div>
  );
}
