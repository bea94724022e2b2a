import type { ReactNode } from "react";
import { Link } from "react-router";
import { setTimes } from "../../../core/floor/forecast";
import type { LifterState } from "../../../core/floor/lifter-state";
import type { SetState } from "../../../core/floor/set-state";
import type { RackState } from "../../../core/floor/state";
import type { StationState, StationWork } from "../../../core/floor/stations";
import { EYE_WORDS } from "../../../core/liverules/eye";
import { formatKg, type MassUnit, plainNumber } from "../../../core/units/mass";
import { formatClock } from "../../../core/units/time";
import { formatVelocity } from "../../../core/units/velocity";
import { AWAY_AFTER_S, type StationSign } from "../../offline/station-signs";
import { FetchedFigure, workingOf } from "../../ui/fetched-figure";
import { useUnit } from "../../ui/unit";
import { Figures } from "../../ui/working";
import { LastSpeeds, SpeedAxis, type SpeedScale, scaleOf } from "./last-speeds";

/** Minutes of the session shown at once: what was done lately and what comes. */
const BEHIND_MIN = 11;
const AHEAD_MIN = 11;
/** Height of a lifter's line, px: less where many stand on the floor, so that all are seen. */
const ROW = 30;
const ROWS_OF_MANY: ReadonlyArray<{ over: number; px: number }> = [
  { over: 24, px: 18 },
  { over: 16, px: 22 },
];

interface Placed {
  set: SetState;
  /** Minutes on the session's clock; the end of the set. */
  minute: number;
}

/**
 * The running session drawn to time: a band a rack, a line a lifter, a block a set. Done sets
 * stand where they ended, coming ones where turn-taking and rest will put them.
 */
export function FloorStave({
  stations,
  firstMs,
  sessionId,
  nowMs,
  open,
  openWork,
  signs,
}: {
  stations: readonly StationState[];
  /** When the first entry was made. */
  firstMs: number;
  sessionId: string;
  nowMs: number;
  /** Opens a set to be put right. */
  open: OpenSet;
  /** Opens somebody's sets of an exercise to be put right. */
  openWork: OpenWork;
  /** What was heard of each station's tablet. */
  signs: ReadonlyMap<string, StationSign>;
}) {
  const nowMin = (nowMs - firstMs) / 60_000;
  const from = Math.max(-1, nowMin - BEHIND_MIN);
  const to = from + BEHIND_MIN + AHEAD_MIN;
  const share = (minute: number) => ((minute - from) / (to - from)) * 100;
  const ticks: number[] = [];
  for (let m = Math.ceil(from / 2) * 2; m <= to; m += 2) if (m >= 0) ticks.push(m);
  const lines = stations.reduce((n, one) => {
    const work = shownWork(one);
    return n + (work?.kind === "lift" ? work.rack.lifters.length : 0);
  }, 0);
  const rowPx = ROWS_OF_MANY.find((many) => lines > many.over)?.px ?? ROW;
  const scale = scaleOf(stations);
  const lifts = stations.some((one) => shownWork(one)?.kind === "lift");

  return (
    <Figures label="Stations" className="relative">
      {lifts ? (
        <div className="grid grid-cols-[240px_104px_1fr] text-sm text-muted max-sm:grid-cols-[150px_1fr]">
          <span className="pl-12">minutes in</span>
          <span className="max-sm:hidden">
            <SpeedAxis scale={scale} />
          </span>
          <span className="relative h-5" aria-hidden="true">
            {ticks
              .filter((tick) => Math.abs(share(tick) - share(nowMin)) > 5)
              .map((tick) => (
                <span
                  key={tick}
                  className="absolute -translate-x-1/2"
                  style={{ left: `${share(tick)}%` }}
                >
                  {tick}
                </span>
              ))}
            <span
              className="absolute -translate-x-1/2 font-bold text-accent"
              style={{ left: `${share(nowMin)}%` }}
            >
              now
            </span>
          </span>
        </div>
      ) : null}
      {stations.map((one) => {
        const work = shownWork(one);
        if (!work) return null;
        const head = (
          <StationHead
            station={one}
            work={work}
            sessionId={sessionId}
            sign={signs.get(one.station.id)}
          />
        );
        if (work.kind !== "lift")
          return (
            <PeopleBand
              key={one.station.id}
              station={one}
              work={work}
              head={head}
              sessionId={sessionId}
              openWork={openWork}
            />
          );
        const { rack } = work;
        const { rest } = rack.slot;
        return (
          <Band
            key={one.station.id}
            rack={rack}
            rowPx={rowPx}
            scale={scale}
            sessionId={sessionId}
            head={head}
            placed={rack.lifters.map((lifter) => {
              const times = setTimes({ rack, one: lifter, nowMs, leastRestS: rest.leastS });
              return lifter.sets.map((set, i) => ({
                set,
                minute: ((times[i] as number) - firstMs) / 60_000,
              }));
            })}
            share={share}
            now={share(nowMin)}
            ticks={ticks.map(share)}
            nowMs={nowMs}
            rest={rest}
            open={open}
          />
        );
      })}
    </Figures>
  );
}

type OpenWork = (shown: { slotId: string; athleteId: string; stationId: string }) => void;
type OpenSet = (shown: { slotId: string; athleteId: string; setKey: string }) => void;

/** What of a station the floor draws: what is done now, else what was done last. */
const shownWork = (one: StationState) => one.current ?? one.work.at(-1);

/** A station's name, its way to its own screen, and what else is done at it. */
function StationHead({
  station,
  work,
  sessionId,
  sign,
}: {
  station: StationState;
  work: StationWork;
  sessionId: string;
  sign: StationSign | undefined;
}) {
  const { id, name, kind } = station.station;
  const isRack = kind === "rack";
  const others = station.work.filter((one) => one !== work);
  return (
    <div className={isRack ? "self-start" : "col-span-2 self-start pr-3"}>
      <Link
        to={`/rack/${sessionId}/${id}`}
        className={`${isRack ? "text-[28px] leading-9" : "text-[18px] leading-7"} font-bold hover:underline`}
        aria-label={`Open ${isRack ? "rack " : ""}${name}`}
      >
        {name}
      </Link>
      <TabletSign sign={sign} />
      {isRack ? null : (
        <p className="leading-tight">
          {work.name}{" "}
          <span className="text-muted">
            {work.done}/{work.planned}
          </span>
        </p>
      )}
      {others.length > 0 && !isRack ? (
        <p className="text-sm leading-tight text-muted">
          {others.map((one) => `${one.name} ${one.done}/${one.planned}`).join(" · ")}
        </p>
      ) : null}
    </div>
  );
}

const LOW_BATTERY_PERCENT = 20;

/** The station's tablet: its battery while it is heard of, "away" when it no longer is. */
function TabletSign({ sign }: { sign: StationSign | undefined }) {
  if (!sign) return null;
  const { agoS, batteryPercent, unsent } = sign;
  if (agoS > AWAY_AFTER_S)
    return (
      <p
        className="text-sm leading-tight font-bold text-accent"
        title={`No sign of its tablet for ${formatClock(agoS)}`}
      >
        away<span className="sr-only">: no sign of its tablet for {formatClock(agoS)}</span>
      </p>
    );
  const low = batteryPercent !== undefined && batteryPercent <= LOW_BATTERY_PERCENT;
  return (
    <p
      className={`text-sm leading-tight ${low ? "font-bold text-accent" : "text-muted"}`}
      title={`Its tablet was heard of ${agoS} s ago${unsent > 0 ? `, with ${unsent} not sent` : ""}`}
    >
      {batteryPercent === undefined ? "on" : `${batteryPercent} %`}
      <span className="sr-only">
        {batteryPercent === undefined ? "" : " battery"}: its tablet is there
      </span>
    </p>
  );
}

/** A station without a bar: everybody at it, a square a set. */
function PeopleBand({
  station,
  work,
  head,
  sessionId,
  openWork,
}: {
  station: StationState;
  work: Exclude<StationWork, { kind: "lift" }>;
  head: ReactNode;
  sessionId: string;
  openWork: OpenWork;
}) {
  const people =
    work.kind === "exercise"
      ? work.exercise.athletes.map((line) => ({
          id: line.athlete.athleteId,
          name: line.callName,
          held: line.held.length > 0,
          marks: line.sets.map((set) => set.stage),
        }))
      : work.pairing.athletes.map((line) => ({
          id: line.athlete.athleteId,
          name: line.callName,
          held: false,
          marks: Array.from({ length: line.complex.rounds }, (_, i): Mark => {
            const { stage } = line.run;
            if (stage.kind === "over") return stage.why === "done" ? "done" : "dropped";
            if (i + 1 < stage.round) return "done";
            return i + 1 === stage.round && (stage.kind !== "waiting" || stage.item > 0)
              ? "running"
              : "to-come";
          }),
        }));
  return (
    <section
      aria-label={station.station.name}
      className="grid grid-cols-[40px_200px_1fr] border-t border-rule py-0.5 max-sm:grid-cols-1"
    >
      {head}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(112px,1fr))] gap-x-4 text-sm">
        {(work.begun ? people : []).map((one) => (
          <li key={one.id} className="flex h-[22px] items-center justify-between gap-1.5">
            {work.kind === "exercise" ? (
              <button
                type="button"
                className="min-w-0 cursor-pointer truncate text-left hover:underline"
                title="Open the sets to put them right"
                onClick={() =>
                  openWork({
                    slotId: work.slot.slotId,
                    athleteId: one.id,
                    stationId: station.station.id,
                  })
                }
              >
                {one.name}
                {one.held ? <b className="text-accent"> held</b> : null}
              </button>
            ) : (
              <Link
                className="min-w-0 truncate hover:underline"
                title="Put right at its station: undo, outputs"
                to={`/rack/${sessionId}/${station.station.id}`}
              >
                {one.name}
              </Link>
            )}
            <span className="flex gap-0.5">
              <span className="sr-only">
                {one.marks.filter((mark) => mark === "done").length} of {one.marks.length} done
              </span>
              {one.marks.map((mark, i) => (
                <span
                  // biome-ignore lint/suspicious/noArrayIndexKey: a square a set, in their order
                  key={i}
                  aria-hidden="true"
                  className={`size-2.5 ${MARKS[mark]}`}
                />
              ))}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

type Mark = SetState["stage"];
const MARKS: Record<Mark, string> = {
  done: "bg-primary",
  running: "bg-base-content",
  "to-come": "border border-control",
  dropped: "border border-dashed border-rule",
};

function Band({
  rack,
  rowPx,
  scale,
  sessionId,
  head,
  placed,
  share,
  now,
  ticks,
  nowMs,
  rest,
  open,
}: {
  rack: RackState;
  rowPx: number;
  scale: SpeedScale | undefined;
  sessionId: string;
  head: ReactNode;
  placed: Placed[][];
  share: (minute: number) => number;
  now: number;
  ticks: number[];
  nowMs: number;
  rest: { leastS: number };
  open: OpenSet;
}) {
  return (
    <section
      aria-label={`Rack ${rack.rack.name}`}
      className="relative grid grid-cols-[40px_200px_104px_1fr] border-t border-rule py-0.5 max-sm:grid-cols-[32px_118px_1fr]"
    >
      {head}
      <ul>
        {rack.lifters.map((one) => (
          <LifterLine
            key={one.lifter.athleteId}
            one={one}
            rack={rack}
            rowPx={rowPx}
            sessionId={sessionId}
            up={one.lifter.athleteId === rack.upId}
            nowMs={nowMs}
            rest={rest}
            open={open}
          />
        ))}
      </ul>
      <LastSpeeds lifters={rack.lifters} scale={scale} rowPx={rowPx} />
      <div className="relative overflow-hidden" aria-hidden="true">
        {ticks.map((tick) => (
          <span
            key={tick}
            className="absolute inset-y-0 border-l border-faint"
            style={{ left: `${tick}%` }}
          />
        ))}
        <span
          className="absolute inset-y-0 z-10 border-l-2 border-accent"
          style={{ left: `${now}%` }}
        />
        {placed.map((sets, row) => (
          <Row
            key={rack.lifters[row]?.lifter.athleteId}
            sets={sets}
            row={row}
            rowPx={rowPx}
            share={share}
          />
        ))}
      </div>
    </section>
  );
}

function LifterLine({
  one,
  rack,
  rowPx,
  sessionId,
  up,
  nowMs,
  rest,
  open,
}: {
  one: LifterState;
  rack: RackState;
  rowPx: number;
  sessionId: string;
  up: boolean;
  nowMs: number;
  rest: { leastS: number };
  open: OpenSet;
}) {
  const set = one.current === undefined ? undefined : one.sets[one.current];
  const last = one.sets.filter((other) => other.stage === "done").at(-1);
  const rested = last?.end ? (nowMs - last.end.atMs) / 1000 : undefined;
  const left = rested === undefined ? 0 : rest.leastS + one.addedRestS - rested;
  const best = last?.reps.flatMap((rep) => rep.velocityMps ?? []);
  const words = best?.length ? formatVelocity(Math.max(...best)) : "";
  return (
    <li
      className={`flex items-center justify-between gap-1 rounded px-1.5 leading-none ${up ? "bg-neutral text-neutral-content" : ""}`}
      style={{ height: rowPx }}
    >
      <button
        type="button"
        className="min-w-0 cursor-pointer truncate text-left font-medium hover:underline"
        title="Open a set to put it right"
        onClick={() => {
          const setKey = (last ?? set ?? one.sets[0])?.prescription.key;
          if (setKey) open({ slotId: rack.slot.slotId, athleteId: one.lifter.athleteId, setKey });
        }}
      >
        {one.callName}
        <span className="sr-only">
          {up ? ", up now" : ""}
          {words ? `, last best ${words} m/s` : last?.eye ? `, looked ${EYE_WORDS[last.eye]}` : ""}
          {left > 0 ? `, rests ${formatClock(left)} more` : ""}
        </span>
      </button>
      {words || last?.eye ? (
        <span
          aria-hidden="true"
          className={`ml-auto shrink-0 text-sm whitespace-nowrap ${up ? "" : last?.verdict?.standing === "under" ? "font-bold text-accent" : "text-muted"}`}
        >
          {words || last?.eye}
        </span>
      ) : null}
      {set?.loadKg !== undefined ? (
        <FetchedFigure
          id={`floor/${rack.slot.slotId}/${one.lifter.athleteId}/${set.prescription.key}`}
          from={workingOf(sessionId, {
            kind: "load",
            slotId: rack.slot.slotId,
            athleteId: one.lifter.athleteId,
            setKey: set.prescription.key,
          })}
          label={`${one.lifter.name}, ${formatKg(set.loadKg, one.lifter.unit, 1)}, set ${set.prescription.number}`}
        >
          {plainNumber(Number.parseFloat(formatKg(set.loadKg, one.lifter.unit, 1)))}
          {one.lifter.unit === "lb" ? <span className="text-[0.8em]"> lb</span> : null}
        </FetchedFigure>
      ) : (
        <span className="text-sm">{set ? "no load" : "done"}</span>
      )}
    </li>
  );
}

function Row({
  sets,
  row,
  rowPx,
  share,
}: {
  sets: Placed[];
  row: number;
  rowPx: number;
  share: (minute: number) => number;
}) {
  const unit = useUnit();
  const loads = sets.flatMap(({ set }) => set.loadKg ?? []);
  const least = Math.min(...loads);
  const most = Math.max(...loads);
  return (
    <span
      className="absolute inset-x-0 border-b border-faint"
      style={{ top: row * rowPx, height: rowPx }}
    >
      {sets.map(({ set, minute }) => {
        if (set.stage === "dropped") return null;
        const span = most > least ? ((set.loadKg ?? least) - least) / (most - least) : 0.5;
        const height = (0.36 + 0.34 * span) * rowPx;
        const under = set.verdict?.standing === "under";
        const look = {
          done: "bg-primary",
          running: "bg-base-content",
          "to-come": "border border-control",
          dropped: "",
        }[set.stage];
        return (
          <span
            key={set.prescription.key}
            title={blockWords(set, unit)}
            className={`absolute bottom-0.5 w-[9px] -translate-x-full ${look}`}
            style={{ left: `${share(minute)}%`, height }}
          >
            {under ? (
              <span className="absolute -top-[7px] left-1/2 -translate-x-1/2 border-x-[5px] border-t-[6px] border-x-transparent border-t-accent" />
            ) : null}
          </span>
        );
      })}
    </span>
  );
}

function blockWords(set: SetState, unit: MassUnit): string {
  const speeds = set.reps.flatMap((rep) => rep.velocityMps ?? []).map(formatVelocity);
  const load = set.loadKg === undefined ? "no load" : formatKg(set.loadKg, unit, 1);
  return `Set ${set.prescription.number}, ${load}${speeds.length > 0 ? `: ${speeds.join(", ")} m/s` : ""}`;
}
