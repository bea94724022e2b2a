/** Types of trust-page.mjs, for the tests that are written in TypeScript. */
import type { RequestListener } from "node:http";

export function trustListener(settings: {
  authority: string;
  securePort: () => number;
}): RequestListener;
