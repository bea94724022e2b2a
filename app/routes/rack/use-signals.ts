import { useEffect, useRef, useState } from "react";
import { type Countdown, countdownSignal } from "../../../core/floor/countdown";
import { isMuted, readySound, setMuted, signal } from "../../offline/signals";

/** Says by sound and vibration when a clock is near its end, and when it is over. */
export function useCountdowns(clocks: readonly Countdown[], on: boolean): void {
  const before = useRef<ReadonlyMap<string, number>>(new Map());
  useEffect(() => {
    const said = on ? countdownSignal(before.current, clocks) : undefined;
    before.current = new Map(clocks.map((clock) => [clock.id, clock.leftS]));
    if (said) signal(said);
  });
}

/** Whether this tablet is quiet, and the switch; a tap anywhere readies its sound. */
export function useMute(): { muted: boolean; toggle: () => void } {
  const [muted, setNow] = useState(false);
  useEffect(() => {
    setNow(isMuted());
    document.addEventListener("pointerdown", readySound);
    document.addEventListener("keydown", readySound);
    return () => {
      document.removeEventListener("pointerdown", readySound);
      document.removeEventListener("keydown", readySound);
    };
  }, []);
  return {
    muted,
    toggle: () => {
      setMuted(!muted);
      setNow(!muted);
    },
  };
}

/** A station's screen never sleeps while it is looked at, where the browser lets it. */
export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let left = false;
    const ask = () => {
      if (left || document.visibilityState !== "visible" || !("wakeLock" in navigator)) return;
      navigator.wakeLock.request("screen").then(
        (got) => {
          if (left) void got.release();
          else lock = got;
        },
        // Low on battery, or not over HTTPS: the tablet's own settings keep it awake.
        () => {},
      );
    };
    ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      left = true;
      document.removeEventListener("visibilitychange", ask);
      void lock?.release().catch(() => {});
    };
  }, []);
}
