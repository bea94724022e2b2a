import { BOX_FAULTS, FAULT_ACTIONS } from "../../../core/boxsquat/box-faults";
import { BOX_STYLES, CONTACTS, SPINE_CAUTION } from "../../../core/boxsquat/styles";
import { formObject } from "../../forms/athlete";
import { CardForm } from "../../forms/box";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Dated, Day } from "../../ui/dates";
import { FaultPicture } from "../../ui/fault-picture";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Notice, Page } from "../../ui/page";
import {
  confirmStandardCard,
  readStandardCard,
  saveStandardCard,
} from "../../workflows/library/standard-card.server";
import type { Route } from "./+types/faults";
import { LibraryTabs } from "./library-tabs";

export function meta() {
  return [{ title: "Box faults and cues · Sprezza" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return {
    ...(await readStandardCard(principal)),
    mayEdit: mayWrite(principal, "/library/faults"),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const principal = principalOf(context);
  const fields = formObject(await readForm(request));
  if (fields.intent === "confirm") return confirmStandardCard(principal);
  const parsed = CardForm.safeParse(fields);
  if (!parsed.success)
    return { ok: false as const, message: parsed.error.issues[0]?.message ?? "Write a cue." };
  return saveStandardCard(principal, parsed.data.cues);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof revalidateUnlessFailed>[0]) {
  return revalidateUnlessFailed(args);
}

/** What is seen on the box, why, and what to do; and the card that all coaches teach by. */
export default function Faults({ loaderData, actionData }: Route.ComponentProps) {
  const { card, confirmed, mine, mayEdit } = loaderData;
  const result = actionData as { ok: boolean; message?: string } | undefined;
  return (
    <Page
      title="Library"
      facts="Box squat: faults with their cause, cue and drill; the styles; the standard card."
      margin={
        <section aria-labelledby="standard">
          <h2 id="standard">Standard card{card ? `, version ${card.version}` : ""}</h2>
          {result && !result.ok ? <Notice kind="problem" title={result.message ?? ""} /> : null}
          {card ? (
            <>
              <ol className="list-decimal pl-5">
                {card.cues.map((cue) => (
                  <li key={cue}>{cue}</li>
                ))}
              </ol>
              <p className="mt-1 text-sm text-muted">
                {card.by}, <Day of={card.on} />. Confirmed by{" "}
                {confirmed.length === 0 ? (
                  "nobody yet"
                ) : (
                  <Dated>{confirmed.map((one) => `${one.by} (${one.on})`).join(", ")}</Dated>
                )}
                .
              </p>
            </>
          ) : (
            <p className="text-muted">None yet. A card of cues makes all coaches say the same.</p>
          )}
          {mayEdit ? (
            <>
              {card && !mine ? (
                <Form method="post" className="mt-2">
                  <button type="submit" name="intent" value="confirm" className="btn btn-primary">
                    I teach by this version
                  </button>
                </Form>
              ) : null}
              <Form method="post" className="mt-3 grid gap-2" aria-label="Standard card">
                <label className="grid gap-1">
                  <span className="text-muted">Cues, a line each</span>
                  <textarea
                    name="cues"
                    rows={6}
                    key={card?.version ?? 0}
                    defaultValue={(card?.cues ?? BOX_STYLES[0]?.cues ?? []).join("\n")}
                    className="rounded border border-control bg-base-100 p-2"
                  />
                </label>
                <button type="submit" name="intent" value="card" className="btn justify-self-start">
                  Make a version
                </button>
              </Form>
            </>
          ) : null}
        </section>
      }
    >
      <LibraryTabs />
      <section aria-labelledby="box-faults">
        <h2 id="box-faults">Faults on the box</h2>
        <ul>
          {BOX_FAULTS.map((fault) => (
            <li key={fault.id} className="flex gap-4 border-b border-faint py-2">
              {fault.picture ? (
                <FaultPicture kind={fault.picture} name={fault.seen} />
              ) : (
                <span className="hidden w-24 shrink-0 sm:block" aria-hidden />
              )}
              <div className="min-w-0">
                <p className="font-bold">
                  {fault.seen}
                  {fault.spine ? (
                    <span className="font-normal text-secondary"> · spine</span>
                  ) : null}
                </p>
                <p className="text-muted">{fault.cause}.</p>
                <p>
                  Cue: <b>{fault.cue}</b>. Drill: {fault.drill.toLowerCase()}.
                </p>
                <p className="text-muted">Then: {FAULT_ACTIONS[fault.action]}.</p>
              </div>
            </li>
          ))}
        </ul>
      </section>
      <section aria-labelledby="box-styles" className="mt-5">
        <h2 id="box-styles">Styles on the box</h2>
        <ul>
          {BOX_STYLES.map((style) => (
            <li key={style.id} className="border-b border-faint py-2">
              <p className="font-bold">
                {style.name}
                {style.rocks ? <span className="text-accent"> · off by default</span> : null}
              </p>
              <p>
                {CONTACTS[style.contact]}; crease{" "}
                {style.offsetCm === 0
                  ? "level with"
                  : `${Math.abs(style.offsetCm)} cm ${style.offsetCm < 0 ? "under" : "over"}`}{" "}
                the knee, −{style.underCm} / +{style.overCm} cm
              </p>
              <p className="text-muted">Takes for granted: {style.assumes}</p>
            </li>
          ))}
        </ul>
        <p className="mt-2 text-secondary">{SPINE_CAUTION} Local rules come first.</p>
      </section>
    </Page>
  );
}
