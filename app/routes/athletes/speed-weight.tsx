import { useState } from "react";

import { findSpeedWeight, type WeightStep } from "../../../core/boxsquat/ladder";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";

const read = (text: string): number | undefined => {
  const value = Number(text.replace(",", "."));
  return text.trim() === "" || !Number.isFinite(value) || value <= 0 ? undefined : value;
};

/** The speed weight: light doubles in small steps, until speed or push goes. */
export function SpeedWeight({
  athleteId,
  unit,
  holdsPercent,
}: {
  athleteId: string;
  unit: "kg" | "lb";
  /** Speed that may be lost against the fastest double, %. */
  holdsPercent: number;
}) {
  const [steps, setSteps] = useState<WeightStep[]>([]);
  const [load, setLoad] = useState("");
  const [speed, setSpeed] = useState("");
  const [pushed, setPushed] = useState(true);
  const [floor, setFloor] = useState("");
  const found = findSpeedWeight(steps, read(floor), holdsPercent);
  const words =
    found.kind === "found"
      ? `Speed weight ${found.loadKg} ${unit}: the next was ${found.endedBy}.`
      : found.kind === "too-heavy"
        ? "The first one was already too much: begin lighter."
        : found.loadKg === undefined
          ? "Begin with a light double."
          : `${found.loadKg} ${unit} still moves: one small step up.`;
  return (
    <section aria-labelledby="speed-weight" className="no-print mt-5">
      <h2 id="speed-weight">Find the speed weight</h2>
      <p className="text-muted">
        Doubles in small steps while speed stays within {holdsPercent} % of the best and the athlete
        drives it; then hold one to three weeks.
      </p>
      <form
        aria-label="A double"
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          const loadKg = read(load);
          if (loadKg === undefined) return;
          setSteps([...steps, { loadKg, speedMps: read(speed), eye: undefined, pushed }]);
          setLoad("");
          setSpeed("");
          setPushed(true);
        }}
      >
        <div className="w-28">
          <Field
            label={`Load, ${unit}`}
            inputMode="decimal"
            value={load}
            onChange={(e) => setLoad(e.target.value)}
          />
        </div>
        <div className="w-28">
          <Field
            label="Speed, m/s"
            inputMode="decimal"
            value={speed}
            onChange={(e) => setSpeed(e.target.value)}
          />
        </div>
        <label className="flex items-center gap-2 pb-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm border-control"
            checked={pushed}
            onChange={(e) => setPushed(e.target.checked)}
          />
          driven, not placed
        </label>
        <button type="submit" className="btn">
          Add the double
        </button>
        <div className="w-36">
          <Field
            label="Floor, m/s"
            hint="not set: none"
            inputMode="decimal"
            value={floor}
            onChange={(e) => setFloor(e.target.value)}
          />
        </div>
      </form>
      {steps.length > 0 ? (
        <p className="mt-2 text-muted">
          {steps
            .map(
              (one) =>
                `${one.loadKg} ${unit}${one.speedMps === undefined ? "" : ` ${one.speedMps.toFixed(2)}`}${one.pushed ? "" : " placed"}`,
            )
            .join(" · ")}
        </p>
      ) : null}
      <p role="status" className="mt-1 font-bold">
        {words}
      </p>
      {found.kind === "found" ? (
        <Form method="post" action="/athletes/box" className="mt-2">
          <input type="hidden" name="athleteIds" value={athleteId} />
          <input type="hidden" name="rungId" value="light-doubles" />
          <input type="hidden" name="note" value={`Speed weight ${found.loadKg} ${unit}`} />
          <button type="submit" name="outcome" value="passed" className="btn btn-primary">
            Keep {found.loadKg} {unit} and pass the light doubles
          </button>
        </Form>
      ) : null}
    </section>
  );
}
