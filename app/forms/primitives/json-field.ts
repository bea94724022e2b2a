import { z } from "zod";

/** A hidden field that holds JSON; empty is undefined. */
export function jsonField<T extends z.ZodType>(inner: T) {
  return z
    .string()
    .default("")
    .transform((text, context) => {
      if (text === "") return undefined;
      try {
        return JSON.parse(text) as unknown;
      } catch {
        context.addIssue({ code: "custom", message: "This form could not be read." });
        return z.NEVER;
      }
    })
    .pipe(z.union([z.undefined(), inner]));
}
