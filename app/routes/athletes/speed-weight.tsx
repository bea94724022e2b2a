import { useState } from "react";

import { findSpeedWeight, type WeightStep } from "../../../core/boxsquat/ladder";
import { loadAt } from "../../../core/profile/line";
import { readDecimal } from "../../../core/units/decimal";
import { formatKg, formatMass, type Mass, massKg, readMass } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { useUnit } from "../../ui/unit";
import type { BoxCard } from "../../workflows/athletes/box-card.server";

const EYES = { "": "not judged", fast: "fast", on: "on", slow: "slow" } as const;

/** One double as it was written: the bar's amount stays in its unit. */
type Double = WeightStep & { load: Mass };

/**
 * The speed weight: light doubles in small steps, until speed or push goes. The floor ends it, or
 * where the coach has set none the wanted speed; the athlete's own line says where that will be.
 */
export function SpeedWeight({ card, variant }: { card: BoxCard; variant: { id: string } }) {
  const unit = useUnit();
  const [steps, setSteps] = useState<Double[]>([]);
  const [load, setLoad] = useState("");
  const [speed, setSpeed] = useState("");
  const [eye, setEye] = useState<keyof typeof EYES>("");
  const [pushed, setPushed] = useState(true);
  const [wanted, setWanted] = useState("");
  const [problem, setProblem] = useState<string>();
  const floorMps = card.speedFloorMps;
  const asked = readDecimal(wanted);
  const wantedMps = asked.ok && asked.value > 0 ? asked.value : undefined;
  const slowest =
    floorMps !== undefined
      ? { mps: floorMps, of: "floor" as const }
      : wantedMps !== undefined
        ? { mps: wantedMps, of: "wanted" as const }
        : undefined;
  const found = findSpeedWeight(steps, slowest);
  const weightOf = (loadKg: number | undefined) => steps.find((one) => one.loadKg === loadKg)?.load;
  const onLine =
    slowest && card.ownLine && card.ownLine.slopeMpsPerKg < 0
      ? loadAt(card.ownLine, slowest.mps)
      : undefined;
  const weight = found.kind === "too-heavy" ? undefined : weightOf(found.loadKg);
  const words =
    found.kind === "found" && weight
      ? `Speed weight ${formatMass(weight)}: the next was ${found.endedBy}.`
      : found.kind === "too-heavy"
        ? "The first one was already too much: begin lighter."
        : weight === undefined
          ? "Begin with a light double."
          : `${formatMass(weight)} still moves: ${
              card.speedWeightStepKg === undefined
                ? "one small step up"
                : `next ${formatKg(massKg(weight) + card.speedWeightStepKg, unit, 1)}`
            }.`;
  const add = () => {
    const reading = readMass(load, unit);
    const measured = readDecimal(speed);
    if (!reading.ok || reading.mass.amount === 0) {
      setProblem("Write the load, for example 60 or 135 lb.");
      return;
    }
    if (speed.trim() !== "" && !(measured.ok && measured.value > 0)) {
      setProblem("A speed in m/s, for example 0.85, or nothing.");
      return;
    }
    setProblem(undefined);
    setSteps([
      ...steps,
      {
        load: reading.mass,
        loadKg: massKg(reading.mass),
        speedMps: measured.ok ? measured.value : undefined,
        eye: eye === "" ? undefined : eye,
        pushed,
      },
    ]);
    setLoad("");
    setSpeed("");
    setEye("");
    setPushed(true);
  };
  return (
    <section aria-labelledby="speed-weight" className="no-print mt-5">
      <h2 id="speed-weight">Find the speed weight</h2>
      <p className="text-muted">
        Doubles in small steps while the athlete drives them and{" "}
        {floorMps !== undefined
          ? `the speed stays over the coach's floor of ${formatVelocity(floorMps)} m/s`
          : "the speed is still the wanted one"}
        ; then hold one to three weeks.
        {onLine !== undefined && onLine > 0
          ? ` The own line of ${card.ownLine?.testedOn} has ${formatVelocity(slowest?.mps ?? 0)} m/s at ${formatKg(onLine, unit, 1)}.`
          : ""}
      </p>
      <form
        aria-label="A double"
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          add();
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
        <div className="w-32">
          <Select
            label="To the eye"
            value={eye}
            onChange={(e) => setEye(e.target.value as keyof typeof EYES)}
          >
            {Object.entries(EYES).map(([id, name]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
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
        {floorMps === undefined ? (
          <div className="w-40">
            <Field
              label="Wanted speed, m/s"
              hint="no floor is set"
              inputMode="decimal"
              value={wanted}
              onChange={(e) => setWanted(e.target.value)}
            />
          </div>
        ) : null}
      </form>
      {problem ? (
        <p role="alert" className="mt-1 font-medium text-accent">
          {problem}
        </p>
      ) : null}
      {steps.length > 0 ? (
        <p className="mt-2 flex flex-wrap items-center gap-3 text-muted">
          {steps
            .map(
              (one) =>
                `${formatMass(one.load)}${one.speedMps === undefined ? "" : ` ${formatVelocity(one.speedMps)}`}${one.eye ? ` ${one.eye}` : ""}${one.pushed ? "" : " placed"}`,
            )
            .join(" · ")}
          <button type="button" className="btn btn-sm" onClick={() => setSteps(steps.slice(0, -1))}>
            Take the last one back
          </button>
        </p>
      ) : null}
      <p role="status" className="mt-1 font-bold">
        {words}
      </p>
      {weight ? (
        <Form method="post" className="mt-2">
          <input type="hidden" name="variantId" value={variant.id} />
          <input type="hidden" name="load" value={formatMass(weight)} />
          <button
            type="submit"
            name="intent"
            value="found"
            className={found.kind === "found" ? "btn btn-primary" : "btn"}
          >
            Keep {formatMass(weight)} and pass the light doubles
          </button>
        </Form>
      ) : null}
    </section>
  );
}
