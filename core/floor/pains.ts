import type { SetEntryBody } from "./entries";
import type { LineEntry } from "./line";

/** Pains that hold: those that no coach's word has ended. */
export function painsIn(line: ReadonlyArray<LineEntry<SetEntryBody>>) {
  const over = new Set(line.flatMap(({ body }) => (body.kind === "pain-over" ? body.of : [])));
  return line.flatMap(({ entry, body }) =>
    body.kind === "pain" && !over.has(entry.id) ? [{ entryId: entry.id, setKey: body.setKey }] : [],
  );
}
