/** Types of front.mjs, for its tests. */
import type { BlockList } from "node:net";

export function processFor(url: string): "floor" | "pages";
export function trustedProxies(text: string): BlockList;
export function clientAddress(
  remote: string | undefined,
  forwardedFor: string | undefined,
  trusted: BlockList,
): string;
export function headersOn(raw: readonly string[]): string[];
