import { useEffect, useState } from "react";

import { formatClock } from "../../../core/units/time";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";

const WARN_S = 10;

/**
 * One day of the test: baseline trials, the heavy set, then the trial again when each gap is up.
 * The clock starts when the heavy set is done; a trial's field says when it is due.
 */
export function GapProtocol({
  athleteId,
  trial,
  unit,
  gaps,
  baselines,
}: {
  athleteId: string | undefined;
  trial: string;
  unit: string;
  gaps: number[];
  baselines: number;
}) {
  const [baseline, setBaseline] = useState<string[]>(() =>
    Array.from({ length: baselines }, () => ""),
  );
  const [values, setValues] = useState<Record<number, string>>({});
  const [heavySet, setHeavySet] = useState("Back squat, 2 at 85 %");
  const [sinceMs, setSinceMs] = useState<number>();
  const [nowMs, setNowMs] = useState(0);
  useEffect(() => {
    if (sinceMs === undefined) return;
    const timer = setInterval(() => setNowMs(Date.now()), 250);
    return () => clearInterval(timer);
  }, [sinceMs]);
  const goneS = sinceMs === undefined ? undefined : Math.max(0, (nowMs - sinceMs) / 1000);
  const number = (text: string) => Number(text.replace(",", "."));
  const filled = baseline.filter((text) => number(text) > 0);
  const day = {
    athleteId: athleteId ?? "",
    trial,
    heavySet,
    baseline: filled.map(number),
    trials: gaps.flatMap((gapMin) => {
      const value = number(values[gapMin] ?? "");
      return value > 0 ? [{ gapMin, value }] : [];
    }),
  };
  const next = gaps.find((gapMin) => !(number(values[gapMin] ?? "") > 0));
  const nextS = next === undefined || goneS === undefined ? undefined : 60 * next - goneS;
  return (
    <Form method="post" aria-label="A day of the test" className="mt-4">
      <input type="hidden" name="day" value={JSON.stringify(day)} />
      <div className="grid max-w-5xl gap-3 sm:grid-cols-4">
        {baseline.map((text, i) => (
          <Field
            // biome-ignore lint/suspicious/noArrayIndexKey: the place is the identity
            key={i}
            label={`Baseline ${i + 1}, ${unit}`}
            inputMode="decimal"
            value={text}
            onChange={(e) =>
              setBaseline(baseline.map((one, at) => (at === i ? e.target.value : one)))
            }
          />
        ))}
        <Field label="Heavy set" value={heavySet} onChange={(e) => setHeavySet(e.target.value)} />
      </div>
      <div className="my-3 flex flex-wrap items-center gap-4">
        <button
          type="button"
          className={`btn min-h-14 ${sinceMs === undefined ? "btn-primary" : ""}`}
          onClick={() => {
            const at = Date.now();
            setSinceMs(at);
            setNowMs(at);
          }}
        >
          {sinceMs === undefined ? "Heavy set done: start the clock" : "Start the clock again"}
        </button>
        <p role="timer" className="text-[2rem] leading-none font-bold tabular-nums">
          {goneS === undefined ? "0:00" : formatClock(Math.floor(goneS))}
        </p>
        {nextS !== undefined && next !== undefined ? (
          <p
            role="status"
            className={
              nextS <= 0 ? "text-accent" : nextS <= WARN_S ? "text-secondary" : "text-muted"
            }
          >
            {nextS > 0
              ? `Trial at ${formatClock(Math.round(60 * next))} in ${formatClock(Math.ceil(nextS))}${nextS <= WARN_S ? ": get ready" : ""}`
              : `Trial at ${formatClock(Math.round(60 * next))} is due, ${formatClock(Math.floor(-nextS))} ago`}
          </p>
        ) : null}
      </div>
      <div className="grid max-w-5xl grid-cols-2 gap-3 sm:grid-cols-7">
        {gaps.map((gapMin) => (
          <Field
            key={gapMin}
            label={`After ${formatClock(Math.round(60 * gapMin))}, ${unit}`}
            inputMode="decimal"
            value={values[gapMin] ?? ""}
            onChange={(e) => setValues({ ...values, [gapMin]: e.target.value })}
          />
        ))}
      </div>
      <p className="my-2 text-sm text-muted">
        Warm first; a spotter and safeties for the heavy set. Pain or dizziness: stop, and refer.
      </p>
      <button type="submit" className="btn btn-primary" disabled={!athleteId}>
        Keep this day
      </button>
      {athleteId ? null : <span className="ml-3 text-muted">Choose an athlete to keep it.</span>}
    </Form>
  );
}
