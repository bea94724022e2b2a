import { AsyncLocalStorage } from "node:async_hooks";
import { createHash } from "node:crypto";
import { withFieldUnits } from "../../core/units/field-unit";
import { cleanText, cleanValues } from "../../core/units/text";
import { TooLarge } from "./request-body.server";

/**
 * What was sent, read in one place: whatever arrives becomes a form or plain data that can be
 * stored, or an answer in words. Reading also notes the key under which this very submission is
 * done once (see once.server.ts).
 */

interface Submission {
  /** Who sends it, and where to. */
  scope: string;
  key: string | undefined;
}

const current = new AsyncLocalStorage<Submission>();

/** Runs the answer to one request that may change something. */
export function asSubmission<T>(scope: string, work: () => T): T {
  return current.run({ scope, key: undefined }, work);
}

/** The key of what is being answered, where it carries one. */
export function submissionKey(): string | undefined {
  return current.getStore()?.key;
}

function refusal(error: unknown): Response {
  for (let at: unknown = error; at instanceof Error; at = at.cause)
    if (at instanceof TooLarge) return new Response(at.message, { status: 413 });
  return new Response("What was sent could not be read. Load the page again, then try again.", {
    status: 400,
  });
}

/** The form that was sent, its texts free of what no database keeps. */
export async function readForm(request: Request): Promise<FormData> {
  let sent: FormData;
  try {
    sent = await request.formData();
  } catch (error) {
    throw refusal(error);
  }
  const fields: Array<[string, string]> = [];
  for (const [name, value] of sent) {
    // No page of ours sends a file: files are read in the browser, and their text is sent.
    if (typeof value !== "string") throw refusal(undefined);
    fields.push([cleanText(name), cleanText(value)]);
  }
  const form = new FormData();
  for (const [name, value] of withFieldUnits(fields)) form.append(name, value);
  noteKey(form.get("once"), () => JSON.stringify([...form]));
  return form;
}

/** The JSON that was sent, its texts cleaned likewise. */
export async function readJson(request: Request): Promise<unknown> {
  const clean = cleanValues(await readRawJson(request));
  if (!clean.ok) throw refusal(undefined);
  const once = (clean.value as { once?: unknown } | null)?.once;
  noteKey(typeof once === "string" ? once : null, () => JSON.stringify(clean.value));
  return clean.value;
}

/** The JSON as it was sent: for what is stored as it came, or not at all. */
export async function readRawJson(request: Request): Promise<unknown> {
  try {
    return JSON.parse(await request.text());
  } catch (error) {
    throw refusal(error);
  }
}

/** The same words sent twice are one submission; others under the same key are another. */
function noteKey(once: FormDataEntryValue | null, content: () => string): void {
  const submission = current.getStore();
  if (!submission || typeof once !== "string" || once === "") return;
  const hash = createHash("sha256").update(`${submission.scope}\n${content()}`).digest("hex");
  submission.key = hash.slice(0, 32);
}
