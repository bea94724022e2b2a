import { useEffect, useRef, useState } from "react";

/** A station's tablet says so often that it is there. */
const EVERY_MS = 20_000;
/** After so long without a sign a tablet is away, s. */
export const AWAY_AFTER_S = 60;

/** What a floor knows of a station's tablet. */
export interface StationSign {
  stationId: string;
  batteryPercent?: number;
  unsent: number;
  agoS: number;
}

/** Chromium tells how full the tablet's battery is; elsewhere nobody knows. */
interface WithBattery {
  getBattery?: () => Promise<{ level: number }>;
}

async function batteryPercent(): Promise<number | undefined> {
  const battery = await (navigator as Navigator & WithBattery)
    .getBattery?.()
    .catch(() => undefined);
  return battery && Math.round(100 * battery.level);
}

/** Says now and then that this station's tablet is there, with what it has not sent yet. */
export function useSignOfLife(sessionId: string, stationId: string, unsent: number): void {
  const waiting = useRef(unsent);
  waiting.current = unsent;
  useEffect(() => {
    const say = async () => {
      const percent = await batteryPercent();
      await fetch(`/api/live/${sessionId}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({
          stationId,
          unsent: waiting.current,
          ...(percent === undefined ? {} : { batteryPercent: percent }),
        }),
        // Who has no link says nothing: the floor sees that.
      }).catch(() => undefined);
    };
    void say();
    const timer = setInterval(() => void say(), EVERY_MS);
    return () => clearInterval(timer);
  }, [sessionId, stationId]);
}

/** The tablets at a session's stations, by station, as the server last heard of them. */
export function useStationSigns(
  sessionId: string,
  ended: boolean,
): ReadonlyMap<string, StationSign> {
  const [signs, setSigns] = useState<ReadonlyMap<string, StationSign>>(new Map());
  useEffect(() => {
    if (ended) return;
    const ask = async () => {
      const response = await fetch(`/api/live/${sessionId}?stations`).catch(() => undefined);
      if (!response?.ok) return;
      const { stations } = (await response.json()) as { stations: StationSign[] };
      setSigns(new Map(stations.map((one) => [one.stationId, one])));
    };
    void ask();
    const timer = setInterval(() => void ask(), EVERY_MS);
    return () => clearInterval(timer);
  }, [sessionId, ended]);
  return signs;
}
