/** What a workflow gives back: a result, or a failure with a code and words for the person. */
export type Outcome<T> = { ok: true; value: T } | Failure;

export interface Failure {
  ok: false;
  code: string;
  /** What happened and what to do, in a coach's words. */
  message: string;
}

export function done<T>(value: T): Outcome<T> {
  return { ok: true, value };
}

export function failed(code: string, message: string): Failure {
  return { ok: false, code, message };
}
