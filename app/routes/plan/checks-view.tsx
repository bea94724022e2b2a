import { useState } from "react";
import { Link } from "react-router";
import { answerCheck } from "../../../core/plan/edits";
import { Field } from "../../ui/field";
import { PageSelect } from "../../ui/page-select";
import { SchoolDifferences } from "../../ui/school-differences";
import type { useAddress } from "../../ui/use-address";
import type { PlanPage } from "../../workflows/plan/read-plan.server";
import { usePlanEdit } from "./plan-edits";
import { SchoolAthlete } from "./school-athlete";

type Listed = PlanPage["checks"][number];

const LEVEL_WORDS = { refused: "refused", warning: "look again", note: "note" } as const;

/** What stands against the plan by its school, beside another school's list if one is chosen. */
export function ChecksView({
  data,
  address,
  mayEdit,
}: {
  data: PlanPage;
  address: ReturnType<typeof useAddress>;
  mayEdit: boolean;
}) {
  const own = data.schools.find((one) => one.id === data.block.schoolId);
  const other = data.schools.find((one) => one.id === data.other?.id);
  // A plan whose school is none of the team's is checked by the first, and says so.
  const by = own ?? data.schools[0];
  return (
    <>
      <div className="mb-2 flex flex-wrap items-end gap-4">
        <div className="w-72">
          <PageSelect
            label="Beside it, the same plan under"
            value={address.get("against")}
            onChange={(event) => address.set("against", event.target.value)}
          >
            <option value="">no other school</option>
            {data.schools
              .filter((one) => one.id !== data.block.schoolId)
              .map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
          </PageSelect>
        </div>
        <p className="text-muted">
          {own
            ? `School: ${own.name}. ${own.assumes}`
            : `This plan's school is none of yours any more. It is checked by ${by?.name ?? "none"} until you choose one under "Block".`}
        </p>
      </div>
      <div className={data.other ? "grid gap-x-8 lg:grid-cols-2" : ""}>
        <CheckList title={by?.name ?? "Checks"} checks={data.checks} mayEdit={mayEdit} />
        {data.other ? (
          <CheckList title={data.other.name} checks={data.other.checks} mayEdit={false} />
        ) : null}
      </div>
      {own && other ? (
        <>
          <SchoolAthlete data={data} own={own} other={other} address={address} />
          <section aria-labelledby="schools-differ" className="mt-5">
            <h2 id="schools-differ">Where the two differ</h2>
            <SchoolDifferences a={own} b={other} />
          </section>
        </>
      ) : null}
    </>
  );
}

function CheckList({
  title,
  checks,
  mayEdit,
}: {
  title: string;
  checks: readonly Listed[];
  mayEdit: boolean;
}) {
  return (
    <section aria-label={`Checks by ${title}`}>
      <h2>{title}</h2>
      {checks.length === 0 ? <p className="text-muted">Nothing stands against it.</p> : null}
      <ul>
        {checks.map((check) => (
          <CheckRow key={check.key} check={check} mayEdit={mayEdit} />
        ))}
      </ul>
    </section>
  );
}

function CheckRow({ check, mayEdit }: { check: Listed; mayEdit: boolean }) {
  const edit = usePlanEdit();
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState("");
  const edge = { refused: "border-accent", warning: "border-secondary", note: "border-primary" };
  const answer = () => {
    if (reason.trim().length < 3) return;
    setOpen(false);
    edit(answerCheck(check, reason.trim()));
  };
  return (
    <li
      className={`my-2 border-l-[3px] pl-3 ${check.answered ? "border-rule" : edge[check.level]}`}
    >
      <p className={check.answered ? "text-muted" : ""}>
        <span className="text-sm text-muted">{LEVEL_WORDS[check.level]} · </span>
        {check.text}
      </p>
      <p className="text-sm text-muted">
        From: {check.from}
        {check.answered ? ` · answered: ${check.answered.reason}` : ""}{" "}
        {check.slotId ? (
          <Link className="underline" to={`?view=numbers&slot=${check.slotId}`}>
            Open its recipe
          </Link>
        ) : null}{" "}
        {mayEdit && !check.answered ? (
          <button type="button" className="underline" onClick={() => setOpen(!open)}>
            Keep it, with a reason
          </button>
        ) : null}
        {mayEdit && check.answered ? (
          <button
            type="button"
            className="underline"
            onClick={() =>
              edit({
                words: `Answer taken back: ${check.code}`,
                sets: [{ path: ["answered", check.key] }],
              })
            }
          >
            Take the answer back
          </button>
        ) : null}
      </p>
      {open ? (
        <form
          className="mt-1 flex max-w-lg items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            answer();
          }}
        >
          <div className="grow">
            <Field
              label="Reason"
              value={reason}
              autoFocus
              onChange={(event) => setReason(event.target.value)}
              problem={reason !== "" && reason.trim().length < 3 ? "A few words more." : undefined}
            />
          </div>
          <button type="submit" className="btn">
            Keep it
          </button>
        </form>
      ) : null}
    </li>
  );
}
