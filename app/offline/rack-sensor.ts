import { useEffect, useState } from "react";

/** What a station knows of its sensor. */
export interface RackSensorState {
  sending: boolean;
  /** s; undefined where none has sent yet. */
  silentS: number | undefined;
  /** Two are sent for this rack. */
  two: boolean;
}

/** Follows what is known of a rack's sensor; undefined where none sends by itself, or the link is away. */
export function useRackSensor(rackId: string | undefined): RackSensorState | undefined {
  const [state, setState] = useState<RackSensorState>();
  useEffect(() => {
    setState(undefined);
    if (rackId === undefined) return;
    const stream = new EventSource(`/api/sensor/${rackId}`);
    stream.addEventListener("state", (event) => {
      setState(JSON.parse((event as MessageEvent<string>).data) as RackSensorState);
    });
    stream.addEventListener("error", () => setState(undefined));
    return () => stream.close();
  }, [rackId]);
  return state;
}
