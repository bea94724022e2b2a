import { useEffect, useState } from "react";
import { signal } from "../../offline/signals";

type Tempo = { downS?: number; pauseS?: number };

/** Seconds of the drive, which nobody counts: as fast as it goes. */
const DRIVE_S = 2;
const TICK_MS = 100;

/** The parts of a rep by its tempo, each with its seconds; those of none are left out. */
function partsOf({ downS, pauseS }: Tempo) {
  return [
    { name: "down", s: downS ?? 0 },
    { name: "stop", s: pauseS ?? 0 },
    { name: "up, fast", s: DRIVE_S },
  ].filter((part) => part.s > 0);
}

export const tempoWords = (tempo: Tempo): string =>
  partsOf(tempo)
    .map((part) => (part.name.startsWith("up") ? part.name : `${part.name} ${part.s} s`))
    .join(", ");

/** Counts a rep's parts in figures, by sound and by light, until it is stopped. */
export function Metronome({ tempo }: { tempo: Tempo }) {
  const [since, setSince] = useState<number>();
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (since === undefined) return;
    let last = -1;
    const parts = partsOf(tempo);
    const length = parts.reduce((sum, part) => sum + part.s, 0);
    const tick = () => {
      const at = (performance.now() - since) / 1000;
      setNow(at);
      const second = Math.floor(at);
      if (second === last) return;
      last = second;
      // The first second of a part sounds higher.
      let into = second % length;
      for (const part of parts) {
        if (into < part.s) {
          signal(into < 1 ? "turn" : "tick");
          return;
        }
        into -= part.s;
      }
    };
    tick();
    const timer = setInterval(tick, TICK_MS);
    return () => clearInterval(timer);
  }, [since, tempo]);
  const parts = partsOf(tempo);
  const length = parts.reduce((sum, part) => sum + part.s, 0);
  let into = since === undefined ? 0 : now % length;
  let shown = parts[0];
  for (const part of parts) {
    shown = part;
    if (into < part.s) break;
    into -= part.s;
  }
  const running = since !== undefined;
  return (
    <section aria-label="Metronome" className="grid gap-1.5">
      <p className="flex items-baseline justify-between gap-2">
        <span className="text-[18px] font-bold">{tempoWords(tempo)}</span>
        <button
          type="button"
          className="btn min-h-[56px] text-[18px]"
          onClick={() => setSince(running ? undefined : performance.now())}
        >
          {running ? "Stop" : "Count"}
        </button>
      </p>
      {running && shown ? (
        <>
          <p className="flex items-baseline justify-between text-[34px] leading-none font-bold">
            <span>{shown.name}</span>
            <span className="tabular-nums">{Math.floor(into) + 1}</span>
          </p>
          <div className="h-3 bg-faint" aria-hidden="true">
            <div
              className={shown.name === "stop" ? "h-full bg-accent" : "h-full bg-primary"}
              style={{ width: `${Math.min(100, (100 * into) / shown.s)}%` }}
            />
          </div>
        </>
      ) : null}
    </section>
  );
}
