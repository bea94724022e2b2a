/** A file's text as JSON, or the sentence that says why not. */
export function readJson(text: string): { ok: true; raw: unknown } | { ok: false; why: string } {
  try {
    return { ok: true, raw: JSON.parse(text) as unknown };
  } catch {
    return {
      ok: false,
      why: "This JSON does not end well: it is cut off or was changed by hand.",
    };
  }
}
