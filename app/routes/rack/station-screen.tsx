import { useEffect, useMemo, useState } from "react";
import { Link } from "react-router";
import { comeIn } from "../../../core/floor/come-in";
import type { FrozenSession } from "../../../core/floor/frozen";
import {
  allAtOne,
  type StationState,
  type StationWork,
  stationOf,
  stationsOf,
} from "../../../core/floor/stations";
import { useSignOfLife } from "../../offline/station-signs";
import { useEntriesOf } from "../../offline/use-entries-of";
import { useKeptScreen } from "../../offline/use-kept-screen";
import { useSessionLog } from "../../offline/use-session-log";
import { Announcements } from "./announcements";
import { BIG, Finished, SessionEnded } from "./finished";
import { LiftWork } from "./lift-work";
import { Later, LaterPart } from "./part";
import { SavedWords } from "./saved-words";
import { type MoreOf, type StationData, StationFrame, type WorkProps } from "./station-frame";
import { useAwake, useMute } from "./use-signals";

const LOAD_PARTS_MS = 2000;

/** What is not lifted comes a moment after the screen, and before the network may go. */
const roundWork = new LaterPart(async () => (await import("./round-work")).RoundWork);
const pairingWork = new LaterPart(async () => (await import("./pairing-work")).PairingWork);
const aloneHead = new LaterPart(async () => (await import("./alone")).AloneHead);
const endAlone = new LaterPart(async () => (await import("./alone")).EndAlone);
const moreSheet = new LaterPart(async () => (await import("./more-sheet")).MoreSheet);

function nameOf(frozen: FrozenSession, stationId: string): string {
  const station = frozen.stations.find((one) => one.id === stationId);
  return station?.kind === "rack" ? `rack ${station.name}` : (station?.name ?? "");
}

/**
 * One station of a running session: what is done at it, one work after the other. For who trains
 * alone all stations are one.
 */
export function StationScreen(props: StationData) {
  const { sessionId, frozen, fixed, alone = false } = props;
  const { log, view } = useSessionLog(props);
  const { floor } = view;
  const [facts] = useState(() => {
    const { stationId, sensors, noSensor, names, fixed, alone, repsOf } = props;
    return { stationId, sensors, noSensor, names, fixed, alone, repsOf };
  });
  useKeptScreen(log, {
    path: alone ? `/card/${sessionId}` : `/rack/${sessionId}/${props.stationId}`,
    title: alone ? frozen.title : `${frozen.title}: ${nameOf(frozen, props.stationId)}`,
    frozen,
    facts,
  });
  const stations = useMemo(() => stationsOf(frozen, floor), [frozen, floor]);
  const here = alone
    ? allAtOne(frozen, stations)
    : stations.find((one) => one.station.id === props.stationId);
  useEntriesOf(log, view.link, props.repsOf, here?.work.flatMap(athletesAt) ?? NOBODY);
  useAwake();
  useSignOfLife(sessionId, props.stationId, view.unsent);
  const { muted, toggle } = useMute();
  const [chosen, setChosen] = useState(() => here?.current?.slot.slotId);
  const [more, setMore] = useState<MoreOf>();
  const work =
    here?.work.find((one) => one.slot.slotId === chosen) ?? here?.current ?? here?.work.at(-1);
  const stationId = alone && work ? stationOf(work) : props.stationId;
  useEffect(() => {
    const timer = setTimeout(() => {
      for (const part of [roundWork, pairingWork, moreSheet, ...(alone ? [endAlone] : [])])
        part.ready().catch(() => {});
    }, LOAD_PARTS_MS);
    return () => clearTimeout(timer);
  }, [alone]);

  const { name = "" } = frozen.stations.find((one) => one.id === stationId) ?? {};
  const head = (
    <>
      <p className="flex items-baseline justify-between gap-3">
        {alone ? (
          <Later part={aloneHead} of={{ frozen, station: nameOf(frozen, stationId) }} />
        ) : (
          <span
            className={
              name.length > 3
                ? "text-[26px] leading-tight font-bold"
                : "text-[52px] leading-none font-bold"
            }
          >
            {name.length > 3 ? null : <span className="sr-only">Rack </span>}
            {name}
          </span>
        )}
        <SavedWords view={view} />
      </p>
      {here && here.work.length > 1 ? (
        <Works works={here.work} shown={work} choose={setChosen} />
      ) : null}
    </>
  );
  const foot = (
    <div className="mt-auto text-[17px] text-muted">
      <p>{frozen.cautions[0]}</p>
      <div className="flex flex-wrap items-center gap-x-4">
        <button
          type="button"
          className="inline-flex min-h-11 items-center underline"
          aria-pressed={muted}
          onClick={toggle}
        >
          {muted ? "Sound is off" : "Sound is on"}
        </button>
        {fixed ? null : (
          <Link
            className="inline-flex min-h-11 items-center underline"
            to={alone ? "/card" : `/floor/${sessionId}`}
          >
            {alone ? "Back to my card" : "Back to the floor"}
          </Link>
        )}
        {alone ? <Later part={endAlone} of={{ sessionId, view, asks: true }} /> : null}
      </div>
    </div>
  );
  const top = (
    <>
      {view.ended ? <SessionEnded sessionId={sessionId} fixed={fixed} alone={alone} /> : null}
      <Announcements floor={floor} />
    </>
  );
  const after = alone ? (
    <Later part={endAlone} of={{ sessionId, view, asks: false }} />
  ) : fixed ? null : (
    <Link className={BIG} to={`/review/${sessionId}`}>
      Open the review
    </Link>
  );
  if (!here || !work) {
    return (
      <StationFrame head={head} foot={foot}>
        {top}
        <Finished sessionId={sessionId} fixed={fixed} next={undefined} after={after} />
      </StationFrame>
    );
  }
  const shared: WorkProps = {
    ...props,
    stationId,
    log,
    view,
    here,
    more: setMore,
    head,
    foot,
    top,
    after,
  };
  const next =
    here.current && here.current.slot.slotId !== work.slot.slotId
      ? { name: here.current.name, go: () => setChosen(here.current?.slot.slotId) }
      : undefined;
  const elsewhere = alone
    ? []
    : frozen.stations.filter(
        (one) => one.id !== stationId && (one.kind === "rack") === (work.kind === "lift"),
      );
  const slotId = more?.slotId ?? "";
  return (
    <>
      {work.kind === "lift" ? (
        <LiftWork key={work.slot.slotId} {...shared} rack={work.rack} next={next} />
      ) : work.kind === "exercise" ? (
        <Later
          key={work.slot.slotId}
          part={roundWork}
          of={{ ...shared, works: roundOf(here, work), next }}
        />
      ) : (
        <Later
          key={work.slot.slotId}
          part={pairingWork}
          of={{ ...shared, pairing: work.pairing, next }}
        />
      )}
      {more ? (
        <Later
          part={moreSheet}
          of={{
            name: more.who?.name,
            workName: work.name,
            onClose: () => setMore(undefined),
            set: more.set,
            move: (to) =>
              more.who &&
              log.append({ kind: "move", athleteId: more.who.athleteId, slotId, stationId: to }),
            off: () =>
              more.who &&
              log.append({ kind: "off", athleteId: more.who.athleteId, slotId, stationId }),
            absent: alone ? undefined : floor.absent,
            comeIn: (athleteId) => {
              for (const body of comeIn(frozen, floor, athleteId, { slotId, stationId }))
                log.append(body);
            },
            stations: elsewhere,
          }}
        />
      ) : null}
    </>
  );
}

const NOBODY: readonly string[] = [];

const athletesAt = (work: StationWork): string[] =>
  work.kind === "lift"
    ? work.rack.lifters.map((one) => one.lifter.athleteId)
    : (work.kind === "exercise" ? work.exercise.athletes : work.pairing.athletes).map(
        (one) => one.athlete.athleteId,
      );

/** Exercises of one round are done together: those with the same letter. */
function roundOf(here: StationState, work: Extract<StationWork, { kind: "exercise" }>) {
  const group = work.slot.group ?? "";
  if (group === "") return [work.exercise];
  return here.work.flatMap((one) =>
    one.kind === "exercise" && one.slot.group === group ? [one.exercise] : [],
  );
}

/** What is done at this station, in the day's order. */
function Works({
  works,
  shown,
  choose,
}: {
  works: readonly StationWork[];
  shown: StationWork | undefined;
  choose: (slotId: string) => void;
}) {
  return (
    <nav aria-label="What is done here" className="grid grid-cols-[minmax(0,1fr)] gap-1.5">
      {works.map((work) => {
        const isShown = work.slot.slotId === shown?.slot.slotId;
        return (
          <button
            key={work.slot.slotId}
            type="button"
            aria-current={isShown ? "true" : undefined}
            className={`flex min-h-[48px] cursor-pointer items-center justify-between gap-2 rounded border px-2.5 text-left text-[17px] ${isShown ? "border-base-content font-bold" : "border-rule text-muted"}`}
            onClick={() => choose(work.slot.slotId)}
          >
            <span className="min-w-0 truncate">{work.name}</span>
            <span className="shrink-0">
              {work.done}/{work.planned}
            </span>
          </button>
        );
      })}
    </nav>
  );
}
