import { useState } from "react";
import type { EntryBody } from "../../../core/floor/entries";
import type { FloorState } from "../../../core/floor/state";

const MOST = 300;

/** A word to every station, and the whole floor stopped or let go on. */
export function Announce({
  floor,
  append,
}: {
  floor: FloorState;
  append: (body: EntryBody, supersedes?: string[]) => unknown;
}) {
  const [text, setText] = useState("");
  const note = floor.notes.at(-1);
  return (
    <section aria-label="To every station" className="mt-3 border-t border-rule pt-2">
      <form
        className="flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          const reason = text.trim();
          if (reason === "") return;
          append({ kind: "note", reason });
          setText("");
        }}
      >
        <label className="min-w-0 flex-1">
          <span className="sr-only">A note for every station</span>
          <input
            className="field"
            placeholder="A note for every station"
            maxLength={MOST}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <button type="submit" className="btn" disabled={text.trim() === ""}>
          Say it
        </button>
      </form>
      {note ? (
        <p className="mt-1 flex items-baseline justify-between gap-2">
          <span className="min-w-0 break-words">Stands at every station: {note.text}</span>
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => append({ kind: "void" }, [note.entryId])}
          >
            Take it back
          </button>
        </p>
      ) : null}
      <button
        type="button"
        className="btn mt-2"
        onClick={() => append({ kind: "pause", on: !floor.paused })}
      >
        {floor.paused ? "Go on" : "Pause the floor"}
      </button>
    </section>
  );
}
