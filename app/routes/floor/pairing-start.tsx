import { Link, redirect } from "react-router";
import { z } from "zod";
import { DIRECTION_NAMES } from "../../../core/contrast/complex";
import { formatClock } from "../../../core/units/time";
import { principalOf } from "../../platform/guard.server";
import { readForm } from "../../platform/submission.server";
import { ComplexStave } from "../../ui/complex-stave";
import { Day } from "../../ui/dates";
import { Form } from "../../ui/form";
import { keepForm } from "../../ui/keep-form";
import { Empty, Notice, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useAddress } from "../../ui/use-address";
import { Figure, Figures } from "../../ui/working";
import {
  plannedPairings,
  previewPairing,
  readPairings,
  startPairing,
} from "../../workflows/floor/pairing.server";
import { readComplexes } from "../../workflows/library/complexes.server";
import type { Route } from "./+types/pairing-start";

export function meta() {
  return [{ title: "Pairing · Sprezza" }];
}

/** A complex's own week within a block; 1 outside of any. */
const WeekOf = z.coerce.number().int().min(1).max(104).catch(1);

export async function loader({ request, context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const asked = new URL(request.url).searchParams;
  const { complexes, groups } = await readComplexes(principal);
  const inUse = complexes.filter((one) => !one.away);
  const wanted = asked.get("complex");
  const complexId =
    inUse.find((one) => one.id === wanted || one.lineageId === wanted)?.id ?? inUse[0]?.id;
  const week = WeekOf.parse(asked.get("week") ?? 1);
  const groupId = groups.find((one) => one.id === asked.get("squad"))?.id ?? groups[0]?.id;
  const preview =
    complexId && groupId ? await previewPairing(principal, complexId, groupId, week) : undefined;
  return {
    complexes: inUse.map(({ id, complex }) => ({ id, complex })),
    groups,
    complexId,
    groupId,
    week,
    planned: await plannedPairings(principal),
    preview: preview?.ok ? preview.value : undefined,
    runs: await readPairings(principal),
  };
}

const StartForm = z.object({
  complexId: z.uuid(),
  groupId: z.uuid(),
  week: WeekOf,
  present: z.array(z.uuid()),
  simpler: z.array(z.uuid()),
  average: z.array(z.uuid()),
});

export async function action({ request, context }: Route.ActionArgs) {
  const form = await readForm(request);
  const parsed = StartForm.safeParse({
    complexId: form.get("complexId"),
    groupId: form.get("groupId"),
    week: form.get("week"),
    present: form.getAll("present"),
    simpler: form.getAll("simpler"),
    average: form.getAll("average"),
  });
  if (!parsed.success)
    return { ok: false as const, message: "The form was not complete. Load the page again." };
  const made = await startPairing(principalOf(context), parsed.data);
  if (!made.ok) return { ok: false as const, message: made.message };
  throw redirect(`/floor/pairing/${made.value.id}`);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

/** Who runs which complex: loads by name, and what stands against it. */
export default function PairingStart({ loaderData, actionData }: Route.ComponentProps) {
  const { complexes, groups, complexId, groupId, week, planned, preview, runs } = loaderData;
  const address = useAddress();
  const chosen = complexes.find((one) => one.id === complexId);
  return (
    <Page
      title="Run a pairing"
      facts="Who is here, what each lifts, and what stands against it."
      margin={
        <>
          {planned.length > 0 ? (
            <section aria-labelledby="planned" className="mb-4">
              <h2 id="planned">In the plans</h2>
              <ul>
                {planned.map((one) => (
                  <li key={one.key} className="border-b border-faint py-1">
                    <Link
                      className="underline"
                      to={`?complex=${one.complexId}&squad=${one.groupId}&week=${one.week}`}
                    >
                      {one.name}, {one.squadName}
                    </Link>{" "}
                    <span className="text-muted">
                      {one.today ? "today" : <Day of={one.date} />} · {one.planName}, its week{" "}
                      {one.week}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          ) : null}
          <section aria-labelledby="pairings">
            <h2 id="pairings">Pairings</h2>
            {runs.length === 0 ? <p className="text-muted">None yet.</p> : null}
            <ul>
              {runs.map((run) => (
                <li key={run.id} className="border-b border-faint py-1">
                  <Link className="underline" to={`/floor/pairing/${run.id}`}>
                    {run.name}
                  </Link>{" "}
                  <span className="text-muted">
                    <Day of={run.date} /> · {run.count} {run.running ? "· running" : ""}
                  </span>
                </li>
              ))}
            </ul>
          </section>
        </>
      }
    >
      {actionData?.message ? <Notice kind="problem" title={actionData.message} /> : null}
      <div className="mb-3 flex flex-wrap gap-4">
        <div className="w-64">
          <PageSelect
            label="Complex"
            value={complexId}
            onChange={(e) => address.set("complex", e.target.value)}
          >
            {complexes.map((one) => (
              <option key={one.id} value={one.id}>
                {one.complex.name}
              </option>
            ))}
          </PageSelect>
        </div>
        <div className="w-48">
          <PageSelect
            label="Squad"
            value={groupId}
            onChange={(e) => address.set("squad", e.target.value)}
          >
            {groups.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </PageSelect>
        </div>
      </div>
      {chosen ? <ComplexStave complex={chosen.complex} /> : null}
      {preview?.checks.map((check) => (
        <Notice
          key={check.code + check.text}
          kind={check.level === "warning" ? "warning" : "note"}
          title={check.text}
        />
      ))}
      {!chosen || !preview ? (
        <Empty>No complex or squad yet. Make one in the library first.</Empty>
      ) : (
        <Form method="post" key={`${complexId}/${groupId}/${week}`}>
          <input type="hidden" name="complexId" value={complexId} />
          <input type="hidden" name="groupId" value={groupId} />
          <input type="hidden" name="week" value={week} />
          {week > 1 && chosen.complex.direction !== "hold" ? (
            <p className="text-muted">
              Week {week} of it: jumps go {DIRECTION_NAMES[chosen.complex.direction]}.
            </p>
          ) : null}
          <Figures label="Loads" className="my-3 overflow-x-auto">
            <table className="ledger">
              <thead>
                <tr>
                  <th scope="col">Here</th>
                  {chosen.complex.items.map((item) => (
                    <th key={item.id} scope="col">
                      {item.name}
                    </th>
                  ))}
                  {chosen.complex.aim === "potentiation" ? <th scope="col">Gap</th> : null}
                  <th scope="col">Simpler version</th>
                </tr>
              </thead>
              <tbody>
                {preview.athletes.map((one) => (
                  <tr key={one.id}>
                    <td className="whitespace-nowrap">
                      <label className="flex items-center gap-2 font-bold pointer-coarse:min-h-11">
                        <input
                          type="checkbox"
                          name="present"
                          value={one.id}
                          defaultChecked
                          className="checkbox checkbox-sm border-control"
                        />
                        {one.name}
                      </label>
                      {one.instructions.map((text) => (
                        <span key={text} className="block text-sm text-secondary">
                          {text}
                        </span>
                      ))}
                    </td>
                    {one.loads.map((load, i) => (
                      <td key={chosen.complex.items[i]?.id}>
                        <Figure
                          id={`pairing/${one.id}/${i}`}
                          working={load.working}
                          label={`${one.name}, ${chosen.complex.items[i]?.name}, ${load.words}`}
                        >
                          {load.words}
                        </Figure>
                        {load.side ? (
                          <span className="block text-sm text-muted">side {load.side}</span>
                        ) : null}
                      </td>
                    ))}
                    {chosen.complex.aim === "potentiation" ? (
                      <td>
                        {one.gapS === undefined ? (
                          <span className="text-muted">no own gap yet</span>
                        ) : (
                          <>
                            own, {formatClock(one.gapS)}
                            <label className="flex items-center gap-2 text-sm text-muted pointer-coarse:min-h-11">
                              <input
                                type="checkbox"
                                name="average"
                                value={one.id}
                                className="checkbox checkbox-sm border-control"
                              />
                              keep the complex's
                            </label>
                          </>
                        )}
                      </td>
                    ) : null}
                    <td>
                      <label className="flex items-center gap-2 pointer-coarse:min-h-11">
                        <input
                          type="checkbox"
                          name="simpler"
                          value={one.id}
                          aria-label={`${one.name}: simpler version`}
                          defaultChecked={one.weak}
                          className="checkbox checkbox-sm border-control"
                        />
                        {one.weak ? "strength first" : ""}
                      </label>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Figures>
          <p className="mb-3 text-sm text-muted">
            Clear the floor for throws and jumps. Pain, dizziness, a new injury: stop and refer.
            Local rules come first.
          </p>
          <button type="submit" className="btn btn-primary">
            Start the pairing
          </button>
        </Form>
      )}
    </Page>
  );
}
