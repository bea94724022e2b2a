import { useState } from "react";
import {
  DEFAULT_FACTORS,
  MAX_KIND_NAMES,
  MAX_KINDS,
  type MaxKind,
} from "../../../core/maxes/records";
import { estimateRepMax, REP_MAX_WORDS } from "../../../core/maxes/rep-max";
import { readDecimal } from "../../../core/units/decimal";
import { formatKg, formatMass, massKg, readMass } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import type { FormResult } from "../../ui/adder";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { MassInput } from "../../ui/mass-input";
import { Notice } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { Figure } from "../../ui/working";

/** A new record; a large jump is asked about once. */
export function RecordForm({
  lifts,
  today,
  result,
}: {
  lifts: Array<{ id: string; name: string }>;
  today: LocalDate;
  result: FormResult | undefined;
}) {
  const problems = result && !result.ok ? (result.problems ?? {}) : {};
  const look = result && !result.ok && result.code === "look-twice";
  return (
    <Form method="post" aria-label="New record" className="grid gap-2" noValidate>
      <h2>New record</h2>
      <Select label="Lift" name="variantId" inline>
        {lifts.map((lift) => (
          <option key={lift.id} value={lift.id}>
            {lift.name}
          </option>
        ))}
      </Select>
      <MassInput
        label="Load"
        name="load"
        inline
        placeholder="120 or 225 lb"
        problem={problems.load}
      />
      <Field
        label="Date"
        name="date"
        type="date"
        inline
        defaultValue={today}
        max={today}
        problem={problems.date}
      />
      <Select label="Kind" name="kind" inline defaultValue="tested">
        {MAX_KINDS.map((kind) => (
          <option key={kind} value={kind}>
            {MAX_KIND_NAMES[kind]}
          </option>
        ))}
      </Select>
      <Field label="Note" name="note" inline placeholder="conditions" problem={problems.note} />
      {result && !result.ok && result.message ? (
        <Notice kind={look ? "warning" : "problem"} title={result.message} />
      ) : null}
      {look ? <input type="hidden" name="confirmed" value="yes" /> : null}
      {result?.ok ? (
        <p role="status" className="font-medium text-primary">
          {result.intent === "record-in-use"
            ? "Kept, and percentages stand on it."
            : "Kept. Its lift's line opens to where percentages are made to stand on it."}
        </p>
      ) : null}
      <button type="submit" name="intent" value="record" className="btn btn-primary">
        {look ? "Keep it all the same" : "Keep this record"}
      </button>
      <button type="submit" name="intent" value="record-in-use" className="btn">
        Keep it, and percentages stand on it
      </button>
      <p className="text-sm text-muted">
        Max testing only with competent technique and supervision, spotters and safeties set.
      </p>
    </Form>
  );
}

/** Chooses a record as the base of percentages, with the kind's factor or the coach's. */
export function ChooseForm({
  variantId,
  record,
  chosen,
  problem,
  mayEdit,
}: {
  variantId: string;
  record: { id: string; kind: MaxKind; date: LocalDate };
  chosen: { recordId: string; by: string; factor: number | undefined } | undefined;
  problem: string | undefined;
  mayEdit: boolean;
}) {
  if (chosen?.recordId === record.id) {
    return (
      <span className="text-sm">
        <b>in use</b>, {chosen.by}
      </span>
    );
  }
  if (!mayEdit) return null;
  return (
    <details>
      <summary className="cursor-pointer text-sm text-muted underline">Use this</summary>
      <Form method="post" className="mt-1 flex items-end justify-end gap-2">
        <input type="hidden" name="variantId" value={variantId} />
        <input type="hidden" name="recordId" value={record.id} />
        <span className="w-28">
          <Field
            label="Factor"
            name="factor"
            inputMode="decimal"
            placeholder={String(DEFAULT_FACTORS[record.kind])}
            problem={problem}
          />
        </span>
        <button type="submit" name="intent" value="choose" className="btn">
          Use
        </button>
      </Form>
    </details>
  );
}

/** A max from a set to near failure: five formulas at once; the median can be kept as a record. */
export function RepMaxForm({
  lifts,
  today,
}: {
  lifts: Array<{ id: string; name: string }>;
  today: LocalDate;
}) {
  const [load, setLoad] = useState("");
  const [reps, setReps] = useState("5");
  const [reserve, setReserve] = useState("0");
  const unit = useUnit();
  const mass = readMass(load, unit);
  const count = readDecimal(reps);
  const left = readDecimal(reserve);
  const estimate =
    load === ""
      ? undefined
      : estimateRepMax({
          loadKg: mass.ok ? massKg(mass.mass) : Number.NaN,
          reps: count.ok ? count.value : Number.NaN,
          reserve: left.ok ? left.value : Number.NaN,
        });
  return (
    <Form method="post" aria-label="Max from a set" className="mt-5 grid gap-2" noValidate>
      <h2>Max from a set</h2>
      <Select label="Lift" name="variantId" inline>
        {lifts.map((lift) => (
          <option key={lift.id} value={lift.id}>
            {lift.name}
          </option>
        ))}
      </Select>
      <Field
        label={`Set's load, ${unit}`}
        inline
        placeholder="100"
        value={load}
        onChange={(event) => setLoad(event.target.value)}
      />
      <Field
        label="Reps done"
        inline
        inputMode="numeric"
        value={reps}
        onChange={(event) => setReps(event.target.value)}
      />
      <Field
        label="In reserve"
        inline
        inputMode="decimal"
        value={reserve}
        onChange={(event) => setReserve(event.target.value)}
      />
      {estimate && !estimate.ok ? (
        <p className="font-medium text-accent">{REP_MAX_WORDS[estimate.reason]}</p>
      ) : null}
      {estimate?.ok ? (
        <>
          <p>
            Median{" "}
            <Figure id="rep-max" working={estimate.working} className="font-bold">
              {formatKg(estimate.medianKg, unit, 1)}
            </Figure>
            <span className="block text-sm text-muted">
              five formulas, {formatKg(estimate.leastKg, unit, 1)} to{" "}
              {formatKg(estimate.greatestKg, unit, 1)}
              {estimate.beyondTrusted ? "; over ten reps they drift apart" : ""}
            </span>
          </p>
          <input type="hidden" name="load" value={formatKg(estimate.medianKg, unit, 1)} />
          <input type="hidden" name="date" value={today} />
          <input type="hidden" name="kind" value="rep-max-estimate" />
          <input type="hidden" name="confirmed" value="yes" />
          <input
            type="hidden"
            name="note"
            value={`${mass.ok ? formatMass(mass.mass) : ""} × ${reps}, ${reserve} in reserve; median of five formulas, ${formatKg(estimate.leastKg, unit, 1)} to ${formatKg(estimate.greatestKg, unit, 1)}`}
          />
          <button type="submit" name="intent" value="record" className="btn">
            Keep as an estimate
          </button>
        </>
      ) : null}
    </Form>
  );
}
