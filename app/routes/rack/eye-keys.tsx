import { useState } from "react";
import type { SetState } from "../../../core/floor/set-state";
import type { Eye } from "../../../core/liverules/eye";

const LOOK = "btn h-auto min-h-[64px] flex-col gap-0 border-2 py-1 text-[20px] leading-tight";

const EYES: ReadonlyArray<{ eye: Eye; name: string; key: string }> = [
  { eye: "fast", name: "Fast", key: "+" },
  { eye: "on", name: "On", key: "=" },
  { eye: "slow", name: "Slow", key: "-" },
];

/** One tap is the whole set: every rep done, with how fast it looked, or done and nothing more. */
export function EyeKeys({
  set,
  count,
}: {
  set: SetState;
  count: (reps: number, eye?: Eye) => void;
}) {
  const [open, setOpen] = useState(false);
  const { reps } = set.prescription;
  const done = set.reps.filter((rep) => rep.outcome === "counted").length;
  const fewer = Array.from({ length: reps }, (_, i) => i).filter((n) => n >= done);
  return (
    <section aria-label="Seen by eye" className="mt-2 grid grid-cols-5 gap-2">
      {EYES.map(({ eye, name, key }) => (
        <button key={eye} type="button" className={LOOK} onClick={() => count(reps, eye)}>
          <span className="font-bold">{name}</span>
          <span className="text-[17px] font-normal text-muted">
            all {reps} · <kbd className="font-sans">{key}</kbd>
          </span>
        </button>
      ))}
      <button type="button" className={LOOK} onClick={() => count(reps)}>
        <span className="font-bold">All {reps} done</span>
        <span className="text-[17px] font-normal text-muted">Enter</span>
      </button>
      <button type="button" className={LOOK} onClick={() => setOpen(!open)} aria-expanded={open}>
        <span className="font-bold">Fewer</span>
        <span className="text-[17px] font-normal text-muted">
          {done} to {reps - 1}
        </span>
      </button>
      {open ? (
        <p className="col-span-5 flex flex-wrap items-center gap-2 text-[17px] text-muted">
          {fewer.map((n) => (
            <button
              key={n}
              type="button"
              className="btn min-h-[64px] min-w-[72px] text-[19px]"
              aria-label={`${n} ${n === 1 ? "rep" : "reps"} done, the set is over`}
              onClick={() => count(n)}
            >
              {n}
            </button>
          ))}
          done, and the set is over
        </p>
      ) : null}
    </section>
  );
}
