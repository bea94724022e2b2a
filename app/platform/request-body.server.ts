/** How large a body may be, by address. Documented in docs/formats.md. */
const FORM_BYTES = 256 * 1024;
const LOG_BYTES = 512 * 1024;
/** A file read in the browser arrives as what was read from it: 20,000 reps are 3 MB. */
const IMPORT_BYTES = 8 * 1024 * 1024;
/** Pasted days and files of rooms, recipes and blocks, as text in a form. */
const FILE_BYTES = 2 * 1024 * 1024;

/** An archive of a team goes to a file piece by piece; a larger one comes in at the server. */
const ARCHIVE_BYTES = 256 * 1024 * 1024;

const LIMITS: ReadonlyArray<[address: RegExp, bytes: number]> = [
  [/^\/api\/log\//, LOG_BYTES],
  [/^\/account\/archive$/, ARCHIVE_BYTES],
  [/^\/api\/(plan|pairing)\//, LOG_BYTES],
  [/^\/data(\.data)?$/, IMPORT_BYTES],
  [
    /^\/(plan|gear|library\/recipes|athletes\/testing-day|athletes\/add|data\/earlier)(\.data)?$/,
    FILE_BYTES,
  ],
];

export function bodyLimit(path: string): number {
  return LIMITS.find(([address]) => address.test(path))?.[1] ?? FORM_BYTES;
}

/** What a person reads where more was sent. */
export function tooLargeWords(limit: number): string {
  const most = limit >= 1024 * 1024 ? `${limit / 1024 / 1024} MB` : `${limit / 1024} kB`;
  return `This is larger than the ${most} that can be taken at once. Send it in smaller parts.`;
}

/** A body that was cut off at its limit. */
export class TooLarge extends Error {
  constructor(readonly limit: number) {
    super(tooLargeWords(limit));
  }
}

/**
 * Passes a body on piece by piece, and breaks off past the limit: nothing larger than the limit
 * is ever held.
 * @param exceeded told once, before the reader sees the error
 */
export function limitedBody(
  body: ReadableStream<Uint8Array>,
  limit: number,
  exceeded: () => void,
): ReadableStream<Uint8Array> {
  let taken = 0;
  return body.pipeThrough(
    new TransformStream<Uint8Array, Uint8Array>({
      transform(piece, controller) {
        taken += piece.byteLength;
        if (taken > limit) {
          exceeded();
          controller.error(new TooLarge(limit));
        } else controller.enqueue(piece);
      },
    }),
  );
}
