import { useEffect, useState } from "react";
import type { PainPlace, SetAddress } from "../../../core/floor/entries";
import type { LiftOnFloor } from "../../../core/floor/frozen";
import type { LifterState } from "../../../core/floor/lifter-state";
import type { SetState } from "../../../core/floor/set-state";
import type { Eye } from "../../../core/liverules/eye";
import { seedFromText } from "../../../core/numeric/random";
import {
  keepVelocity,
  type VelocityMetric,
  type VelocitySource,
} from "../../../core/units/velocity";
import { type MeasuredRep, PROCESSING_VERSION } from "../../../core/velocity/stream";
import type { SetEvent } from "../../../device/sensor-port";
import type { SensorSource } from "../../../device/sources";
import type { SessionLog } from "../../offline/session-log";
import { type RepReading, SetRunner } from "./set-runner";

const TRACE_S = 4;
/** The sensor comes a moment after the screen, and is there before the network may go. */
const SENSOR_AFTER_MS = 1500;
const sensor = () => import("../../workers/sensor");

const stop = () =>
  void sensor().then(
    (own) => own.stopSensor(),
    () => {},
  );

type Trace = ReadonlyArray<{ timeS: number; heightM: number }>;

/** Who lifts what now: as it stands when the sensor is started. */
export interface ToLift {
  at: SetAddress;
  lifter: LifterState;
  set: SetState;
  source: SensorSource;
  restedS: number | undefined;
}

/** The rack's runner and its sensor on this page. */
export function useSetRunner(log: SessionLog, slot: LiftOnFloor) {
  const [runner] = useState(() => new SetRunner(log));
  /** The set whose reps the sensor measures now. */
  const [lifting, setLifting] = useState<SetAddress>();
  const [trace, setTrace] = useState<Trace>([]);
  /** The sensor was not on this page yet, and could not be fetched. */
  const [sensorAway, setSensorAway] = useState(false);
  useEffect(() => {
    const ready = setTimeout(
      () =>
        void sensor().then(
          (own) => own.readySensor(),
          () => {},
        ),
      SENSOR_AFTER_MS,
    );
    return () => {
      clearTimeout(ready);
      stop();
    };
  }, []);

  const rest = () => {
    setLifting(undefined);
    stop();
  };
  return {
    lifting,
    trace,
    sensorAway,
    /** The set's lifter begins; the reps are this set's, whatever the screen shows. */
    begin({ at, lifter, set, source, restedS }: ToLift) {
      if (set.loadKg === undefined || log.view().ended) return;
      setLifting(at);
      setTrace([]);
      setSensorAway(false);
      const counted = set.reps.filter((rep) => rep.outcome === "counted").length;
      const request = {
        source,
        set: {
          loadKg: set.loadKg,
          reps: set.prescription.reps - counted,
          setsBefore: lifter.doneCount,
          restS: Math.min(300, restedS ?? 180),
          seed: seedFromText(at.athleteId + log.sessionId + at.setKey),
        },
        settings: { start: slot.liftStart },
      };
      const hear = (event: SetEvent) => {
        if (event.type === "rep") {
          // Once a rule has ended the set here, the lifter is told and racks.
          if (runner.takeRep(at, measured(event.rep, slot, source.kind), "sensor") === "ended")
            rest();
        } else if (event.type === "racked") setLifting(undefined);
        else
          setTrace((before) => {
            const all = [...before, ...event.frames];
            const newest = all[all.length - 1]?.timeS ?? 0;
            return all.filter((sample) => sample.timeS > newest - TRACE_S);
          });
      };
      sensor()
        .then((own) => own.startSensor(request, hear))
        .catch(() => {
          setLifting(undefined);
          setSensorAway(true);
        });
    },
    /** A rep by hand, m/s: as somebody read it, or counted its frames. */
    typeRep(at: SetAddress, velocityMps: number, source: "typed" | "video" = "typed") {
      const reading = inMetric(keepVelocity(velocityMps), slot.metric);
      return runner.takeRep(at, { outcome: "counted", source, ...reading }, "hand");
    },
    /** Reps of a film, in order, until a rule ends the set. */
    takeFilm(at: SetAddress, reps: readonly MeasuredRep[]) {
      for (const rep of reps)
        if (runner.takeRep(at, measured(rep, slot, "video"), "hand") === "ended") return;
    },
    tagFault(at: SetAddress, fault: string, cut: boolean) {
      runner.tagFault(at, fault, cut);
      if (runner.setAt(at)?.stage === "done") rest();
    },
    flagPain(at: SetAddress, place: PainPlace) {
      runner.flagPain(at, place);
      rest();
    },
    end(at: SetAddress) {
      runner.end(at);
      rest();
    },
    /** Reps that were seen and not measured: the set is over. */
    countReps(at: SetAddress, reps: number, eye?: Eye) {
      runner.countReps(at, reps, eye);
      rest();
    },
    putOn: (at: SetAddress, loadKg: number) => runner.putOn(at, loadKg),
    say: (body: Parameters<SetRunner["say"]>[0]) => runner.say(body),
  };
}

const kept = (value: number | undefined) => (value === undefined ? undefined : keepVelocity(value));

function measured(rep: MeasuredRep, slot: LiftOnFloor, source: VelocitySource): RepReading {
  return {
    outcome: rep.outcome,
    mcvMps: keepVelocity(rep.mcvMps),
    mpvMps: keepVelocity(rep.mpvMps),
    pvMps: keepVelocity(rep.pvMps),
    rangeM: keepVelocity(rep.rangeM),
    pauseS: kept(rep.pauseS),
    ...(slot.box
      ? {
          loweringMps: kept(rep.greatestLoweringMps),
          contactMps: kept(rep.contactMps),
          toPeakS: kept(rep.timeToPeakS),
          rockM: kept(
            rep.rocks.length > 0 ? Math.max(...rep.rocks.map((one) => one.riseM)) : undefined,
          ),
        }
      : {}),
    short: rep.short,
    source,
    processing: PROCESSING_VERSION,
  };
}

function inMetric(velocityMps: number, metric: VelocityMetric) {
  if (metric === "MCV") return { mcvMps: velocityMps };
  return metric === "MPV" ? { mpvMps: velocityMps } : { pvMps: velocityMps };
}
