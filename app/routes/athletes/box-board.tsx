import { useState } from "react";
import { Link } from "react-router";
import { passWords, RUNGS } from "../../../core/boxsquat/ladder";
import { SPINE_CAUTION } from "../../../core/boxsquat/styles";
import { formObject } from "../../forms/athlete";
import { GroupForm, RungForm } from "../../forms/box";
import { idOrNone } from "../../forms/primitives/id";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Day } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Empty, Notice, Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useAddress } from "../../ui/use-address";
import {
  keepLadderGroup,
  markRung,
  readBoxBoard,
} from "../../workflows/athletes/box-ladder.server";
import type { Route } from "./+types/box-board";

export function meta() {
  return [{ title: "Box ladder · Sprezza" }];
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  const squad = new URL(request.url).searchParams.get("squad");
  return {
    ...(await readBoxBoard(principal, idOrNone(squad))),
    mayEdit: mayWrite(principal, "/athletes/box"),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const form = await readForm(request);
  const fields = formObject(form);
  if (fields.intent === "group") {
    const parsed = GroupForm.safeParse(fields);
    return parsed.success
      ? keepLadderGroup(principal, parsed.data)
      : { ok: false as const, message: parsed.error.issues[0]?.message };
  }
  const parsed = RungForm.safeParse({ ...fields, athleteIds: form.getAll("athleteIds") });
  return parsed.success
    ? markRung(principal, parsed.data)
    : { ok: false as const, message: parsed.error.issues[0]?.message };
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof revalidateUnlessFailed>[0]) {
  return revalidateUnlessFailed(args);
}

/** A squad's teaching ladder: a column a rung, a mark where somebody stands, and the gate. */
export default function BoxBoard({ loaderData, actionData }: Route.ComponentProps) {
  const { squads, squad, people, group, today, mayEdit } = loaderData;
  const address = useAddress();
  const [chosen, setChosen] = useState<string[]>([]);
  const result = actionData as { ok: boolean; message?: string } | undefined;
  if (!squad)
    return (
      <Page title="Box ladder">
        <Empty
          action={
            <Link className="btn btn-primary" to="/athletes/squads">
              Make a squad
            </Link>
          }
        >
          No squad yet. A squad learns the box squat together, rung by rung.
        </Empty>
      </Page>
    );
  return (
    <Page
      title="Box ladder"
      facts={`${squad.name}: where everybody stands, from the chair to the found speed weight`}
      margin={
        <>
          <Gate squadId={squad.id} group={group} today={today} mayEdit={mayEdit} />
          <section aria-labelledby="ladder-cautions" className="mt-4 text-muted">
            <h2 id="ladder-cautions">Cautions</h2>
            <p>
              Straight bar to learn, other bars after. The first week of any cycle is for getting
              used to it: no rise. {SPINE_CAUTION} Spotters, collars, safeties just under the bar's
              lowest point. Local rules come first.
            </p>
          </section>
        </>
      }
    >
      <div className="mb-3 w-56">
        <PageSelect
          label="Squad"
          value={squad.id}
          onChange={(e) => address.set("squad", e.target.value)}
        >
          {squads.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </PageSelect>
      </div>
      {result && !result.ok ? <Notice kind="problem" title={result.message ?? ""} /> : null}
      <LadderTable
        people={people}
        ladderReps={loaderData.ladderReps}
        chosen={mayEdit ? chosen : undefined}
        onChosen={setChosen}
      />
      {mayEdit ? (
        <MarkRung
          people={people}
          ladderReps={loaderData.ladderReps}
          chosen={chosen}
          onChosen={setChosen}
        />
      ) : null}
    </Page>
  );
}

type Loaded = Route.ComponentProps["loaderData"];

/** How many are ready, what is still needed, and the coach's word to move on earlier. */
function Gate({
  squadId,
  group,
  today,
  mayEdit,
}: Pick<Loaded, "group" | "today" | "mayEdit"> & { squadId: string }) {
  return (
    <section aria-labelledby="gate">
      <h2 id="gate">The gate to heavy work</h2>
      {group ? (
        <>
          <p className="text-[1.5rem] font-bold">
            {group.gate.ready} of {group.gate.total} ready
          </p>
          <p className="text-muted">
            {group.gate.needed} needed ({group.gate.sharePercent} %, rounded up) and{" "}
            {group.gate.daysNeeded / 7} weeks: begun <Day of={group.startedOn} />,{" "}
            {group.gate.daysGone} days ago.
          </p>
          <p role="status" className={`my-1 font-bold ${group.gate.open ? "" : "text-secondary"}`}>
            {group.gate.open ? "Open" : "Closed"}: {group.gate.why}
          </p>
          {group.gate.missing.length > 0 ? (
            <p className="text-muted">Not yet: {group.gate.missing.join(", ")}</p>
          ) : null}
          {group.early ? (
            <p className="text-muted">
              {group.by}: {group.note}
            </p>
          ) : null}
        </>
      ) : (
        <p className="text-muted">Not begun. The two weeks count from its start.</p>
      )}
      {mayEdit ? (
        <Form method="post" className="mt-3 grid gap-2" aria-label="The group's ladder">
          <input type="hidden" name="intent" value="group" />
          <input type="hidden" name="squadId" value={squadId} />
          {group ? (
            <>
              <input type="hidden" name="startedOn" value={group.startedOn} />
              <Field label="Reason to move on earlier" name="note" />
              <button type="submit" name="early" value="yes" className="btn">
                Move on earlier
              </button>
            </>
          ) : (
            <>
              <input type="hidden" name="note" value="" />
              <Field label="Begun on" name="startedOn" type="date" defaultValue={today} />
              <button type="submit" name="early" value="no" className="btn btn-primary">
                Begin the ladder
              </button>
            </>
          )}
        </Form>
      ) : null}
    </section>
  );
}

type LadderProps = Pick<Loaded, "people" | "ladderReps"> & { onChosen: (ids: string[]) => void };

/** Everybody against the rungs; with boxes to choose by where something can be marked. */
function LadderTable({
  people,
  ladderReps,
  chosen,
  onChosen,
}: LadderProps & { chosen: string[] | undefined }) {
  const toggle = (id: string, all: string[]) =>
    onChosen(all.includes(id) ? all.filter((one) => one !== id) : [...all, id]);
  return (
    <div className="overflow-x-auto">
      <table className="ledger">
        <thead>
          <tr className="align-bottom">
            <th scope="col">Athlete</th>
            {RUNGS.map((rung, i) => (
              <th
                key={rung.id}
                scope="col"
                className="!whitespace-normal"
                title={`${rung.how} Passed: ${passWords(rung, ladderReps)}`}
              >
                {i + 1} {rung.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {people.map((one) => (
            <tr key={one.id}>
              <th scope="row" className="!text-base-content whitespace-nowrap">
                <span className="flex items-center gap-2">
                  {chosen ? (
                    <input
                      type="checkbox"
                      aria-label={`Choose ${one.name}`}
                      className="checkbox checkbox-sm border-control pointer-coarse:size-6"
                      checked={chosen.includes(one.id)}
                      onChange={() => toggle(one.id, chosen)}
                    />
                  ) : null}
                  <Link className="font-bold hover:underline" to={`/athletes/${one.id}/box`}>
                    {one.name}
                  </Link>
                </span>
                {one.backs > 0 ? (
                  <span className="block text-sm font-normal text-muted">
                    went back {one.backs}×
                  </span>
                ) : null}
              </th>
              {RUNGS.map((rung) => (
                <td key={rung.id} className="text-center">
                  {one.passed.includes(rung.id) ? (
                    <span title="passed">
                      ●<span className="sr-only"> passed</span>
                    </span>
                  ) : one.rungId === rung.id ? (
                    <span className="rounded bg-neutral px-2 py-0.5 text-neutral-content">
                      here
                    </span>
                  ) : (
                    <span className="text-muted">
                      ·<span className="sr-only"> to come</span>
                    </span>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Those who are chosen pass a rung, or go back to it. */
function MarkRung({ people, ladderReps, chosen, onChosen }: LadderProps & { chosen: string[] }) {
  const [picked, setPicked] = useState("");
  const lowest = RUNGS.find((rung) =>
    people.some((one) => chosen.includes(one.id) && one.rungId === rung.id),
  );
  const rungId = picked || lowest?.id || RUNGS[0]?.id || "";
  return (
    <Form
      method="post"
      aria-label="Mark a rung"
      className="sticky bottom-0 mt-3 flex flex-wrap items-end gap-3 border-t border-control bg-base-100 py-3"
      onSubmit={() => {
        setPicked("");
        setTimeout(() => onChosen([]), 0);
      }}
    >
      {chosen.map((id) => (
        <input key={id} type="hidden" name="athleteIds" value={id} />
      ))}
      <p className="self-center">
        <b>{chosen.length}</b> chosen
      </p>
      <button
        type="button"
        className="btn"
        onClick={() => onChosen(chosen.length === people.length ? [] : people.map((one) => one.id))}
      >
        {chosen.length === people.length ? "Choose nobody" : "Choose everybody"}
      </button>
      <div className="w-64">
        <Select
          label="Rung"
          name="rungId"
          value={rungId}
          onChange={(e) => setPicked(e.target.value)}
        >
          {RUNGS.map((rung, i) => (
            <option key={rung.id} value={rung.id}>
              {i + 1} {rung.name}
            </option>
          ))}
        </Select>
      </div>
      <div className="w-56">
        <Field label="Note" name="note" />
      </div>
      <button
        type="submit"
        name="outcome"
        value="passed"
        className="btn btn-primary"
        disabled={chosen.length === 0}
      >
        Passed it
      </button>
      <button
        type="submit"
        name="outcome"
        value="back"
        className="btn"
        disabled={chosen.length === 0}
      >
        Back to it
      </button>
      <p className="w-full text-sm text-muted">
        Passed when:{" "}
        {RUNGS.filter((one) => one.id === rungId).map((one) => passWords(one, ladderReps))}
      </p>
    </Form>
  );
}
