import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { BASE_KINDS, type BaseKind } from "../../../core/maxes/variants";
import { LIFT_NAMES, LIFTS, type Lift, MVT_DEFAULTS_MPS } from "../../../core/profile/threshold";
import { plainNumber } from "../../../core/units/mass";
import { formatVelocity } from "../../../core/units/velocity";
import { SYSTEM_MASS_NAMES, SYSTEM_MASSES } from "../../../core/velocity/force";
import { isOlder } from "../../../core/velocity/processing";
import { formObject } from "../../forms/athlete";
import { VariantForm } from "../../forms/library";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { type FormResult, resultOf } from "../../ui/adder";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { keepVariant, readLifts } from "../../workflows/library/library.server";
import type { Route } from "./+types/lifts";
import { LibraryTabs } from "./library-tabs";

const BASE_NAMES: Record<BaseKind, string> = {
  own: "own records",
  ratio: "a ratio to another lift",
  shares: "the same max as another lift",
};

export function meta() {
  return [{ title: "Lift variants · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return { lifts: await readLifts(principal), mayEdit: mayWrite(principal, "/library/lifts") };
}

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = VariantForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success) {
    return { ok: false as const, intent: "lift", problems: fieldProblems(parsed.error) };
  }
  return { intent: "lift", ...(await keepVariant(principalOf(context), parsed.data)) };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

/** Lift variants: what each is, where its max comes from, its threshold and system mass. */
export default function Lifts({ loaderData, actionData }: Route.ComponentProps) {
  const { lifts, mayEdit } = loaderData;
  const [params] = useSearchParams();
  const chosen = lifts.find((one) => one.id === params.get("lift"));
  const name = (id: string | null) => lifts.find((one) => one.id === id)?.name ?? "";
  return (
    <Page
      title="Library"
      facts={`${lifts.length} lift variants: lift, bar, grip, stance, box style and resistance`}
      margin={
        mayEdit ? (
          <LiftEditor
            key={chosen?.id ?? "new"}
            chosen={chosen}
            lifts={lifts}
            result={resultOf(actionData, "lift")}
          />
        ) : undefined
      }
    >
      <LibraryTabs />
      <div className="overflow-x-auto">
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col">Lift variant</th>
              <th scope="col">Bar</th>
              <th scope="col">Conditions</th>
              <th scope="col">Max from</th>
              <th scope="col" className="!text-right">
                Threshold, MCV
              </th>
              <th scope="col">Moves</th>
              <th scope="col">Starts at</th>
            </tr>
          </thead>
          <tbody>
            {lifts.map((one) => (
              <tr key={one.id}>
                <th scope="row" className="!text-base-content">
                  <Link className="hover:underline" to={`?lift=${one.id}`} replace>
                    {one.name}
                  </Link>
                </th>
                <td>{one.bar}</td>
                <td className="text-muted">
                  {[one.grip && `${one.grip} grip`, one.stance, one.boxStyle, one.resistance]
                    .filter(Boolean)
                    .join(" · ")}
                </td>
                <td>
                  {one.baseKind === "own"
                    ? "own records"
                    : one.baseKind === "shares"
                      ? `shares ${name(one.baseId)}`
                      : `${one.ratio === null ? "ratio not set" : plainNumber(one.ratio, 3)} × ${name(one.baseId)}`}
                </td>
                <td className="text-right whitespace-nowrap">
                  {formatVelocity(
                    isOlder(one.thresholdProcessing) || one.thresholdMps === null
                      ? MVT_DEFAULTS_MPS[one.lift].mps
                      : one.thresholdMps,
                  )}{" "}
                  m/s
                  <span className="block text-sm text-muted">
                    {one.thresholdMps === null
                      ? (MVT_DEFAULTS_MPS[one.lift].note ?? "group mean")
                      : isOlder(one.thresholdProcessing)
                        ? `group mean; the team's ${formatVelocity(one.thresholdMps)} is of an older processing: open the lift and keep it to confirm`
                        : "set by the team"}
                  </span>
                </td>
                <td className="text-muted">{SYSTEM_MASS_NAMES[one.systemMass]}</td>
                <td className="text-muted">{one.start === "top" ? "the top" : "the bottom"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-2 max-w-3xl text-sm text-muted">
        Grip shares a max unless you say otherwise. Bar, stance, box style and depth take a ratio,
        which stays unset until you give it or an athlete's own records teach it. Thresholds move
        towards each athlete's own as maximal singles are confirmed.
      </p>
    </Page>
  );
}

function LiftEditor({
  chosen,
  lifts,
  result,
}: {
  chosen: Route.ComponentProps["loaderData"]["lifts"][number] | undefined;
  lifts: Route.ComponentProps["loaderData"]["lifts"];
  result: FormResult | undefined;
}) {
  const [baseKind, setBaseKind] = useState<BaseKind>(chosen?.baseKind ?? "own");
  const [lift, setLift] = useState<Lift>(chosen?.lift ?? "bench");
  const problems = result?.problems ?? {};
  return (
    <Form method="post" aria-label="Lift variant" className="grid gap-2" noValidate>
      <h2>{chosen ? chosen.name : "New lift variant"}</h2>
      {chosen ? (
        <Link className="text-sm underline" to="/library/lifts" replace>
          New one instead
        </Link>
      ) : null}
      <input type="hidden" name="id" value={chosen?.id ?? ""} />
      <Field label="Name" name="name" inline defaultValue={chosen?.name} problem={problems.name} />
      <Select
        label="Lift"
        name="lift"
        inline
        value={lift}
        onChange={(event) => setLift(event.target.value as Lift)}
      >
        {LIFTS.map((one) => (
          <option key={one} value={one}>
            {LIFT_NAMES[one]}
          </option>
        ))}
      </Select>
      <Field
        label="Bar"
        name="bar"
        inline
        defaultValue={chosen?.bar ?? "straight"}
        problem={problems.bar}
      />
      <Field label="Grip" name="grip" inline defaultValue={chosen?.grip} />
      <Field label="Stance" name="stance" inline defaultValue={chosen?.stance} />
      <Field label="Box style" name="boxStyle" inline defaultValue={chosen?.boxStyle} />
      <Field label="Resistance" name="resistance" inline defaultValue={chosen?.resistance} />
      <Select
        label="Max from"
        name="baseKind"
        inline
        value={baseKind}
        onChange={(event) => setBaseKind(event.target.value as BaseKind)}
      >
        {BASE_KINDS.map((one) => (
          <option key={one} value={one}>
            {BASE_NAMES[one]}
          </option>
        ))}
      </Select>
      {baseKind === "own" ? (
        <input type="hidden" name="baseId" value="" />
      ) : (
        <Select
          label="Of"
          name="baseId"
          inline
          defaultValue={chosen?.baseId ?? ""}
          problem={problems.baseId}
        >
          <option value="">choose</option>
          {lifts
            .filter((one) => one.id !== chosen?.id)
            .map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
        </Select>
      )}
      {baseKind === "ratio" ? (
        <Field
          label="Ratio"
          name="ratio"
          inline
          inputMode="decimal"
          placeholder="not set"
          defaultValue={chosen?.ratio ?? ""}
          problem={problems.ratio}
        />
      ) : null}
      <Field
        label="Threshold"
        name="thresholdMps"
        inline
        inputMode="decimal"
        placeholder={`${formatVelocity(MVT_DEFAULTS_MPS[lift].mps)} group mean`}
        defaultValue={chosen?.thresholdMps ?? ""}
        problem={problems.thresholdMps}
      />
      <Select label="Moves" name="systemMass" inline defaultValue={chosen?.systemMass ?? "bar"}>
        {SYSTEM_MASSES.map((one) => (
          <option key={one} value={one}>
            {SYSTEM_MASS_NAMES[one]}
          </option>
        ))}
      </Select>
      <Select label="Starts at" name="start" inline defaultValue={chosen?.start ?? "top"}>
        <option value="top">the top</option>
        <option value="bottom">the bottom</option>
      </Select>
      <Field
        label="Caution"
        name="caution"
        inline
        defaultValue={chosen?.caution}
        placeholder="spotters, safeties, collars"
        problem={problems.caution}
      />
      {result?.message ? <Notice kind="problem" title={result.message} /> : null}
      {result?.ok ? (
        <p role="status" className="font-medium text-primary">
          Kept.
        </p>
      ) : null}
      <button type="submit" className="btn btn-primary">
        {chosen ? "Keep the change" : "Add the lift"}
      </button>
    </Form>
  );
}
