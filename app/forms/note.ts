import { z } from "zod";

/** A note on an athlete, a squad, a session or a plan; a note on health is kept apart. */
export const NoteForm = z.discriminatedUnion("intent", [
  z.object({
    intent: z.literal("note"),
    /** Whose id it is, the server finds. */
    aboutId: z.uuid("Choose what it is about."),
    kind: z.enum(["note", "hand-over", "health"]),
    words: z.string().trim().min(2, "Write the note.").max(2000, "2,000 characters at most."),
  }),
  z.object({ intent: z.literal("remove"), noteId: z.uuid() }),
]);
