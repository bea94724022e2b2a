import { useState } from "react";
import { OUTPUTS } from "../../../core/contrast/outputs";
import type { Side } from "../../../core/contrast/run";
import type { SetAddress } from "../../../core/floor/entries";
import { type ExerciseLine, sidesLeft } from "../../../core/floor/exercise-state";
import type { FrozenExercise } from "../../../core/floor/frozen";
import { amended, doneAsPlanned, lastWork, nextWork, sideGap } from "../../../core/floor/round";
import type { ExerciseState } from "../../../core/floor/state";
import { secondsBetween } from "../../../core/units/clock";
import {
  kgToGrains,
  type MassUnit,
  massIn,
  massKg,
  plainNumber,
  readMass,
} from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { deviceClock } from "../../offline/device";
import { useKeys } from "../../ui/use-keys";
import { useNow } from "../../ui/use-now";
import { FaultList } from "./fault-list";
import { Finished } from "./finished";
import { KeyPad } from "./key-pad";
import { StationFrame, type WorkProps } from "./station-frame";

const TICK_MS = 1000;
const COUNTS = { reps: "reps", metres: "m", contacts: "contacts" } as const;

interface Cell {
  athleteId: string;
  slotId: string;
}

/** What a round goes by: the chosen field, and what can be said of it. */
function useRound(
  { log, view, stationId, serverNowMs, more }: WorkProps,
  works: readonly ExerciseState[],
) {
  useNow(log.nowMs, serverNowMs, TICK_MS);
  const [cell, setCell] = useState<Cell>();
  const [panel, setPanel] = useState<"reps" | "load" | "output" | "pain">();
  const [typed, setTyped] = useState("");
  const people = [
    ...new Map(
      works.flatMap((work) =>
        work.athletes.map((line) => [line.athlete.athleteId, line.callName] as const),
      ),
    ),
  ];
  const lineOf = (of: Cell | undefined) => {
    const work = works.find((one) => one.slot.slotId === of?.slotId);
    const line = work?.athletes.find((one) => one.athlete.athleteId === of?.athleteId);
    return work && line ? { slot: work.slot, line } : undefined;
  };
  const shown = lineOf(cell);
  const last = shown && lastWork(shown.line);
  const at = (of: Cell) => ({ ...of, stationId });
  const setAt = (setKey: string): SetAddress | undefined => cell && { ...at(cell), setKey };

  const doNext = (of: Cell, side?: Side) => {
    const found = lineOf(of);
    const coming = found && nextWork(found.slot, found.line);
    setCell(of);
    if (!coming || view.ended) return;
    const first = side ?? coming.sides[0];
    if (side && !coming.sides.includes(side)) return;
    log.append(doneAsPlanned(at(of), coming.set, first));
  };
  const notYet = (of: Cell) => {
    const found = lineOf(of);
    const coming = found && nextWork(found.slot, found.line);
    setCell(of);
    if (coming && !view.ended)
      log.append({ kind: "skip", ...at(of), setKey: coming.set.prescription.key });
  };
  const passAfterAll = (of: Cell) => {
    const [set] = lineOf(of)?.line.sets ?? [];
    if (set && !view.ended) log.append(doneAsPlanned(at(of), set, undefined));
  };
  const everybody = (work: ExerciseState) => {
    const least = Math.min(...work.athletes.map((one) => one.current ?? Number.POSITIVE_INFINITY));
    for (const line of work.athletes) {
      const coming = nextWork(work.slot, line);
      if (!coming || line.current !== least || view.ended) continue;
      const of = { athleteId: line.athlete.athleteId, slotId: work.slot.slotId };
      for (const side of coming.sides) log.append(doneAsPlanned(at(of), coming.set, side));
    }
  };
  const amend = (change: Parameters<typeof amended>[2]) => {
    if (cell && last) log.append(amended(at(cell), last, change), [last.done.entryId]);
    setPanel(undefined);
  };
  const undo = () => last && log.append({ kind: "void" }, [last.done.entryId]);
  const step = (right: number, down: number) => {
    const row = people.findIndex(([id]) => id === cell?.athleteId);
    const column = works.findIndex((one) => one.slot.slotId === cell?.slotId);
    const person = people[Math.max(0, Math.min(people.length - 1, row + down))];
    const work = works[Math.max(0, Math.min(works.length - 1, column + right))];
    if (person && work) setCell({ athleteId: person[0], slotId: work.slot.slotId });
  };
  const type = (digit: string) => {
    if (!last || !shown || shown.slot.ladder) return;
    setTyped(digit);
    setPanel(shown.slot.output === "none" ? "reps" : "output");
  };
  useKeys(
    {
      l: () => cell && doNext(cell, "left"),
      r: () => cell && doNext(cell, "right"),
      u: () => undo(),
      f: () => shown && setPanel("pain"),
      ...Object.fromEntries([
        ["ArrowRight", () => step(1, 0)],
        ["ArrowLeft", () => step(-1, 0)],
        ["ArrowDown", () => step(0, 1)],
        ["ArrowUp", () => step(0, -1)],
        ["Enter", () => cell && doNext(cell)],
      ]),
      ...Object.fromEntries([..."0123456789"].map((digit) => [digit, type])),
    },
    panel === undefined,
  );
  const openMore = () =>
    more({
      slotId: cell?.slotId ?? works[0]?.slot.slotId ?? "",
      who: shown && { athleteId: shown.line.athlete.athleteId, name: shown.line.callName },
      set: skipWords(shown, (setKey) => {
        const address = setAt(setKey);
        if (address) log.append({ kind: "skip", ...address });
      }),
    });
  const allDone = works.every((work) => work.athletes.every((one) => one.current === undefined));

  return {
    people,
    lineOf,
    cell,
    setCell,
    shown,
    last,
    panel,
    setPanel,
    typed,
    setTyped,
    doNext,
    notYet,
    passAfterAll,
    everybody,
    amend,
    undo,
    setAt,
    openMore,
    allDone,
  };
}

/**
 * A round without a bar: nobody is "up", everybody does something at once. So it is a grid, people
 * by exercises, and a tap on a cell says that the next set there was done as planned.
 */
export function RoundWork({
  works,
  next,
  ...props
}: WorkProps & {
  works: readonly ExerciseState[];
  next: { name: string; go: () => void } | undefined;
}) {
  const { log, view } = props;
  const round = useRound(props, works);
  const { cell, shown, last, panel } = round;
  return (
    <StationFrame
      head={props.head}
      foot={props.foot}
      aside={
        shown && cell ? (
          <Chosen
            slot={shown.slot}
            line={shown.line}
            ended={view.ended}
            open={(what) => {
              round.setTyped("");
              round.setPanel(what);
            }}
            undo={round.undo}
            more={round.openMore}
          />
        ) : (
          <div>
            <p className="text-[18px]">
              A tap on a field is a set done as planned. What was different is said here after it.
            </p>
            <button
              type="button"
              className="btn mt-3 min-h-[64px] text-[18px]"
              disabled={view.ended}
              onClick={round.openMore}
            >
              More
            </button>
          </div>
        )
      }
    >
      {props.top}
      <h1 className="sr-only">{works.map((work) => work.slot.name).join(", ")}</h1>
      {works.length === 1 && works[0] ? (
        <OneExercise work={works[0]} round={round} ended={view.ended} />
      ) : (
        <Grid works={works} round={round} ended={view.ended} />
      )}
      {round.allDone ? (
        <Finished
          atPlace
          sessionId={props.sessionId}
          fixed={props.fixed}
          next={next}
          more={round.openMore}
          after={props.after}
        />
      ) : null}
      {panel && shown && cell && last && panel !== "pain" ? (
        <AmendPad
          what={panel}
          slot={shown.slot}
          unit={shown.line.athlete.unit}
          typed={round.typed}
          amend={round.amend}
          close={() => round.setPanel(undefined)}
        />
      ) : null}
      {panel === "pain" && shown && cell ? (
        <FaultList
          faults={[]}
          onClose={() => round.setPanel(undefined)}
          onFault={() => {}}
          onPain={(place) => {
            const setKey = (last?.set ?? shown.line.sets[0])?.prescription.key;
            const address = setKey === undefined ? undefined : round.setAt(setKey);
            if (address) log.append({ kind: "pain", ...address, place });
          }}
        />
      ) : null}
    </StationFrame>
  );
}

type Round = ReturnType<typeof useRound>;

/** One exercise: everybody's field beside the others', as many as the screen is wide. */
function OneExercise({
  work,
  round,
  ended,
}: {
  work: ExerciseState;
  round: Round;
  ended: boolean;
}) {
  const { cell } = round;
  return (
    <>
      <ColumnHead work={work} round={round} ended={ended} />
      <ul className="mt-3 grid grid-cols-2 gap-2 md:grid-cols-3">
        {work.athletes.map((line) => {
          const of = { athleteId: line.athlete.athleteId, slotId: work.slot.slotId };
          return (
            <li key={of.athleteId} className="flex flex-col">
              <span className="truncate text-[18px] font-bold">{line.callName}</span>
              <CellTaps
                slot={work.slot}
                line={line}
                chosen={cell?.athleteId === of.athleteId}
                disabled={ended}
                choose={() => round.setCell(of)}
                tap={(side) => round.doNext(of, side)}
                notYet={() => round.notYet(of)}
                passAfterAll={() => round.passAfterAll(of)}
              />
            </li>
          );
        })}
      </ul>
    </>
  );
}

/** An exercise's name and dose, and the tap that says it for everybody. */
function ColumnHead({ work, round, ended }: { work: ExerciseState; round: Round; ended: boolean }) {
  // A rung is looked at person by person: nobody passes with the others.
  if (work.slot.ladder)
    return (
      <div>
        <span className="block text-[22px] leading-tight font-bold">{work.slot.name}</span>
        <span className="block text-[17px] text-muted">
          Passed, or not yet: one tap a person. Down a rung where it is not clean.
        </span>
      </div>
    );
  return (
    <div>
      <span className="block text-[22px] leading-tight font-bold">{work.slot.name}</span>
      <span className="block text-[17px] text-muted">{slotWords(work.slot)}</span>
      <button
        type="button"
        className="btn mt-1 min-h-[56px] text-[17px]"
        disabled={ended || work.athletes.every((one) => one.current === undefined)}
        onClick={() => round.everybody(work)}
      >
        All did a set
      </button>
    </div>
  );
}

/** Exercises done in rounds: people by exercises. */
function Grid({
  works,
  round,
  ended,
}: {
  works: readonly ExerciseState[];
  round: Round;
  ended: boolean;
}) {
  const { people, lineOf, cell } = round;
  return (
    <div className="overflow-x-auto">
      <table className="w-full border-separate border-spacing-2 text-left">
        <thead>
          <tr>
            <th scope="col" className="w-28">
              <span className="sr-only">Athlete</span>
            </th>
            {works.map((work) => (
              <th key={work.slot.slotId} scope="col" className="align-bottom font-normal">
                <ColumnHead work={work} round={round} ended={ended} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {people.map(([athleteId, name]) => (
            <tr key={athleteId}>
              <th scope="row" className="max-w-40 truncate text-[22px] font-bold">
                {name}
              </th>
              {works.map((work) => {
                const of = { athleteId, slotId: work.slot.slotId };
                const line = lineOf(of)?.line;
                return (
                  <td key={work.slot.slotId} className="align-top">
                    {line ? (
                      <CellTaps
                        slot={work.slot}
                        line={line}
                        chosen={cell?.athleteId === athleteId && cell.slotId === of.slotId}
                        disabled={ended}
                        choose={() => round.setCell(of)}
                        tap={(side) => round.doNext(of, side)}
                        notYet={() => round.notYet(of)}
                        passAfterAll={() => round.passAfterAll(of)}
                      />
                    ) : null}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function slotWords(slot: FrozenExercise): string {
  const set = slot.groups[0]?.athletes[0]?.sets[0] ?? slot.absent?.[0]?.sets[0];
  const reps = set ? `${set.reps}${set.repsTo ? ` to ${set.repsTo}` : ""}` : "";
  return [
    `${reps} ${COUNTS[slot.counts]}${slot.sides === "left-right" ? " a side" : ""}`,
    slot.hands === 2 ? "each hand" : "",
    `rest ${formatClock(slot.rest.leastS)}`,
  ]
    .filter(Boolean)
    .join(" · ");
}

function skipWords(
  shown: { slot: FrozenExercise; line: ExerciseLine } | undefined,
  skip: (setKey: string) => void,
) {
  const coming = shown && nextWork(shown.slot, shown.line)?.set;
  return coming?.stage === "to-come"
    ? [
        {
          name: shown?.slot.ladder ? "Not yet: stays on this rung" : "Leave this set out",
          run: () => skip(coming.prescription.key),
        },
      ]
    : [];
}

const loadWords = (kg: number | undefined, unit: MassUnit) =>
  kg === undefined ? "" : `${plainNumber(massIn(kgToGrains(kg), unit), 1)} ${unit}`;

/** One athlete at one exercise: the whole field is the next set, a half is a side. */
function CellTaps({
  slot,
  line,
  chosen,
  disabled,
  choose,
  tap,
  notYet,
  passAfterAll,
}: {
  slot: FrozenExercise;
  line: ExerciseLine;
  chosen: boolean;
  disabled: boolean;
  choose: () => void;
  tap: (side?: Side) => void;
  /** Of a rung: it is left as it is today. */
  notYet: () => void;
  passAfterAll: () => void;
}) {
  const set = line.current === undefined ? undefined : line.sets[line.current];
  const left = set ? sidesLeft(slot, set) : [];
  const name = `${line.callName}, ${slot.name}`;
  const frame = `flex min-h-[72px] w-full cursor-pointer flex-col items-start justify-center rounded border-2 px-3 text-left ${chosen ? "border-base-content" : "border-rule"}`;
  const marks = <Marks slot={slot} line={line} />;
  const load = loadWords(set?.loadKg ?? line.sets[0]?.loadKg, line.athlete.unit);
  const held =
    line.held.length > 0 ? <b className="text-[17px] text-accent">held by coach</b> : null;
  if (!set && line.athlete.rung && line.doneCount === 0 && !line.off)
    return (
      <div className="grid gap-1 rounded border-2 border-rule bg-base-200 p-2">
        <span className="text-[17px] text-muted">{doneWords(line)}</span>
        <button
          type="button"
          disabled={disabled}
          className="btn min-h-[64px] text-[18px]"
          aria-label={`${line.callName} passes ${line.athlete.rung.name} after all`}
          onClick={passAfterAll}
        >
          Passed after all
        </button>
      </div>
    );
  if (!set) {
    return (
      <button
        type="button"
        className={`${frame} bg-base-200`}
        onClick={choose}
        aria-label={`${name}, all done`}
      >
        <span className="text-[17px] text-muted">{doneWords(line)}</span>
        {marks}
        {held}
      </button>
    );
  }
  const number = set.prescription.number;
  if (slot.sides === "left-right") {
    return (
      <div>
        <div className="grid grid-cols-2 gap-1">
          {(["left", "right"] as const).map((side) => (
            <button
              key={side}
              type="button"
              disabled={disabled}
              className={`${frame} ${left.includes(side) ? "" : "bg-primary text-primary-content"}`}
              aria-label={`${name}, set ${number}, ${side}${left.includes(side) ? "" : ", done"}`}
              onClick={() => (left.includes(side) ? tap(side) : choose())}
            >
              <span className="text-[20px] font-bold">{side}</span>
              <span className="text-[17px]">{load}</span>
            </button>
          ))}
        </div>
        {marks}
        {held}
        <SideWords line={line} />
      </div>
    );
  }
  const { rung } = line.athlete;
  if (rung)
    return (
      <div
        className={`grid gap-1 rounded border-2 p-2 ${chosen ? "border-base-content" : "border-rule"}`}
      >
        <b className="text-[20px] leading-tight">{rung.name}</b>
        <span className="text-[17px] leading-tight text-muted">{rung.pass}</span>
        {held}
        <div className="grid grid-cols-2 gap-1">
          <button
            type="button"
            disabled={disabled}
            className="btn min-h-[64px] text-[18px]"
            aria-label={`${line.callName} passes ${rung.name}`}
            onClick={() => tap()}
          >
            Passed
          </button>
          <button
            type="button"
            disabled={disabled}
            className="btn min-h-[64px] text-[18px]"
            aria-label={`${line.callName}, not yet ${rung.name}`}
            onClick={notYet}
          >
            Not yet
          </button>
        </div>
      </div>
    );
  return (
    <button
      type="button"
      disabled={disabled}
      className={frame}
      aria-label={`${name}, set ${number} done`}
      onClick={() => tap()}
    >
      <span className="text-[20px] leading-tight">
        {load ? <b>{load}</b> : null} {load ? "× " : ""}
        {set.prescription.reps}
      </span>
      {marks}
      {set.prescription.loadReason ? (
        <span className="text-[17px] text-muted">no load yet</span>
      ) : null}
      {held}
    </button>
  );
}

/** What became of somebody's sets; of a rung, whether it was passed. */
function doneWords(line: ExerciseLine): string {
  const { rung } = line.athlete;
  if (line.off) return "taken off";
  if (!rung) return "done";
  return line.doneCount > 0 ? `passed: ${rung.name}` : `not yet: ${rung.name}`;
}

/** A square a set, full where it is done, with what was different. */
function Marks({ slot, line }: { slot: FrozenExercise; line: ExerciseLine }) {
  return (
    <span className="mt-1 flex gap-1" aria-hidden="true">
      {line.sets.map((set) => {
        const look =
          set.stage === "done"
            ? "bg-primary text-primary-content border-primary"
            : set.stage === "dropped"
              ? "border-dashed border-rule"
              : set.stage === "running"
                ? "border-primary bg-faint"
                : "border-control";
        const best = set.done.at(-1);
        const said =
          best?.output !== undefined
            ? plainNumber(best.output, 2)
            : best && best.reps !== set.prescription.reps
              ? String(best.reps)
              : "";
        return (
          <span
            key={set.prescription.key}
            className={`inline-flex h-7 min-w-7 items-center justify-center rounded-sm border-2 px-0.5 text-[15px] ${look}`}
            title={`set ${set.prescription.number} ${slot.name}`}
          >
            {said}
          </span>
        );
      })}
    </span>
  );
}

function SideWords({ line }: { line: ExerciseLine }) {
  const gap = sideGap(line);
  return gap ? (
    <p className="text-[17px] text-accent">
      {gap.side} is {gap.by} behind
    </p>
  ) : null;
}

/** The chosen field: what was done last, and what may be said of it. */
function Chosen({
  slot,
  line,
  ended,
  open,
  undo,
  more,
}: {
  slot: FrozenExercise;
  line: ExerciseLine;
  ended: boolean;
  open: (what: "reps" | "load" | "output" | "pain") => void;
  undo: () => void;
  more: () => void;
}) {
  const last = lastWork(line);
  const output = OUTPUTS[slot.output];
  const BIG = "btn min-h-[64px] text-[18px]";
  const end = last?.set.end;
  const rested =
    end && typeof window !== "undefined"
      ? secondsBetween(end, deviceClock().mark()).seconds
      : undefined;
  return (
    <section aria-label={`${line.callName}, ${slot.name}`} className="grid gap-2">
      <p className="text-[22px] leading-tight font-bold">{line.callName}</p>
      <p className="text-[18px] leading-tight text-muted">
        {slot.name}
        {rested === undefined ? "" : `, rested ${formatClock(Math.max(0, rested))}`}
      </p>
      {line.athlete.instructions.map((text) => (
        <p key={text} className="border-l-[3px] border-secondary pl-2 text-[17px]">
          {text}
        </p>
      ))}
      {last ? (
        <p className="text-[18px]">
          Set {last.set.prescription.number}
          {last.done.side ? `, ${last.done.side}` : ""}: {last.done.reps} {COUNTS[slot.counts]}
          {last.done.loadKg === undefined
            ? ""
            : ` at ${loadWords(last.done.loadKg, line.athlete.unit)}`}
          {last.done.output === undefined
            ? ""
            : `, ${plainNumber(last.done.output, 2)} ${output.unit}`}
        </p>
      ) : (
        <p className="text-[18px] text-muted">Nothing done yet.</p>
      )}
      <div className="grid grid-cols-2 gap-2">
        {slot.output === "none" ? null : (
          <button
            type="button"
            className={`${BIG} btn-primary col-span-2`}
            disabled={ended || !last}
            onClick={() => open("output")}
          >
            Type {output.name}, {output.unit}
          </button>
        )}
        {/* A rung is passed or not: it has neither reps nor a load to put right. */}
        {slot.ladder ? null : (
          <>
            <button
              type="button"
              className={BIG}
              disabled={ended || !last}
              onClick={() => open("reps")}
            >
              Other {COUNTS[slot.counts]}
            </button>
            <button
              type="button"
              className={BIG}
              disabled={ended || !last}
              onClick={() => open("load")}
            >
              Other load
            </button>
          </>
        )}
        <button type="button" className={BIG} disabled={ended || !last} onClick={undo}>
          Undo
        </button>
        <button type="button" className={BIG} disabled={ended} onClick={() => open("pain")}>
          Pain
        </button>
        <button type="button" className={BIG} disabled={ended} onClick={more}>
          More
        </button>
      </div>
    </section>
  );
}

/** What was different of the set that was done last. */
function AmendPad({
  what,
  slot,
  unit,
  typed,
  amend,
  close,
}: {
  what: "reps" | "load" | "output";
  slot: FrozenExercise;
  unit: MassUnit;
  typed: string;
  amend: (change: { reps?: number; loadKg?: number; output?: number }) => void;
  close: () => void;
}) {
  const output = OUTPUTS[slot.output];
  const facts = {
    reps: { title: `Other ${COUNTS[slot.counts]}`, hint: `${COUNTS[slot.counts]} done` },
    load: { title: "Other load", hint: `${unit}${slot.hands === 2 ? ", each hand" : ""}` },
    output: { title: output.name, hint: output.unit },
  }[what];
  return (
    <KeyPad
      title={facts.title}
      hint={facts.hint}
      start={typed}
      button="Say it so"
      onClose={close}
      enter={(text) => {
        if (what === "load") {
          const read = readMass(text, unit);
          if (!read.ok || massKg(read.mass) <= 0 || massKg(read.mass) > 1000)
            return "A load, for example 12.5.";
          amend({ loadKg: massKg(read.mass) });
          return undefined;
        }
        const value = Number(text.trim().replace(",", "."));
        if (text.trim() === "" || !Number.isFinite(value) || value < 0)
          return "A number, for example 8.";
        if (what === "reps") {
          if (!Number.isInteger(value) || value > 1000) return "A whole number, 0 to 1000.";
          amend({ reps: value });
        } else {
          if (value <= 0 || value > 1000) return "A number over 0, at most 1000.";
          amend({ output: value });
        }
        return undefined;
      }}
    />
  );
}
