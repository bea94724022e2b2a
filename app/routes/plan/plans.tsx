import { Link, redirect } from "react-router";
import { formObject } from "../../forms/athlete";
import { NewBlockForm } from "../../forms/block";
import { idFrom } from "../../forms/primitives/id";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { type FormResult, resultOf } from "../../ui/adder";
import { Day } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Empty, Notice, Page } from "../../ui/page";
import { importPlan, newPlan } from "../../workflows/plan/new-plan.server";
import { readPlans } from "../../workflows/plan/read-plan.server";
import type { Route } from "./+types/plans";

export function meta() {
  return [{ title: "Plan · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return { ...(await readPlans(principal)), mayEdit: mayWrite(principal, "/plan") };
}

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const form = formObject(await readForm(request));
  if (form.intent === "file") {
    const made = await importPlan(principal, {
      text: form.text ?? "",
      groupId: idFrom(form.groupId),
      roomId: idFrom(form.roomId),
    });
    if (made.ok) throw redirect(`/plan/${made.value.id}`);
    return { intent: "file", ok: false as const, message: made.message, faults: made.problems };
  }
  const parsed = NewBlockForm.safeParse(form);
  if (!parsed.success) {
    return { ok: false as const, intent: "new", problems: fieldProblems(parsed.error) };
  }
  const made = await newPlan(principal, parsed.data);
  if (made.ok) throw redirect(`/plan/${made.value.id}?view=board`);
  return { intent: "new", ...made };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export const shouldRevalidate = revalidateUnlessFailed;

export default function Plans({ loaderData, actionData }: Route.ComponentProps) {
  const { plans, mayEdit } = loaderData;
  const groups = ["now", "to come", "past"].map((standing) => ({
    standing,
    plans: plans.filter((plan) => plan.standing === standing),
  }));
  return (
    <Page
      title="Plan"
      facts="Blocks of the squads: recipes in slots, and everybody's numbers from them."
      actions={
        <>
          <Link className="btn" to="/library/recipes">
            Recipes
          </Link>
          <Link className="btn" to="/library/schools">
            Schools
          </Link>
          <Link className="btn" to="/library/coach-set">
            Coach-set values
          </Link>
        </>
      }
      margin={
        mayEdit ? (
          <div className="grid gap-6">
            <NewBlock data={loaderData} result={resultOf(actionData, "new")} />
            <FromFile data={loaderData} result={resultOf(actionData, "file")} />
          </div>
        ) : undefined
      }
    >
      {plans.length === 0 ? (
        <Empty>
          No plan yet. A plan is a block of some weeks for a squad: make one on the right.
        </Empty>
      ) : null}
      {groups
        .filter((group) => group.plans.length > 0)
        .map((group) => (
          <section
            key={group.standing}
            aria-labelledby={`plans-${group.standing}`}
            className="mb-6"
          >
            <h2 id={`plans-${group.standing}`}>
              {{ now: "Running now", "to come": "To come", past: "Done" }[group.standing]}
            </h2>
            <div className="overflow-x-auto">
              <table className="ledger mt-1">
                <thead>
                  <tr>
                    <th scope="col">Plan</th>
                    <th scope="col">Squad</th>
                    <th scope="col">Lift</th>
                    <th scope="col">Room</th>
                    <th scope="col">Weeks</th>
                    <th scope="col">First and last session</th>
                  </tr>
                </thead>
                <tbody>
                  {group.plans.map((plan) => (
                    <tr key={plan.id}>
                      <td>
                        <Link className="font-bold underline" to={`/plan/${plan.id}`}>
                          {plan.name}
                        </Link>
                      </td>
                      <td>{plan.squadName}</td>
                      <td>
                        {plan.liftName}
                        {plan.slots > 1 ? (
                          <span className="text-muted"> and {plan.slots - 1} more</span>
                        ) : null}
                      </td>
                      <td>{plan.roomName}</td>
                      <td>{plan.weeks}</td>
                      <td>
                        <Day of={plan.startDate} /> to <Day of={plan.lastDate} />
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </section>
        ))}
    </Page>
  );
}

type Data = Route.ComponentProps["loaderData"];

function NewBlock({ data, result }: { data: Data; result: FormResult | undefined }) {
  const problems = result?.problems ?? {};
  return (
    <Form method="post" aria-label="New block" className="grid gap-2" noValidate>
      <h2>New block</h2>
      <Field label="Name" name="name" inline problem={problems.name} />
      <Select label="For" name="groupId" inline problem={problems.groupId}>
        {data.groups.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </Select>
      <Select label="Room" name="roomId" inline>
        {data.rooms.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </Select>
      <Field label="Starts on" name="startDate" inline type="date" problem={problems.startDate} />
      <Field
        label="Weeks"
        name="weeks"
        inline
        inputMode="numeric"
        defaultValue={8}
        problem={problems.weeks}
      />
      <Select
        label="School"
        name="schoolId"
        inline
        hint="its rules check the block"
        defaultValue={data.schoolId}
      >
        {data.schools.map((one) => (
          <option key={one.id} value={one.id} title={one.assumes}>
            {one.name}
          </option>
        ))}
      </Select>
      {result?.message ? <Notice kind="problem" title={result.message} /> : null}
      <button type="submit" name="intent" value="new" className="btn btn-primary">
        Make the block
      </button>
    </Form>
  );
}

function FromFile({
  data,
  result,
}: {
  data: Data;
  result: (FormResult & { faults?: string[] }) | undefined;
}) {
  return (
    <Form method="post" aria-label="Block from a file" className="grid gap-2" noValidate>
      <h2>Block from a file</h2>
      <label className="grid gap-1">
        <span className="text-muted">JSON, as a plan writes it</span>
        <textarea
          name="text"
          rows={3}
          className="w-full rounded border border-control bg-base-100 p-2"
        />
      </label>
      <input type="hidden" name="groupId" value={data.groups[0]?.id ?? ""} />
      <input type="hidden" name="roomId" value={data.groups[0]?.roomId ?? ""} />
      {result?.message ? (
        <Notice kind="problem" title={result.message}>
          <ul>
            {(result.faults ?? []).slice(0, 8).map((fault) => (
              <li key={fault}>{fault}</li>
            ))}
          </ul>
        </Notice>
      ) : null}
      <button type="submit" name="intent" value="file" className="btn">
        Make the block
      </button>
    </Form>
  );
}
