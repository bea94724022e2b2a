import { uuidv7 } from "uuidv7";
import type { BlockEdit } from "../../../core/plan/edits";

/** What the server said to an edit. */
export type EditAnswer = { ok: true; value: { seq: number } } | { ok: false; message: string };

/**
 * What takes an edit of the block to the server; nothing for an edit that changes nothing.
 * @param base number of the edit on which it was drawn up, where that is not the page's newest
 * @returns the server's answer, once there is one
 */
export type Edit = (edit: BlockEdit | undefined, base?: number) => Promise<EditAnswer | undefined>;

/**
 * An id that no place of any block has, or ever had: own loads, answers and logged sets hang on a
 * slot's id, and would come back under another slot that took it over.
 */
export function freshId(prefix: string): string {
  return `${prefix}-${uuidv7().slice(-12)}`;
}
