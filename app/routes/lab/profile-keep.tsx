import { useState } from "react";
import { useFetcher } from "react-router";
import type { VelocityMetric } from "../../../core/units/velocity";
import { PROCESSING_VERSION } from "../../../core/velocity/stream";
import { Field } from "../../ui/field";
import { useOnce } from "../../ui/form";
import { Notice } from "../../ui/page";
import type { Route } from "./+types/profile";
import type { ProfileTestRun } from "./use-profile-test";

/** One word for where a test's speeds are from; a film among them is said. */
function sourceOfTest(sources: readonly string[]) {
  const [only = "typed"] = sources;
  if (sources.length < 2) return only;
  return sources.includes("video") ? "mixed, with video" : "mixed";
}

export function Keep({
  run,
  data,
  metric,
  warnings,
  line,
}: {
  run: ProfileTestRun;
  data: Route.ComponentProps["loaderData"];
  metric: VelocityMetric;
  warnings: number;
  line: boolean;
}) {
  const once = useOnce();
  const fetcher = useFetcher<{ ok: boolean; message?: string }>();
  const [note, setNote] = useState("");
  const [override, setOverride] = useState("");
  const guarded = data.refused.length > 0 || data.mark?.refused === true;
  const sources = new Set(run.reps.map((rep) => rep.source));
  const keep = () =>
    void fetcher.submit(
      {
        athleteId: data.person?.id ?? "",
        variantId: data.variant.id,
        date: data.today,
        metric,
        source: sourceOfTest([...sources]),
        processing: sources.has("simulated") || sources.has("video") ? PROCESSING_VERSION : "typed",
        addedKg: data.system.addedKg,
        note,
        override,
        once,
        reps: run.profileReps.map(({ id: _, ...rep }) => rep),
      },
      { method: "post", encType: "application/json" },
    );
  return (
    <section aria-labelledby="keep-title" className="grid gap-2">
      <h2 id="keep-title">Keep this test</h2>
      {data.person ? (
        <>
          <p className="text-muted">
            {run.profileReps.length} reps, {new Set(run.profileReps.map((rep) => rep.loadKg)).size}{" "}
            loads{line ? "" : ", no line yet"}
            {warnings > 0 ? `, ${warnings} to know` : ""}.
          </p>
          <Field
            label="Note"
            value={note}
            placeholder="conditions, where it stopped"
            onChange={(event) => setNote(event.target.value)}
          />
          {guarded && !data.mayOverride ? (
            <Notice kind="warning" title="Testing is refused by default for this athlete">
              Only a coach or the owner sets that aside, with a reason. Ask one of them to keep it.
            </Notice>
          ) : null}
          {guarded && data.mayOverride ? (
            <Field
              label="Why it was done although refused"
              value={override}
              onChange={(event) => setOverride(event.target.value)}
            />
          ) : null}
          {fetcher.data && !fetcher.data.ok ? (
            <Notice kind="problem" title={fetcher.data.message ?? "Not kept."} />
          ) : null}
          <button
            type="button"
            className="btn btn-primary"
            disabled={
              (guarded && !data.mayOverride) ||
              run.profileReps.length === 0 ||
              run.lifting ||
              fetcher.state !== "idle"
            }
            onClick={keep}
          >
            Keep for {data.person.name}
          </button>
          <p className="text-sm text-muted">
            Two sessions are never joined in one line: this test stands alone, dated today.
          </p>
        </>
      ) : (
        <p className="text-muted">Choose an athlete to keep a test. Until then it is a trial.</p>
      )}
    </section>
  );
}
