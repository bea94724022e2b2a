const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

/** The id that nothing has. */
const OF_NOTHING = "00000000-0000-0000-0000-000000000000";

export function isId(text: string): boolean {
  return UUID.test(text);
}

/** An id as a form or an address holds it; what is none becomes the id that nothing has. */
export function idFrom(text: FormDataEntryValue | null | undefined): string {
  return typeof text === "string" && UUID.test(text) ? text.toLowerCase() : OF_NOTHING;
}

/** The same where there may be none: empty and malformed are undefined. */
export function idOrNone(text: string | null | undefined): string | undefined {
  return text && UUID.test(text) ? text.toLowerCase() : undefined;
}
