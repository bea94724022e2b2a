import { Form } from "react-router";
import {
  DEFAULT_FACTORS,
  MAX_KIND_NAMES,
  MAX_KINDS,
  type MaxKind,
} from "../../../core/maxes/records";
import { Field, Select } from "../../ui/field";
import { Notice } from "../../ui/page";

type Result =
  | { ok: true }
  | { ok: false; code?: string; message?: string; problems?: Record<string, string> };

/** A new record; a large jump is asked about once. */
export function RecordForm({
  lifts,
  today,
  result,
}: {
  lifts: Array<{ id: string; name: string }>;
  today: string;
  result: Result | undefined;
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
      <Field
        label="Load"
        name="load"
        inline
        placeholder="120 or 225 lb"
        inputMode="text"
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
          Kept. Choose it below if percentages should stand on it.
        </p>
      ) : null}
      <button type="submit" name="intent" value="record" className="btn btn-primary">
        {look ? "Keep it all the same" : "Keep this record"}
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
  record: { id: string; kind: MaxKind; date: string };
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
