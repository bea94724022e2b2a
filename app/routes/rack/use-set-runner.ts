import { useCallback, useEffect, useRef, useState } from "react";
import type { EntryBody, SetAddress } from "../../../core/floor/entries";
import type { FrozenSession } from "../../../core/floor/frozen";
import type { LifterState, SetState } from "../../../core/floor/state";
import { FAILED_REP } from "../../../core/liverules/failed-rep";
import { afterRep, type StopRule } from "../../../core/liverules/rep";
import { seedFromText } from "../../../core/numeric/random";
import { keepVelocity, type VelocityMetric } from "../../../core/units/velocity";
import { type MeasuredRep, PROCESSING_VERSION, repVelocity } from "../../../core/velocity/stream";
import type { SimulatedLifter } from "../../../device/lifter";
import { SENSOR_DEFAULTS } from "../../../device/sensor";
import type { SessionLog } from "../../offline/use-session-log";
import { readySensor, startSensor, stopSensor } from "../../workers/sensor";

const TRACE_S = 4;

export interface SetRunner {
  lifting: boolean;
  /** Bar height of the last seconds, for the trace. */
  trace: ReadonlyArray<{ timeS: number; heightM: number }>;
  /** The simulated lifter begins, or nothing where there is none. */
  begin: () => void;
  /** A rep by hand, m/s. */
  typeRep: (velocityMps: number) => void;
  tagFault: (fault: string, cut: boolean) => void;
  /** Ends the set now, by hand. */
  end: () => void;
}

const kept = (value: number | undefined) => (value === undefined ? undefined : keepVelocity(value));

/**
 * Runs one set: reps come from the sensor or by hand, each goes to the log as it happens, and
 * the earliest rule ends the set and is written down with it.
 */
export function useSetRunner(input: {
  session: FrozenSession;
  log: SessionLog;
  one: LifterState | undefined;
  set: SetState | undefined;
  truth: SimulatedLifter | undefined;
  sessionId: string;
  restedS: number | undefined;
}): SetRunner {
  const [lifting, setLifting] = useState(false);
  const [trace, setTrace] = useState<Array<{ timeS: number; heightM: number }>>([]);
  // What the sensor's callback must see as it is now, not as it was when the set began.
  const now = useRef(input);
  now.current = input;
  const running = useRef<{
    address: SetAddress;
    reps: Array<number | undefined>;
    pausesS: Array<number | undefined>;
    over: boolean;
  }>(undefined);

  const address = useCallback((): SetAddress | undefined => {
    const { one, set, session } = now.current;
    if (!one || !set) return undefined;
    return {
      athleteId: one.lifter.athleteId,
      slotId: session.slotId,
      setKey: set.prescription.key,
    };
  }, []);

  /** The counted reps of the set on the screen, whoever wrote them. */
  const begun = useCallback(() => {
    const at = address();
    const { set } = now.current;
    if (!at || !set) return undefined;
    if (running.current?.address.setKey !== at.setKey || running.current.over) {
      running.current = {
        address: at,
        reps: set.reps.flatMap((rep) => (rep.outcome === "counted" ? [rep.velocityMps] : [])),
        pausesS: set.reps.flatMap((rep) => (rep.outcome === "counted" ? [rep.pauseS] : [])),
        over: set.stage === "done",
      };
    }
    return running.current;
  }, [address]);

  const finish = useCallback((endedBy: StopRule | "hand") => {
    const { log, set } = now.current;
    const set1 = running.current;
    if (!set1 || set1.over || set?.loadKg === undefined) return;
    set1.over = true;
    log.append({
      kind: "set-done",
      ...set1.address,
      loadKg: set.loadKg,
      endedBy,
      cut: set1.reps.length < set.prescription.reps,
    });
    setLifting(false);
    void stopSensor();
  }, []);

  const takeRep = useCallback(
    (rep: Partial<EntryBody> & { outcome: "counted" | "failed" }, velocity: number | undefined) => {
      const state = begun();
      const { log, set, session } = now.current;
      if (!state || state.over || !set) return;
      const number = Math.max(0, ...set.reps.map((one) => one.number), state.reps.length) + 1;
      log.append({ source: "typed", ...rep, kind: "rep", ...state.address, rep: number });
      if (rep.outcome === "failed") {
        log.append({ kind: "fault", ...state.address, fault: FAILED_REP, cut: true });
        finish("fault");
        return;
      }
      state.reps.push(velocity);
      state.pausesS.push("pauseS" in rep ? rep.pauseS : undefined);
      const rules = { cap: set.prescription.reps, ...session.stop };
      const advice = afterRep(state.reps, rules, undefined, state.pausesS);
      const rule = advice.hits[0]?.rule;
      if (advice.advice === "stop" && rule) finish(rule);
    },
    [begun, finish],
  );

  const measured = useCallback(
    (rep: MeasuredRep) => {
      const { session } = now.current;
      takeRep(
        {
          outcome: rep.outcome,
          mcvMps: keepVelocity(rep.mcvMps),
          mpvMps: keepVelocity(rep.mpvMps),
          pvMps: keepVelocity(rep.pvMps),
          rangeM: keepVelocity(rep.rangeM),
          pauseS: kept(rep.pauseS),
          ...(session.box
            ? {
                loweringMps: kept(rep.greatestLoweringMps),
                contactMps: kept(rep.contactMps),
                toPeakS: kept(rep.timeToPeakS),
              }
            : {}),
          short: rep.short,
          source: "simulated",
          processing: PROCESSING_VERSION,
        },
        keepVelocity(repVelocity(rep, session.metric)),
      );
    },
    [takeRep],
  );

  const begin = useCallback(() => {
    const { one, set, truth, session, sessionId, restedS } = now.current;
    const state = begun();
    if (!state || state.over || !one || !truth || set?.loadKg === undefined) return;
    setLifting(true);
    setTrace([]);
    const person = seedFromText(one.lifter.athleteId + sessionId);
    startSensor(
      {
        lifter: truth,
        set: {
          loadKg: set.loadKg,
          reps: set.prescription.reps - state.reps.length,
          setsBefore: one.doneCount,
          restS: Math.min(300, restedS ?? 180),
          dayShiftMps: ((person % 1000) / 1000 - 0.5) * 0.05,
          seed: seedFromText(one.lifter.athleteId + sessionId + set.prescription.key),
        },
        settings: { start: session.liftStart },
        rateHz: SENSOR_DEFAULTS.rateHz,
        noiseM: SENSOR_DEFAULTS.noiseM,
      },
      (event) => {
        if (event.type === "rep") measured(event.rep);
        else if (event.type === "racked") setLifting(false);
        else {
          setTrace((before) => {
            const all = [...before, ...event.samples];
            const newest = all[all.length - 1]?.timeS ?? 0;
            return all.filter((sample) => sample.timeS > newest - TRACE_S);
          });
        }
      },
    ).catch(() => setLifting(false));
  }, [begun, measured]);

  const typeRep = useCallback(
    (velocityMps: number) => {
      const velocity = keepVelocity(velocityMps);
      takeRep(
        { outcome: "counted", source: "typed", ...inMetric(velocity, now.current.session.metric) },
        velocity,
      );
    },
    [takeRep],
  );

  const tagFault = useCallback(
    (fault: string, cut: boolean) => {
      const state = begun() ?? running.current;
      if (!state) return;
      now.current.log.append({ kind: "fault", ...state.address, fault, cut });
      if (cut && state.reps.length > 0) finish("fault");
    },
    [begun, finish],
  );

  const end = useCallback(() => {
    begun();
    finish("hand");
  }, [begun, finish]);

  useEffect(() => {
    readySensor();
    return () => void stopSensor();
  }, []);
  return { lifting, trace, begin, typeRep, tagFault, end };
}

function inMetric(velocityMps: number, metric: VelocityMetric) {
  if (metric === "MCV") return { mcvMps: velocityMps };
  return metric === "MPV" ? { mpvMps: velocityMps } : { pvMps: velocityMps };
}
