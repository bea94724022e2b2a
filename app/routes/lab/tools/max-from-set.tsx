import { estimateRepMax, REP_MAX_WORDS } from "../../../../core/maxes/repmax";
import { formatKg, massKg, readMass } from "../../../../core/units/mass";
import { Field } from "../../../ui/field";
import { Notice } from "../../../ui/page";
import { Figure, Figures } from "../../../ui/working";
import { numberAt, type ToolProps } from "./tool";

/** A max from a set to near failure, by five formulas at once. */
export function MaxFromSet({ address }: ToolProps) {
  const { get, set } = address;
  const mass = readMass(get("load") || "100", "kg");
  const estimate = estimateRepMax({
    loadKg: mass.ok ? massKg(mass.mass) : Number.NaN,
    reps: numberAt(address, "reps", 5) ?? Number.NaN,
    reserve: numberAt(address, "reserve", 0) ?? Number.NaN,
  });
  const unit = mass.ok ? mass.mass.unit : "kg";
  return (
    <>
      <form className="grid max-w-2xl gap-3 sm:grid-cols-3" onSubmit={(e) => e.preventDefault()}>
        <Field
          label="Load"
          defaultValue={get("load") || "100"}
          onChange={(event) => set("load", event.target.value)}
        />
        <Field
          label="Reps done"
          inputMode="numeric"
          defaultValue={get("reps") || "5"}
          onChange={(event) => set("reps", event.target.value)}
        />
        <Field
          label="Reps in reserve"
          inputMode="decimal"
          defaultValue={get("reserve") || "0"}
          onChange={(event) => set("reserve", event.target.value)}
        />
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
