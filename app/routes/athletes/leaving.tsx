import { Adder, type FormResult } from "../../ui/adder";
import { Field } from "../../ui/field";
import { Form } from "../../ui/form";
import { Notice } from "../../ui/page";
import type { AthletePage } from "./page-data";

/** An athlete goes: archived by a coach, with everything kept; or erased by the owner, for good. */
export function Leaving({
  data,
  resultFor,
}: {
  data: AthletePage;
  resultFor: (intent: string) => FormResult | undefined;
}) {
  const { person, reads } = data;
  if (person.erased) return null;
  const erased = resultFor("erase");
  const archived = resultFor("archive") ?? resultFor("bring-back");
  return (
    <section id="leaving" aria-labelledby="leaving-title" className="no-print mb-6 scroll-mt-24">
      <h2 id="leaving-title" className="border-b border-rule pb-1">
        Leaving
      </h2>
      <Form method="post" className="flex flex-wrap items-center gap-3 py-2">
        <button
          type="submit"
          name="intent"
          value={person.archived ? "bring-back" : "archive"}
          className="btn"
        >
          {person.archived ? "Bring back" : "Archive"}
        </button>
        <span className="text-muted">
          {person.archived
            ? "Back on the lists, with everything as it was."
            : "Off the lists and out of new sessions. Everything is kept and can come back."}
        </span>
        {archived?.message ? <Notice kind="problem" title={archived.message} /> : null}
      </Form>
      {reads === undefined ? null : (
        <Adder title="Erase for good" open={erased?.ok === false}>
          <Form method="post" className="grid max-w-2xl gap-2" noValidate>
            <p>
              The name, body masses, set-ups, notes, limits with their reasons and the sign-in go,
              here and in every session of the past. What was lifted and tested stays, under
              nobody's name. Nothing brings it back: a backup from before still holds it, and
              whoever restores one erases this person again.
            </p>
            <Field
              label={`Type the whole name: ${person.name}`}
              name="typed"
              autoComplete="off"
              problem={erased?.problems?.typed ?? erased?.message}
            />
            <div>
              <button type="submit" name="intent" value="erase" className="btn btn-error">
                Erase this person
              </button>
            </div>
          </Form>
        </Adder>
      )}
    </section>
  );
}
