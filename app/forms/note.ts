import { z } from "zod";

/** A note on an athlete or a squad; a note on health is kept apart. */
export const NoteForm = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("note"),
    /** An athlete's or a squad's id. */
    aboutId: z.uuid("Choose whom it is about."),
    kind: z.enum(["note", "hand-over", "health"]),
    words: z.string().trim().min(2, "Write the note.").max(2000, "2,000 characters at most."),
  }),
  z.object({ intent: z.literal("remove"), noteId: z.uuid() }),
]);
