import { useState } from "react";
import { formatClock } from "../../../core/units/time";
import { useCountdowns } from "./use-signals";

/** A start every so many seconds: the clock of a timed slot. It runs on the tablet alone. */
export function StartClock({ everyS, nowMs }: { everyS: number; nowMs: number }) {
  const [sinceMs, setSince] = useState<number>();
  const ran = sinceMs === undefined ? 0 : Math.max(0, nowMs - sinceMs) / 1000;
  const number = Math.floor(ran / everyS) + 1;
  const leftS = everyS - (ran % everyS);
  // Each start is a clock of its own, for one that jumps back says nothing.
  useCountdowns(
    sinceMs === undefined
      ? []
      : [
          { id: String(number), leftS },
          { id: String(number - 1), leftS: leftS - everyS },
        ],
    true,
  );
  return (
    <section aria-label="Start clock" className="flex items-baseline justify-between gap-2">
      <span className="text-[18px]">
        a start every {formatClock(everyS)}
        {sinceMs === undefined ? null : (
          <b className="block text-[34px] leading-none tabular-nums">
            {formatClock(Math.ceil(leftS))}
          </b>
        )}
      </span>
      <button
        type="button"
        className="btn min-h-[56px] text-[18px]"
        onClick={() => setSince(sinceMs === undefined ? nowMs : undefined)}
      >
        {sinceMs === undefined ? "Start the clock" : `Stop at start ${number}`}
      </button>
    </section>
  );
}
