import { useCallback } from "react";
import type { ClockMark } from "../../core/units/clock";
import { deviceClock } from "./device";
import { useIsLive } from "./use-is-live";

/** Marks the present by this page's own clocks; by the server's moment until the page is live. */
export function useClockMark(serverNowMs: number): () => ClockMark {
  const live = useIsLive();
  return useCallback(
    () =>
      live
        ? deviceClock().mark()
        : { deviceId: "server", bootId: "server", monoMs: serverNowMs, atMs: serverNowMs },
    [live, serverNowMs],
  );
}
