import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { seedFromText } from "../../../core/numeric/random";
import type { ProfileRep } from "../../../core/profile/analysis";
import { keepVelocity, type VelocityMetric } from "../../../core/units/velocity";
import { repForce } from "../../../core/velocity/force";
import type { LiftStart, MeasuredRep } from "../../../core/velocity/stream";
import type { SensorSource } from "../../../device/sources";
import { startSensor, stopSensor } from "../../workers/sensor";

/** A rep of a running test: every velocity that is known of it. */
export interface TakenRep {
  id: string;
  loadKg: number;
  speeds: Partial<Record<VelocityMetric, number>>;
  forceN?: number;
  powerW?: number;
  source: "simulated" | "typed" | "video";
  excluded?: string;
}

export interface ProfileTestRun {
  reps: readonly TakenRep[];
  /** As the core takes them, in the chosen metric. */
  profileReps: ProfileRep[];
  lifting: boolean;
  /** Reps came back from an unfinished test on this device. */
  restored: boolean;
  lift: (loadKg: number, reps: number) => void;
  stop: () => void;
  type: (loadKg: number, velocityMps: number) => void;
  /** Reps that a film gave, at the load on the bar. */
  film: (loadKg: number, reps: readonly MeasuredRep[]) => void;
  exclude: (id: string, reason: string | undefined) => void;
  undo: () => void;
  clear: () => void;
}

/**
 * Runs a profile test: reps by the sensor or by hand. What was taken stays on this device until
 * the test is kept or thrown away, so that a closed page loses nothing.
 */
export function useProfileTest(input: {
  /** Athlete and lift: what an unfinished test belongs to. */
  key: string;
  metric: VelocityMetric;
  start: LiftStart;
  sensor: SensorSource | undefined;
  addedKg: number;
}): ProfileTestRun {
  const { key, metric } = input;
  const store = `sprezza/profile-test/${key}`;
  const [reps, setReps] = useState<TakenRep[]>([]);
  const [restored, setRestored] = useState(false);
  const [lifting, setLifting] = useState(false);
  const loaded = useRef<string>(undefined);

  useEffect(() => {
    if (loaded.current === store) return;
    loaded.current = store;
    const kept = readDraft(store);
    setReps(kept);
    setRestored(kept.length > 0);
  }, [store]);

  const change = useCallback(
    (next: (before: TakenRep[]) => TakenRep[]) =>
      setReps((before) => {
        const after = next(before);
        if (after.length === 0) localStorage.removeItem(store);
        else localStorage.setItem(store, JSON.stringify(after));
        return after;
      }),
    [store],
  );

  const latest = useRef(input);
  latest.current = input;
  const setsTaken = useRef(0);
  const measured = useCallback(
    (rep: MeasuredRep, loadKg: number, source: TakenRep["source"]) => {
      if (rep.outcome !== "counted") return;
      const force = repForce(rep, loadKg + latest.current.addedKg);
      change((before) => [
        ...before,
        {
          id: crypto.randomUUID(),
          loadKg,
          speeds: {
            MCV: keepVelocity(rep.mcvMps),
            MPV: keepVelocity(rep.mpvMps),
            PV: keepVelocity(rep.pvMps),
          },
          ...(force
            ? {
                forceN: Math.round(force.forceN * 10) / 10,
                powerW: Math.round(force.powerW * 10) / 10,
              }
            : {}),
          source,
        },
      ]);
    },
    [change],
  );

  const lift = useCallback(
    (loadKg: number, count: number) => {
      const { sensor, start } = latest.current;
      if (!sensor) return;
      setLifting(true);
      const setsBefore = setsTaken.current++;
      startSensor(
        {
          source: sensor,
          set: {
            loadKg,
            reps: count,
            setsBefore,
            restS: 180,
            seed: seedFromText(`${key}/${loadKg}/${setsBefore}`),
          },
          settings: { start },
        },
        (event) => {
          if (event.type === "rep") measured(event.rep, loadKg, "simulated");
          if (event.type === "racked") setLifting(false);
        },
      ).catch(() => setLifting(false));
    },
    [key, measured],
  );

  const profileReps = useMemo(
    () =>
      reps.flatMap((rep): ProfileRep[] => {
        const velocityMps = rep.speeds[metric];
        if (velocityMps === undefined) return [];
        const { id, loadKg, forceN, powerW, excluded } = rep;
        return [
          {
            id,
            loadKg,
            velocityMps,
            ...(forceN === undefined ? {} : { forceN }),
            ...(powerW === undefined ? {} : { powerW }),
            ...(excluded === undefined ? {} : { excluded }),
          },
        ];
      }),
    [reps, metric],
  );

  return {
    reps,
    profileReps,
    lifting,
    restored,
    lift,
    stop: () => void stopSensor(),
    film: (loadKg, taken) => {
      for (const rep of taken) measured(rep, loadKg, "video");
    },
    type: (loadKg, velocityMps) =>
      change((before) => [
        ...before,
        {
          id: crypto.randomUUID(),
          loadKg,
          speeds: { [metric]: keepVelocity(velocityMps) },
          source: "typed",
        },
      ]),
    exclude: (id, reason) =>
      change((before) =>
        before.map(({ excluded: _, ...rep }) =>
          rep.id === id && reason !== undefined
            ? { ...rep, excluded: reason }
            : rep.id === id
              ? rep
              : { ...rep, ...(_ === undefined ? {} : { excluded: _ }) },
        ),
      ),
    undo: () => change((before) => before.slice(0, -1)),
    clear: () => {
      change(() => []);
      setRestored(false);
    },
  };
}

function readDraft(store: string): TakenRep[] {
  try {
    const draft: unknown = JSON.parse(localStorage.getItem(store) ?? "[]");
    return Array.isArray(draft) ? (draft as TakenRep[]) : [];
  } catch {
    return [];
  }
}
