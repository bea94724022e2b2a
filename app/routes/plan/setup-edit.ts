import type { BlockEdit } from "../../../core/plan/edits";

/** What takes an edit of the block to the server; nothing for an edit that changes nothing. */
export type Edit = (edit: BlockEdit | undefined) => void;

/** An id that no place of the block has yet. */
export function freshId(prefix: string, taken: Record<string, unknown>): string {
  let n = Object.keys(taken).length + 1;
  while (taken[`${prefix}${n}`]) n++;
  return `${prefix}${n}`;
}
