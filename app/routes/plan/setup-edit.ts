import { uuidv7 } from "uuidv7";
import type { BlockEdit } from "../../../core/plan/edits";

/** What takes an edit of the block to the server; nothing for an edit that changes nothing. */
export type Edit = (edit: BlockEdit | undefined) => void;

/**
 * An id that no place of any block has, or ever had: own loads, answers and logged sets hang on a
 * slot's id, and would come back under another slot that took it over.
 */
export function freshId(prefix: string): string {
  return `${prefix}-${uuidv7().slice(-12)}`;
}
