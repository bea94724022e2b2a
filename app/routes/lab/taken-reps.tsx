import { useState } from "react";
import { formatKg, type MassUnit, plainNumber } from "../../../core/units/mass";
import { formatVelocity, type VelocityMetric } from "../../../core/units/velocity";
import type { ProfileTestRun } from "./use-profile-test";

/** The reps taken so far; one can be left out with a reason, and stays in sight. */
export function TakenReps({
  run,
  metric,
  unit,
}: {
  run: ProfileTestRun;
  metric: VelocityMetric;
  unit: MassUnit;
}) {
  const [asking, setAsking] = useState<string>();
  const [reason, setReason] = useState("");
  if (run.reps.length === 0) return null;
  return (
    <section aria-labelledby="taken-title" className="mt-4">
      <div className="flex items-baseline justify-between">
        <h2 id="taken-title">Reps taken</h2>
        <button type="button" className="btn btn-sm" onClick={run.undo} disabled={run.lifting}>
          Undo the last
        </button>
      </div>
      <div className="overflow-x-auto">
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col" className="!text-right">
                Load
              </th>
              <th scope="col" className="!text-right">
                {metric}, m/s
              </th>
              <th scope="col" className="!text-right">
                Force, N
              </th>
              <th scope="col" className="!text-right">
                Power, W
              </th>
              <th scope="col">By</th>
              <th scope="col">In the line</th>
            </tr>
          </thead>
          <tbody>
            {[...run.reps].reverse().map((rep) => {
              const velocity = rep.speeds[metric];
              const name = `${formatKg(rep.loadKg, unit, 1)} at ${velocity === undefined ? "no speed" : formatVelocity(velocity)}`;
              return (
                <tr key={rep.id}>
                  <td className="text-right">{formatKg(rep.loadKg, unit, 1)}</td>
                  <td className="text-right font-bold">
                    {velocity === undefined ? "not measured" : formatVelocity(velocity)}
                  </td>
                  <td className="text-right text-muted">
                    {rep.forceN === undefined ? "" : plainNumber(rep.forceN, 0)}
                  </td>
                  <td className="text-right text-muted">
                    {rep.powerW === undefined ? "" : plainNumber(rep.powerW, 0)}
                  </td>
                  <td className="text-muted">{rep.source}</td>
                  <td>
                    {rep.excluded !== undefined ? (
                      <>
                        <span className="text-accent">left out: {rep.excluded}</span>{" "}
                        <button
                          type="button"
                          className="min-h-8 underline"
                          onClick={() => run.exclude(rep.id, undefined)}
                        >
                          Take in again
                        </button>
                      </>
                    ) : asking === rep.id ? (
                      <form
                        className="flex gap-2"
                        onSubmit={(event) => {
                          event.preventDefault();
                          if (reason.trim() === "") return;
                          run.exclude(rep.id, reason.trim());
                          setAsking(undefined);
                          setReason("");
                        }}
                      >
                        <input
                          // biome-ignore lint/a11y/noAutofocus: asked for this moment
                          autoFocus
                          className="field !h-8 max-w-56"
                          aria-label={`Why leave out ${name}`}
                          placeholder="why"
                          value={reason}
                          onChange={(event) => setReason(event.target.value)}
                        />
                        <button type="submit" className="btn btn-sm">
                          Leave out
                        </button>
                      </form>
                    ) : (
                      <button
                        type="button"
                        className="min-h-8 text-sm text-muted underline"
                        aria-label={`Leave out ${name}`}
                        onClick={() => setAsking(rep.id)}
                      >
                        Leave out …
                      </button>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}
