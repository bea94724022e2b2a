import { estimateRepMax, REP_MAX_WORDS } from "../../../../core/maxes/rep-max";
import { formatKg } from "../../../../core/units/mass";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { ToolField, useAnswer } from "./fields";
import { type ToolProps, valueAt } from "./tool";

/** A max from a set to near failure, by five formulas at once. */
export function MaxFromSet({ address, unit }: ToolProps) {
  const estimate = estimateRepMax({
    loadKg: valueAt(address, "load", 100, "mass") ?? Number.NaN,
    reps: valueAt(address, "reps", 5) ?? Number.NaN,
    reserve: valueAt(address, "reserve", 0) ?? Number.NaN,
  });
  useAnswer(
    estimate.ok
      ? `max about ${formatKg(estimate.medianKg, unit, 1)}, ${formatKg(estimate.leastKg, unit, 1)} to ${formatKg(estimate.greatestKg, unit, 1)}`
      : undefined,
  );
  const shared = { address, unit };
  return (
    <>
      <form className="grid max-w-2xl gap-3 sm:grid-cols-3" onSubmit={(e) => e.preventDefault()}>
        <ToolField {...shared} label="Load" name="load" kind="mass" start={100} />
        <ToolField {...shared} label="Reps done" name="reps" start={5} />
        <ToolField {...shared} label="Reps in reserve" name="reserve" start={0} />
      </form>
      {estimate.ok ? (
        <Figures label="Answers" className="mt-4">
          <p className="text-3xl font-bold">
            <Figure id="lab/max" working={estimate.working}>
              {formatKg(estimate.medianKg, unit, 1)}
            </Figure>
          </p>
          <p className="text-muted">
            Median of five, {formatKg(estimate.leastKg, unit, 1)} to{" "}
            {formatKg(estimate.greatestKg, unit, 1)}
            {estimate.beyondTrusted ? ". Over ten reps the formulas drift apart." : ""}
          </p>
          <table className="ledger mt-2 max-w-md">
            <tbody>
              {estimate.byFormula.map((one) => (
                <tr key={one.name}>
                  <th scope="row">{one.name}</th>
                  <td className="text-right">{formatKg(one.kg, unit, 2)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Figures>
      ) : (
        <Notice kind="problem" title={REP_MAX_WORDS[estimate.reason]} />
      )}
    </>
  );
}
