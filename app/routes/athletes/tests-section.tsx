import { useState } from "react";
import { type ChangeVerdict, changeBetween, TYPED_FREEDOM } from "../../../core/numeric/change";
import { readDecimal } from "../../../core/units/decimal";
import { formatKg } from "../../../core/units/mass";
import type { LocalDate } from "../../../core/units/time";
import { Adder, type FormResult } from "../../ui/adder";
import { Dated } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { MassInput } from "../../ui/mass-input";
import { Notice } from "../../ui/page";
import { useUnit } from "../../ui/unit";
import { Figure } from "../../ui/working";
import type { AthletePage } from "./page-data";

const MARKS: Record<ChangeVerdict, string> = {
  better: "▲",
  worse: "▼",
  trivial: "=",
  unclear: "?",
};

/** Jumps, throws and sprints: the last results, and the change between the last two. */
export function TestsSection({
  data,
  resultFor,
}: {
  data: AthletePage;
  resultFor: (intent: string) => FormResult | undefined;
}) {
  const massUnit = useUnit();
  const { changes, today, mayEdit } = data;
  return (
    <section id="tests" aria-labelledby="tests-title" className="mb-6 scroll-mt-24">
      <h2 id="tests-title" className="border-b border-rule pb-1">
        Tests
      </h2>
      {changes.qualities.length === 0 ? (
        <p className="py-2 text-muted">No jump, throw or sprint yet.</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="ledger">
            <thead>
              <tr>
                <th scope="col">Test</th>
                <th scope="col">Before</th>
                <th scope="col">Last</th>
                <th scope="col">Trials</th>
                <th scope="col" className="!text-right">
                  Change
                </th>
                <th scope="col">Verdict</th>
              </tr>
            </thead>
            <tbody>
              {changes.qualities.map((one) => {
                const [before, last] = [one.results.at(-2), one.results.at(-1)];
                const show = (value: number) => `${value.toFixed(one.decimals)} ${one.unit}`;
                return (
                  <tr key={one.key}>
                    <th scope="row" className="!text-base-content">
                      {one.testName}
                      {one.side ? `, ${one.side}` : ""}
                      {one.approach ? ", with approach" : ""}
                      {one.loadKg > 0 ? `, ${formatKg(one.loadKg, massUnit, 1)}` : ""}
                    </th>
                    <td className="whitespace-nowrap">
                      <Dated>{before ? `${show(before.value)} (${before.date})` : ""}</Dated>
                    </td>
                    <td className="whitespace-nowrap">
                      <Dated>
                        {last
                          ? `${last.atLeast ? "at least " : ""}${show(last.value)} (${last.date})`
                          : ""}
                      </Dated>
                    </td>
                    <td className="text-muted">
                      {last?.trials.map((trial) => trial.toFixed(one.decimals)).join(" ")}
                      {last && last.splits.length > 0
                        ? ` · split ${last.splits.map((split) => split.toFixed(2)).join(" ")}`
                        : ""}
                    </td>
                    <td className="text-right whitespace-nowrap">
                      {one.change ? (
                        <Figure
                          id={`change/${one.key}`}
                          working={one.change.working}
                          label={`Change ${show(one.change.difference)}`}
                        >
                          {one.change.difference >= 0 ? "+" : "−"}
                          {show(Math.abs(one.change.difference))}
                        </Figure>
                      ) : null}
                    </td>
                    <td>
                      {one.change ? (
                        <>
                          <b>
                            {MARKS[one.change.verdict]} {one.change.verdict}
                          </b>{" "}
                          <span className="text-sm whitespace-nowrap text-muted">
                            {(100 * one.change.better).toFixed(0)} /{" "}
                            {(100 * one.change.trivial).toFixed(0)} /{" "}
                            {(100 * one.change.worse).toFixed(0)} %
                          </span>
                        </>
                      ) : one.wantsNoise ? (
                        <TypedNoise quality={one} />
                      ) : (
                        <span className="text-sm text-muted">{one.without}</span>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          <p className="text-sm text-muted">
            Chances that the true change is better, trivial, worse. They take every change as
            equally likely beforehand, which is disputed; the working says by what error.
          </p>
        </div>
      )}
      {mayEdit ? <ResultForm data={data} today={today} result={resultFor("result")} /> : null}
    </section>
  );
}

/** Where the team has too few to know its noise: a typed or published one judges the change. */
function TypedNoise({ quality }: { quality: AthletePage["changes"]["qualities"][number] }) {
  const [error, setError] = useState("");
  const [counts, setCounts] = useState("");
  const [before, after] = [quality.results.at(-2), quality.results.at(-1)];
  const [noise, smallest] = [readDecimal(error), readDecimal(counts)];
  const change =
    before && after && noise.ok && noise.value > 0 && smallest.ok && smallest.value > 0
      ? changeBetween({
          before: before.value,
          after: after.value,
          error: { value: noise.value, freedom: TYPED_FREEDOM },
          worthwhile: smallest.value,
          higherIsBetter: quality.higherIsBetter,
          unit: quality.unit,
          decimals: quality.decimals,
          ...(quality.take === "mean"
            ? { trialsBefore: before.trials.length, trialsAfter: after.trials.length }
            : {}),
        })
      : undefined;
  const of = `${quality.testName}${quality.side ? `, ${quality.side}` : ""}`;
  return (
    <div className="flex flex-wrap items-end gap-2 text-sm">
      <span className="w-28">
        <Field
          label={`Typical error, ${quality.unit}`}
          aria-label={`Typical error of ${of}, ${quality.unit}`}
          inputMode="decimal"
          placeholder="published"
          value={error}
          onChange={(event) => setError(event.target.value)}
        />
      </span>
      <span className="w-28">
        <Field
          label={`Counts from, ${quality.unit}`}
          aria-label={`Smallest change of ${of} that counts, ${quality.unit}`}
          inputMode="decimal"
          value={counts}
          onChange={(event) => setCounts(event.target.value)}
        />
      </span>
      {change ? (
        <Figure id={`typed-change/${quality.key}`} working={change.working} className="font-bold">
          {MARKS[change.verdict]} {change.verdict} {(100 * change.better).toFixed(0)} /{" "}
          {(100 * change.trivial).toFixed(0)} / {(100 * change.worse).toFixed(0)} %
        </Figure>
      ) : (
        <span className="text-muted">{quality.without} A typed one judges it here.</span>
      )}
    </div>
  );
}

function ResultForm({
  data,
  today,
  result,
}: {
  data: AthletePage;
  today: LocalDate;
  result: FormResult | undefined;
}) {
  const { tests } = data.changes;
  const [testId, setTestId] = useState(tests[0]?.id ?? "");
  const test = tests.find((one) => one.id === testId);
  const problems = result?.problems ?? {};
  if (tests.length === 0) return null;
  return (
    <Adder title="Enter a test" open={result?.ok === false}>
      <Form
        method="post"
        aria-label="New test result"
        className="grid max-w-3xl gap-2 sm:grid-cols-3"
        noValidate
      >
        <Select
          label="Test"
          name="testId"
          value={testId}
          onChange={(event) => setTestId(event.target.value)}
        >
          {tests.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}, {one.unit}
            </option>
          ))}
        </Select>
        <Field
          label="Date"
          name="date"
          type="date"
          defaultValue={today}
          max={today}
          problem={problems.date}
        />
        <Field
          label={`Trials in ${test?.unit ?? ""}, in the order done`}
          name="trials"
          placeholder={test?.unit === "s" ? "3.12 3.09" : "41.2 40.8 42"}
          problem={problems.trials}
        />
        {test?.sides ? (
          <Select label="Side" name="side">
            <option value="left">left</option>
            <option value="right">right</option>
          </Select>
        ) : null}
        {test?.family === "loaded-jump" || test?.family === "throw" ? (
          <MassInput label="Load" name="loadKg" problem={problems.loadKg} />
        ) : null}
        {test?.splitM ? (
          <Field label={`Splits at ${test.splitM} m, s`} name="splits" problem={problems.splits} />
        ) : null}
        {test?.family === "jump" ? (
          <label className="flex items-center gap-1 self-end pb-2">
            <input type="checkbox" name="approach" value="yes" className="checkbox checkbox-sm" />
            With an approach
          </label>
        ) : null}
        <label className="flex items-center gap-1 self-end pb-2">
          <input type="checkbox" name="atLeast" value="yes" className="checkbox checkbox-sm" />
          Cut short: at least this much
        </label>
        <div className="self-end">
          <button type="submit" name="intent" value="result" className="btn btn-primary">
            Keep the result
          </button>
        </div>
        {result?.message ? (
          <div className="sm:col-span-3">
            <Notice kind="problem" title={result.message} />
          </div>
        ) : null}
        <p className="text-sm text-muted sm:col-span-3">
          Clear floor for throws and jumps; no testing in pain or in the fortnight after a
          competition.
        </p>
      </Form>
    </Adder>
  );
}
