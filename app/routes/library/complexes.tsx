import { useEffect, useState } from "react";
import { Link, redirect } from "react-router";
import {
  COMPLEX_AIM_NAMES,
  COMPLEX_AIMS,
  type Complex,
  complexTotals,
  DIRECTION_NAMES,
  DIRECTIONS,
} from "../../../core/contrast/complex";
import { type ComplexSettings, checkComplex } from "../../../core/contrast/complex-checks";
import { formatClock } from "../../../core/units/time";
import { formObject } from "../../forms/athlete";
import { complexFromJson } from "../../forms/complex";
import { idFrom } from "../../forms/primitives/id";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { resultOf } from "../../ui/adder";
import { ComplexStave } from "../../ui/complex-stave";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { keepOnFilter, useAddress } from "../../ui/use-address";
import {
  copyComplex,
  readComplexes,
  saveComplex,
  shelveComplex,
} from "../../workflows/library/complexes.server";
import type { Route } from "./+types/complexes";
import { ComplexItems } from "./complex-items";
import { LibraryTabs } from "./library-tabs";

export function meta() {
  return [{ title: "Complexes · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return {
    ...(await readComplexes(principal)),
    mayEdit: mayWrite(principal, "/library/complexes"),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const fields = formObject(await readForm(request));
  const { intent = "", complex = "" } = fields;
  const id = idFrom(fields.id);
  if (intent === "away" || intent === "back")
    return { intent, ...(await shelveComplex(principal, { id, away: intent === "away" })) };
  if (intent === "copy" || intent === "simpler") {
    const made = await copyComplex(principal, { id, simpler: intent === "simpler" });
    if (made.ok) throw redirect(`/library/complexes?complex=${made.value.id}`);
    return { intent, ...made };
  }
  const parsed = complexFromJson(complex);
  if (!parsed.ok) return { intent: "save", ...parsed };
  const saved = await saveComplex(principal, { id, complex: parsed.complex });
  if (saved.ok) throw redirect(`/library/complexes?complex=${saved.value.id}`);
  return { intent: "save", ...saved };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof keepOnFilter>[0]) {
  return keepOnFilter(args) && revalidateUnlessFailed(args);
}

/** The team's complexes: built item by item, drawn to time, checked as they are typed. */
export default function Complexes({ loaderData, actionData }: Route.ComponentProps) {
  const { complexes, groups, schools, settings, mayEdit } = loaderData;
  const address = useAddress();
  const inUse = complexes.filter((one) => !one.away);
  const away = complexes.filter((one) => one.away);
  const chosen = complexes.find((one) => one.id === address.get("complex")) ?? inUse[0];
  return (
    <Page
      title="Library"
      facts="Complexes: what with what, with how much gap. Shipped ones are yours to change."
      margin={
        <>
          <section aria-labelledby="all-complexes">
            <h2 id="all-complexes">Complexes</h2>
            <ul>
              {inUse.map((one) => (
                <li
                  key={one.id}
                  className={`border-b border-faint py-1 ${one === chosen ? "bg-wash" : ""}`}
                >
                  <Link
                    to={`?complex=${one.id}`}
                    replace
                    preventScrollReset
                    aria-current={one === chosen ? "true" : undefined}
                    className="font-bold hover:underline"
                  >
                    {one.complex.name}
                  </Link>
                  <p className="text-sm text-muted">
                    {one.complex.items.length} items × {one.complex.rounds} ·{" "}
                    {formatClock(complexTotals(one.complex).lengthS)}
                  </p>
                </li>
              ))}
            </ul>
          </section>
          {away.length > 0 ? (
            <section aria-label="Put away" className="mt-4">
              <h2>Put away</h2>
              {away.map((one) => (
                <Form key={one.id} method="post" className="flex gap-3">
                  <input type="hidden" name="id" value={one.id} />
                  {one.complex.name}
                  <button type="submit" name="intent" value="back" className="underline">
                    Bring back
                  </button>
                </Form>
              ))}
            </section>
          ) : null}
        </>
      }
    >
      <LibraryTabs />
      {chosen ? (
        <Builder
          key={chosen.id}
          id={chosen.id}
          by={`version ${chosen.version}, ${chosen.by}`}
          saved={chosen.complex}
          schools={schools}
          settings={settings}
          mayEdit={mayEdit}
          problem={resultOf(actionData, "save")?.message}
        />
      ) : null}
      {chosen ? (
        <section aria-labelledby="run-it" className="mt-5">
          <h2 id="run-it">On the floor</h2>
          <p className="flex flex-wrap gap-4">
            {groups.map((squad) => (
              <Link
                key={squad.id}
                className="underline"
                to={`/floor/pairing?complex=${chosen.id}&squad=${squad.id}`}
              >
                Run it with {squad.name}
              </Link>
            ))}
          </p>
        </section>
      ) : null}
    </Page>
  );
}

function Builder({
  id,
  by,
  saved,
  schools,
  settings,
  mayEdit,
  problem,
}: {
  id: string;
  by: string;
  saved: Complex;
  schools: string[];
  settings: ComplexSettings;
  mayEdit: boolean;
  problem: string | undefined;
}) {
  const [complex, setComplex] = useState(saved);
  useEffect(() => setComplex(saved), [saved]);
  const set = (over: Partial<Complex>) => setComplex({ ...complex, ...over });
  const totals = complexTotals(complex);
  const checks = checkComplex(complex, [], true, settings);
  const changed = JSON.stringify(complex) !== JSON.stringify(saved);
  return (
    <section aria-label={saved.name}>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="text-[1.2rem]">{complex.name}</h2>
        <span className="text-muted">
          {COMPLEX_AIM_NAMES[complex.aim]} · {complex.school} · {by}
        </span>
      </div>
      <p className="mb-2">{complex.purpose}</p>
      <ComplexStave complex={complex} />
      <p className="mt-1" role="status">
        <b>{totals.totalReps}</b> reps (
        {totals.reps.map((one) => `${one.reps} ${one.name}`).join(", ")}) ·{" "}
        <b>{formatClock(totals.lengthS)}</b> long · rest{" "}
        <b>{formatClock(totals.restWithoutLastS)}</b>, with the last {formatClock(totals.restS)}
      </p>
      <ul aria-label="Checks" className="my-2">
        {checks.map((check) => (
          <li
            key={check.code + check.text}
            className={`my-1 border-l-[3px] pl-3 ${check.level === "warning" ? "border-secondary" : "border-primary"}`}
          >
            <span className="text-sm text-muted">
              {check.level === "warning" ? "look again" : "note"} ·{" "}
            </span>
            {check.text}
          </li>
        ))}
        {checks.length === 0 ? <li className="text-muted">Nothing stands against it.</li> : null}
      </ul>
      {mayEdit ? (
        <Form method="post" aria-label="Complex">
          <input type="hidden" name="id" value={id} />
          <input type="hidden" name="complex" value={JSON.stringify(complex)} />
          <div className="grid gap-3 sm:grid-cols-4">
            <Field
              label="Name"
              value={complex.name}
              onChange={(e) => set({ name: e.target.value })}
            />
            <Select
              label="Aim"
              value={complex.aim}
              onChange={(e) => set({ aim: e.target.value as Complex["aim"] })}
            >
              {COMPLEX_AIMS.map((aim) => (
                <option key={aim} value={aim}>
                  {COMPLEX_AIM_NAMES[aim]}
                </option>
              ))}
            </Select>
            <Select
              label="School"
              value={complex.school}
              onChange={(e) => set({ school: e.target.value })}
            >
              {[...new Set([complex.school, ...schools])].map((name) => (
                <option key={name}>{name}</option>
              ))}
            </Select>
            <div className="grid grid-cols-2 gap-2">
              <Field
                label="Rounds"
                type="number"
                min={1}
                max={20}
                value={complex.rounds}
                onChange={(e) => set({ rounds: Number(e.target.value) })}
              />
              <Field
                label="Rest, s"
                type="number"
                min={0}
                max={1800}
                value={complex.restS}
                onChange={(e) => set({ restS: Number(e.target.value) })}
              />
            </div>
          </div>
          <ComplexItems items={complex.items} onChange={(items) => set({ items })} />
          <div className="grid gap-3 sm:grid-cols-4">
            <div className="sm:col-span-2">
              <Field
                label="Purpose"
                value={complex.purpose}
                onChange={(e) => set({ purpose: e.target.value })}
              />
            </div>
            <Select
              label="Light jump over a block"
              value={complex.direction}
              onChange={(e) => set({ direction: e.target.value as Complex["direction"] })}
            >
              {DIRECTIONS.map((one) => (
                <option key={one} value={one}>
                  {DIRECTION_NAMES[one]}
                </option>
              ))}
            </Select>
            <Field
              label="by points a week"
              type="number"
              min={0}
              max={50}
              value={complex.weekStep}
              onChange={(e) => set({ weekStep: Number(e.target.value) })}
            />
            <div className="sm:col-span-2">
              <Field
                label="Reason, where its items do not match"
                value={complex.patternReason}
                onChange={(e) => set({ patternReason: e.target.value })}
              />
            </div>
            <label className="flex items-center gap-2 self-end pb-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm border-control"
                checked={complex.beforeMain}
                onChange={(e) => set({ beforeMain: e.target.checked })}
              />
              before the main lift
            </label>
          </div>
          {problem ? <Notice kind="problem" title={problem} /> : null}
          <p className="mt-3 flex flex-wrap items-center gap-4">
            <button
              type="submit"
              name="intent"
              value="save"
              className={`btn ${changed ? "btn-primary" : ""}`}
            >
              Save the complex
            </button>
            <button type="submit" name="intent" value="copy" className="underline">
              Copy it
            </button>
            <button type="submit" name="intent" value="simpler" className="underline">
              Make a simpler version
            </button>
            <button type="submit" name="intent" value="away" className="underline">
              Put it away
            </button>
            {changed ? <span className="text-secondary">As typed, not saved yet.</span> : null}
          </p>
        </Form>
      ) : null}
    </section>
  );
}
