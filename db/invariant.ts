/** Our own bug, as against a bad request: stops at once with a message for the log. */
export function invariant(condition: unknown, message: string): asserts condition {
  if (!condition) throw new Error(`Invariant: ${message}`);
}
