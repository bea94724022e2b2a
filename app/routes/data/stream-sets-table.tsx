import type { MassUnit } from "../../../core/units/mass";
import { formatVelocity, type VelocityMetric } from "../../../core/units/velocity";
import { repVelocity } from "../../../core/velocity/stream";
import type { LoadedSet } from "./stream-sets";

/** The sets that were found, each with a field for its load. */
export function StreamSets({
  sets,
  metric,
  unit,
  onLoad,
}: {
  sets: readonly LoadedSet[];
  metric: VelocityMetric;
  unit: MassUnit;
  onLoad: (set: number, text: string) => void;
}) {
  return (
    <table className="ledger mt-2 max-w-3xl">
      <thead>
        <tr>
          <th scope="col">Set</th>
          <th scope="col">From</th>
          <th scope="col">{metric}, m/s</th>
          <th scope="col">Load</th>
        </tr>
      </thead>
      <tbody>
        {sets.map((set, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: sets keep their places
          <tr key={i}>
            <th scope="row">{i + 1}</th>
            <td>{set.reps[0] ? `${set.reps[0].startS.toFixed(1)} s` : ""}</td>
            <td>
              {set.reps.map((rep) => formatVelocity(repVelocity(rep, metric))).join(" · ")}
              {set.failed > 0 ? <span className="text-muted"> {set.failed} failed</span> : null}
            </td>
            <td>
              <input
                className="field !h-8 !w-28"
                aria-label={`Load of set ${i + 1}`}
                placeholder={unit === "kg" ? "60" : "135 lb"}
                value={set.text}
                aria-invalid={set.text !== "" && set.kg === undefined ? true : undefined}
                onChange={(event) => onLoad(i, event.target.value)}
              />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
