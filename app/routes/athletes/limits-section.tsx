import {
  AGE_GROUP_WORDS,
  GUARDED,
  GUARDED_NAMES,
  limitHolds,
  REASON_KIND_NAMES,
  REASON_KINDS,
  type ReasonKind,
} from "../../../core/maxes/limits";
import { LIFT_NAMES, LIFTS } from "../../../core/profile/threshold";
import { Adder, type FormResult } from "../../ui/adder";
import { Dated, Day } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { Notice } from "../../ui/page";
import type { AthletePage } from "./page-data";

export interface Reasons {
  limitId: string;
  kind: ReasonKind;
  reason: string;
  guardianConsent: boolean;
  by: string;
}

/**
 * Limits: the instruction for everybody who coaches, the reason apart, shown on asking and each
 * reading recorded.
 */
export function LimitsSection({
  data,
  reasons,
  resultFor,
}: {
  data: AthletePage;
  reasons: Reasons[] | undefined;
  resultFor: (intent: string) => FormResult | undefined;
}) {
  const { limits, today, mayEdit, notes } = data;
  const held = limits.filter((limit) => limitHolds(limit, today));
  const past = limits.filter((limit) => !limitHolds(limit, today));
  const byAge = data.lifts[0]?.refused.some((one) => one.because === AGE_GROUP_WORDS);
  return (
    <section id="limits" aria-labelledby="limits-title" className="mb-6 scroll-mt-24">
      <h2 id="limits-title" className="border-b border-rule pb-1">
        Limits
      </h2>
      {held.length === 0 ? <p className="py-2 text-muted">No limit holds today.</p> : null}
      <ul>
        {held.map((limit) => (
          <li key={limit.id}>
            <Notice kind="warning" title={limit.instruction}>
              <Dated>
                {[
                  limit.liftName
                    ? LIFT_NAMES[limit.liftName as keyof typeof LIFT_NAMES]
                    : "every lift",
                  limit.capPercent === undefined ? "" : `at most ${limit.capPercent} % of the max`,
                  limit.refuses.length > 0
                    ? `refuses ${limit.refuses.map((one) => GUARDED_NAMES[one].toLowerCase()).join(", ")}`
                    : "",
                  limit.until ? `until ${limit.until}` : "until lifted",
                  `set by ${limit.enteredBy}, ${limit.enteredAt}`,
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </Dated>
              {reasons
                ?.filter((one) => one.limitId === limit.id)
                .map((one) => (
                  <p key={one.limitId} className="mt-1 text-base-content">
                    Reason, for coaches only: <b>{REASON_KIND_NAMES[one.kind]}</b>.{" "}
                    {one.reason || "No more was written."}
                    {one.guardianConsent ? " Guardian's consent noted." : ""}
                  </p>
                ))}
              {mayEdit ? (
                <Form method="post" className="inline">
                  <input type="hidden" name="limitId" value={limit.id} />
                  <button
                    type="submit"
                    name="intent"
                    value="end-limit"
                    className="min-h-8 underline"
                  >
                    Lift this limit
                  </button>
                </Form>
              ) : null}
            </Notice>
          </li>
        ))}
      </ul>
      {byAge ? (
        <p className="py-1 text-secondary">
          By age, refused by default:{" "}
          {GUARDED.map((one) => GUARDED_NAMES[one].toLowerCase()).join(", ")}. A coach overrides
          with a reason; local rules and licensed practitioners come first.
        </p>
      ) : null}
      {past.length > 0 ? (
        <p className="text-sm text-muted">
          No longer in force:{" "}
          <Dated>
            {past
              .map(
                (limit) =>
                  `${limit.instruction} (${limit.liftedOn ? `lifted ${limit.liftedOn} by ${limit.liftedBy}` : `until ${limit.until}`})`,
              )
              .join("; ")}
          </Dated>
        </p>
      ) : null}
      {mayEdit ? (
        <div className="flex flex-wrap gap-x-6">
          {limits.length > 0 && !reasons ? (
            <Form method="post" preventScrollReset>
              <button
                type="submit"
                name="intent"
                value="reasons"
                className="min-h-8 py-1 underline"
              >
                Show the reasons (recorded)
              </button>
            </Form>
          ) : null}
          <LimitForm result={resultFor("limit")} />
        </div>
      ) : null}
      {data.reads && data.reads.length > 0 ? (
        <Adder title={`Who read the reasons (${data.reads.length})`}>
          <ul>
            {data.reads.map((read) => (
              <li key={read.id} className="border-b border-faint py-1">
                {read.at}: {read.by}
                <span className="text-muted"> · {read.instruction}</span>
              </li>
            ))}
          </ul>
        </Adder>
      ) : null}
      {notes ? <DayNotes data={data} notes={notes} result={resultFor("note")} /> : null}
    </section>
  );
}

function LimitForm({ result }: { result: FormResult | undefined }) {
  const problems = result?.problems ?? {};
  return (
    <Adder title="Set a limit" open={result?.ok === false}>
      <Form
        method="post"
        aria-label="New limit"
        className="grid max-w-3xl gap-2 sm:grid-cols-2"
        noValidate
      >
        <Field
          label="Instruction, shown on cards and racks"
          name="instruction"
          placeholder="No max tests; squat at most 60 %"
          problem={problems.instruction}
        />
        <Select label="Lift" name="lift">
          <option value="">every lift</option>
          {LIFTS.map((lift) => (
            <option key={lift} value={lift}>
              {LIFT_NAMES[lift]}
            </option>
          ))}
        </Select>
        <fieldset className="sm:col-span-2">
          <legend className="text-muted">Refuses by default</legend>
          <div className="flex flex-wrap gap-x-4">
            {GUARDED.map((one) => (
              <label key={one} className="flex min-h-8 items-center gap-1">
                <input
                  type="checkbox"
                  name="refuses"
                  value={one}
                  className="checkbox checkbox-sm"
                />
                {GUARDED_NAMES[one]}
              </label>
            ))}
          </div>
        </fieldset>
        <Field
          label="At most, % of the max"
          name="capPercent"
          inputMode="decimal"
          problem={problems.capPercent}
        />
        <Field
          label="Until (empty: until lifted)"
          name="until"
          type="date"
          problem={problems.until}
        />
        <Select label="Reason: owner, coaches and the athlete only" name="reasonKind">
          <option value="">no reason given</option>
          {REASON_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {REASON_KIND_NAMES[kind]}
            </option>
          ))}
        </Select>
        <Field label="In words" name="reason" autoComplete="off" />
        <label className="flex items-center gap-1">
          <input
            type="checkbox"
            name="guardianConsent"
            value="yes"
            className="checkbox checkbox-sm"
          />
          A minor: guardian's consent noted
        </label>
        <div>
          <button type="submit" name="intent" value="limit" className="btn btn-primary">
            Set this limit
          </button>
        </div>
        <p className="text-sm text-muted sm:col-span-2">
          The instruction says what to do, never why. This is no medical advice: pain, dizziness or
          a new injury means stop and refer.
        </p>
      </Form>
    </Adder>
  );
}

function DayNotes({
  data,
  notes,
  result,
}: {
  data: AthletePage;
  notes: NonNullable<AthletePage["notes"]>;
  result: FormResult | undefined;
}) {
  const { today } = data;
  return (
    <Adder
      title={`Sleep, eating, soreness (optional${notes[0] ? `, last ${notes[0].date}` : ""})`}
      open={result !== undefined || undefined}
    >
      {notes.length > 0 ? (
        <table className="ledger max-w-md">
          <thead>
            <tr>
              <th scope="col">Day</th>
              <th scope="col" className="!text-right">
                Sleep, h
              </th>
              <th scope="col" className="!text-right">
                Eating, 1–5
              </th>
              <th scope="col" className="!text-right">
                Soreness, 0–10
              </th>
            </tr>
          </thead>
          <tbody>
            {notes.map((note) => (
              <tr key={note.id}>
                <td>
                  <Day of={note.date} />
                </td>
                <td className="text-right">{note.sleepH ?? ""}</td>
                <td className="text-right">{note.eating ?? ""}</td>
                <td className="text-right">{note.soreness ?? ""}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      <Form method="post" className="mt-2 flex flex-wrap items-end gap-2" noValidate>
        <Field label="Day" name="date" type="date" defaultValue={today} max={today} />
        <span className="w-24">
          <Field
            label="Sleep, h"
            name="sleepH"
            inputMode="decimal"
            problem={result?.problems?.sleepH}
          />
        </span>
        <span className="w-24">
          <Field
            label="Eating, 1–5"
            name="eating"
            inputMode="numeric"
            problem={result?.problems?.eating}
          />
        </span>
        <span className="w-28">
          <Field
            label="Soreness, 0–10"
            name="soreness"
            inputMode="numeric"
            problem={result?.problems?.soreness ?? result?.message}
          />
        </span>
        <button type="submit" name="intent" value="note" className="btn">
          Keep
        </button>
      </Form>
    </Adder>
  );
}
