import { useCallback, useSyncExternalStore } from "react";
import type { ClockMark } from "../../core/units/clock";
import { deviceClock } from "./device";

const never = () => () => {};

/**
 * Marks the present by this page's own clocks; the server, and a page that takes over what the
 * server drew, by the server's moment: both then draw the same.
 */
export function useClockMark(serverNowMs: number): () => ClockMark {
  const live = useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
  return useCallback(
    () =>
      live
        ? deviceClock().mark()
        : { deviceId: "server", bootId: "server", monoMs: serverNowMs, atMs: serverNowMs },
    [live, serverNowMs],
  );
}
