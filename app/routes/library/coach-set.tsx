import { z } from "zod";
import { readDecimal } from "../../../core/units/decimal";
import { plainNumber } from "../../../core/units/mass";
import { formObject } from "../../forms/athlete";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import { keepCoachValue, readCoachValues } from "../../workflows/library/plan-library.server";
import type { Route } from "./+types/coach-set";
import { LibraryTabs } from "./library-tabs";

export function meta() {
  return [{ title: "Coach-set values · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return {
    ...(await readCoachValues(principal)),
    mayEdit: mayWrite(principal, "/library/coach-set"),
  };
}

const ValueForm = z.object({
  key: z.string().min(1),
  value: z.string().transform((text, context) => {
    const reading = readDecimal(text);
    if (!reading.ok && reading.reason === "empty") return undefined;
    if (!reading.ok) {
      context.addIssue({ code: "custom", message: `"${text}" is not a number.` });
      return z.NEVER;
    }
    return reading.value;
  }),
});

export async function action({ request, context }: Route.ActionArgs) {
  const fields = formObject(await readForm(request));
  const parsed = ValueForm.safeParse(fields);
  const key = fields.key ?? "";
  if (!parsed.success) {
    return { ok: false as const, key, message: parsed.error.issues[0]?.message ?? "" };
  }
  return { key, ...(await keepCoachValue(principalOf(context), parsed.data)) };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

type Data = Route.ComponentProps["loaderData"];
type Result = { ok: boolean; key?: string; message?: string } | undefined;

/** Every value that only a coach can set, unset ones first; then the usual numbers, to be changed. */
export default function CoachSet({ loaderData, actionData }: Route.ComponentProps) {
  const { values, defaults, older, mayEdit } = loaderData;
  const result = actionData as Result;
  const unset = values.filter((one) => one.value === undefined).length;
  const own = defaults.filter((one) => one.value !== undefined).length;
  return (
    <Page title="Library" facts={`Coach-set values: ${unset} of ${values.length} not set.`}>
      <LibraryTabs />
      {result && !result.ok && result.key === undefined ? (
        <Notice kind="problem" title={result.message ?? ""} />
      ) : null}
      <section aria-labelledby="only-you" className="mb-6 max-w-4xl">
        <h2 id="only-you">Only you can set these</h2>
        <p className="border-b border-rule pb-2 text-muted">
          None has a default; a rule that needs one says "not set" and guesses nothing.
        </p>
        <ul>
          {values.map((one) => (
            <ValueRow
              key={one.key}
              value={one}
              fallback={undefined}
              about={olderWords(one.why, older[one.key])}
              mayEdit={mayEdit}
              result={result}
            />
          ))}
        </ul>
      </section>
      <section aria-labelledby="usual" className="max-w-4xl">
        <h2 id="usual">Usual numbers, yours to change</h2>
        <p className="border-b border-rule pb-2 text-muted">
          Coaches disagree about these. {own === 0 ? "All stand as shipped." : `Your own: ${own}.`}{" "}
          Empty goes back to the usual one.
        </p>
        <ul>
          {defaults.map((one) => (
            <ValueRow
              key={one.key}
              value={one}
              fallback={one.fallback}
              about={`${one.why} Usual: ${plainNumber(one.fallback, 3)}${one.unit ? ` ${one.unit}` : ""}, ${one.source}.`}
              mayEdit={mayEdit}
              result={result}
            />
          ))}
        </ul>
      </section>
    </Page>
  );
}

/** A speed that was set under an older way of measuring holds only once it is set again. */
function olderWords(why: string, olderMps: number | undefined): string {
  return olderMps === undefined
    ? why
    : `${why} Older processing: ${plainNumber(olderMps, 3)} m/s was set when mean velocity was measured from v = 0 and raises nothing; set it again to confirm it.`;
}

function ValueRow({
  value: one,
  fallback,
  about,
  mayEdit,
  result,
}: {
  value: Pick<Data["values"][number], "key" | "name" | "unit" | "value">;
  fallback: number | undefined;
  about: string;
  mayEdit: boolean;
  result: Result;
}) {
  const standing = fallback === undefined ? "not set" : plainNumber(fallback, 3);
  return (
    <li className="grid gap-x-6 border-b border-faint py-2 sm:grid-cols-[1fr_15rem]">
      <div>
        <p className="font-bold">{one.name}</p>
        <p className="text-muted">{about}</p>
      </div>
      {mayEdit ? (
        <Form method="post" className="flex items-end gap-2" noValidate aria-label={one.name}>
          <input type="hidden" name="key" value={one.key} />
          <div className="grow">
            <Field
              key={one.value}
              label={one.unit || "number"}
              name="value"
              inputMode="decimal"
              placeholder={standing}
              defaultValue={one.value === undefined ? "" : plainNumber(one.value, 3)}
              problem={result && !result.ok && result.key === one.key ? result.message : undefined}
            />
          </div>
          <button type="submit" className="btn">
            Keep
          </button>
        </Form>
      ) : (
        <p>{one.value === undefined ? standing : `${one.value} ${one.unit}`}</p>
      )}
    </li>
  );
}
