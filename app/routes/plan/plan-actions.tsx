import { useEffect } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Link, useRevalidator } from "react-router";
import { Dated } from "../../ui/dates";
import { Form } from "../../ui/form";
import type { PlanPage } from "../../workflows/plan/read-plan.server";

/** Undo, redo, publish and print; when it was published last. */
export function Actions({
  data,
  mayEdit,
  busy,
}: {
  data: PlanPage;
  mayEdit: boolean;
  /** Edits are on their way: what stands on all of them waits. */
  busy: boolean;
}) {
  const { plan, published } = data;
  const stale = published === undefined || published.seq !== plan.version;
  return (
    <>
      <span className="self-center text-muted">
        <Dated>
          {published ? `published ${published.number}, ${published.on}` : "never published"}
        </Dated>
      </span>
      {mayEdit ? (
        <Form method="post" className="flex gap-2" preventScrollReset>
          <input type="hidden" name="base" value={plan.version} />
          <button
            type="submit"
            name="intent"
            value="undo"
            className="btn"
            title="Ctrl Z"
            disabled={busy}
          >
            Undo
          </button>
          <button
            type="submit"
            name="intent"
            value="redo"
            className="btn"
            title="Ctrl Shift Z"
            disabled={busy}
          >
            Redo
          </button>
          <button
            type="submit"
            name="intent"
            value="publish"
            disabled={busy}
            className={`btn ${stale ? "btn-primary" : ""}`}
          >
            Publish
          </button>
        </Form>
      ) : null}
      <Link className="btn" to={`/plan/${plan.id}/print`}>
        Print
      </Link>
      {mayEdit ? <UndoKeys /> : null}
    </>
  );
}

/** Ctrl Z and Ctrl Shift Z outside of fields. */
function UndoKeys() {
  const press = (name: string) => () => {
    const button = document.querySelector<HTMLButtonElement>(`button[name=intent][value=${name}]`);
    button?.click();
  };
  useHotkeys("mod+z", press("undo"), { preventDefault: true });
  useHotkeys("mod+shift+z", press("redo"), { preventDefault: true });
  return null;
}

const ASK_EVERY_MS = 4000;

/** Asks whether somebody else edited the plan, and takes their change in. */
export function useNewer(data: PlanPage) {
  const revalidator = useRevalidator();
  const { id, version } = data.plan;
  const { revalidate, state } = revalidator;
  useEffect(() => {
    const timer = setInterval(async () => {
      if (document.hidden || state !== "idle") return;
      const response = await fetch(`/api/plan/${id}?after=${version}`).catch(() => undefined);
      if (!response?.ok) return;
      const found = (await response.json()) as { seq: number };
      if (found.seq > version) void revalidate();
    }, ASK_EVERY_MS);
    return () => clearInterval(timer);
  }, [id, version, revalidate, state]);
}
