import { useState } from "react";
import { formObject } from "../../forms/athlete";
import { NoteForm } from "../../forms/note";
import { idFrom } from "../../forms/primitives/id";
import { fieldProblems } from "../../forms/recipe";
import { principalOf } from "../../platform/guard.server";
import { mayWrite } from "../../platform/rights";
import { readForm } from "../../platform/submission.server";
import { Day } from "../../ui/dates";
import { Field, Select } from "../../ui/field";
import { Form } from "../../ui/form";
import { keepForm, revalidateUnlessFailed } from "../../ui/keep-form";
import { Page } from "../../ui/page";
import { PageSelect } from "../../ui/page-select";
import { useAddress } from "../../ui/use-address";
import { type NotesPage, readNotes, saveNote } from "../../workflows/review/notes.server";
import type { Route } from "./+types/notes";
import { ReviewNav } from "./review-nav";

export function meta() {
  return [{ title: "Notes · Sprezza" }];
}

export async function loader({ context, url }: Route.LoaderArgs) {
  const principal = principalOf(context);
  return {
    page: await readNotes(principal, {
      words: (url.searchParams.get("words") ?? "").trim().slice(0, 100),
      aboutId: idFrom(url.searchParams.get("about") ?? ""),
    }),
    mayWrite: mayWrite(principal, "/review/notes"),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const parsed = NoteForm.safeParse(formObject(await readForm(request)));
  if (!parsed.success)
    return {
      ok: false as const,
      message: Object.values(fieldProblems(parsed.error))[0] ?? "Look at the form.",
    };
  return saveNote(principalOf(context), parsed.data);
}

export function clientAction({ serverAction }: Route.ClientActionArgs) {
  return keepForm(serverAction);
}

export function shouldRevalidate(args: Parameters<typeof revalidateUnlessFailed>[0]) {
  return revalidateUnlessFailed(args);
}

const KINDS = { note: "Note", "hand-over": "Hand-over to a skill coach", health: "On health" };

/** Notes on athletes, squads, plans and sessions: found by their words; those on health are kept apart. */
export default function Notes({ loaderData, actionData }: Route.ComponentProps) {
  const { page } = loaderData;
  const address = useAddress();
  const result = actionData;
  // A form of its own for each note that is kept: empty again then, and as it stands after all else.
  const noteId = result?.ok && "value" in result ? result.value.noteId : undefined;
  const [kept, setKept] = useState<string>();
  if (noteId !== undefined && noteId !== kept) setKept(noteId);
  return (
    <Page
      title="Notes"
      facts={`${page.notes.length} ${page.notes.length === 1 ? "note" : "notes"}`}
      margin={
        loaderData.mayWrite ? (
          <Write
            key={kept}
            page={page}
            problem={result && !result.ok ? result.message : undefined}
          />
        ) : undefined
      }
    >
      <ReviewNav />
      <form method="get" className="no-print mb-3 flex flex-wrap items-end gap-3">
        <div className="w-64">
          <Field label="With these words" name="words" type="search" defaultValue={page.words} />
        </div>
        <div className="w-56">
          <PageSelect
            label="About"
            name="about"
            value={page.aboutId}
            onChange={(event) => address.set("about", event.target.value)}
          >
            <option value="">everything</option>
            <Everything page={page} />
          </PageSelect>
        </div>
        <button type="submit" className="btn">
          Find
        </button>
      </form>
      <List notes={page.notes} mayWrite={loaderData.mayWrite} />
      {page.notes.length === 0 ? (
        <p className="text-muted">
          {page.words ? "No note has these words." : "No note yet. Write one in the margin."}
        </p>
      ) : null}
      {page.health ? (
        <section aria-labelledby="health-notes" className="no-print mt-6">
          <h2 id="health-notes">On health, for owner and coaches</h2>
          <p className="text-sm text-muted">
            Not found by a search, on no digest, on no print, in no file. No medical advice: refer.
          </p>
          <List notes={page.health} mayWrite={loaderData.mayWrite} />
          {page.health.length === 0 ? <p className="text-muted">None.</p> : null}
        </section>
      ) : null}
    </Page>
  );
}

function Everything({ page }: { page: NotesPage }) {
  return (
    <>
      {(
        [
          ["Squads", page.squads],
          ["Athletes", page.athletes],
          ["Plans", page.plans],
          ["Sessions", page.sessions],
        ] as const
      ).map(([label, all]) =>
        all.length === 0 ? null : (
          <optgroup key={label} label={label}>
            {all.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </optgroup>
        ),
      )}
    </>
  );
}

function List({ notes, mayWrite }: { notes: NotesPage["notes"]; mayWrite: boolean }) {
  return (
    <ul>
      {notes.map((one) => (
        <li key={one.id} className="flex flex-wrap items-start gap-x-4 border-b border-faint py-2">
          <span className="w-24 whitespace-nowrap text-muted">
            <Day of={one.date} />
          </span>
          <span className="min-w-0 flex-1">
            <b>{one.about}</b>
            {one.kind === "note" ? "" : `, ${KINDS[one.kind].toLowerCase()}`}
            <span className="block whitespace-pre-wrap">{one.words}</span>
            <span className="block text-sm text-muted">{one.by}</span>
          </span>
          {mayWrite ? (
            <Form method="post" className="no-print" preventScrollReset>
              <input type="hidden" name="noteId" value={one.id} />
              <button type="submit" name="intent" value="remove" className="btn btn-sm">
                Take away
              </button>
            </Form>
          ) : null}
        </li>
      ))}
    </ul>
  );
}

function Write({ page, problem }: { page: NotesPage; problem: string | undefined }) {
  return (
    <section aria-labelledby="write-note" className="no-print">
      <h2 id="write-note">Write a note</h2>
      <Form method="post" className="mt-2 grid gap-2">
        <Select label="About" name="aboutId" defaultValue={page.aboutId} required>
          <option value="">choose</option>
          <Everything page={page} />
        </Select>
        <Select label="Kind" name="kind" defaultValue="note">
          {Object.entries(KINDS).map(([id, name]) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Select>
        <label className="block">
          <span className="mb-0.5 block text-muted">Words</span>
          <textarea name="words" className="field min-h-28 w-full" maxLength={2000} required />
        </label>
        {problem ? (
          <p role="alert" className="font-medium text-accent">
            {problem}
          </p>
        ) : null}
        <button
          type="submit"
          name="intent"
          value="note"
          className="btn btn-primary justify-self-start"
        >
          Keep the note
        </button>
      </Form>
      <p className="mt-2 text-sm text-muted">
        A note on health goes to owner and coaches alone. A hand-over says what a skill coach should
        know: no health, no loads unless they ask.
      </p>
    </section>
  );
}
