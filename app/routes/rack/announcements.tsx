import type { FloorState } from "../../../core/floor/state";

/** The coach's newest word to every station, and whether the floor is stopped. */
export function Announcements({ floor }: { floor: FloorState }) {
  const note = floor.notes.at(-1);
  if (!floor.paused && !note) return null;
  return (
    <div role="status" className="mb-3 border-l-[5px] border-accent pl-3">
      {floor.paused ? (
        <p className="text-[28px] leading-tight font-bold">The coach has paused the floor.</p>
      ) : null}
      {note ? <p className="text-[22px] leading-tight">{note.text}</p> : null}
    </div>
  );
}
