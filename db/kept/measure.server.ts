import { createHash } from "node:crypto";
import { Transform, type TransformCallback } from "node:stream";
import { crc32 } from "node:zlib";

const NEW_LINE = 10;

/** Passes bytes on and measures them: length, lines, SHA-256, CRC-32. */
export class Measure extends Transform {
  bytes = 0;
  lines = 0;
  crc = 0;
  readonly #hash = createHash("sha256");
  #sha256: string | undefined;

  override _transform(piece: Buffer, _encoding: string, done: TransformCallback): void {
    this.bytes += piece.length;
    for (let at = piece.indexOf(NEW_LINE); at >= 0; at = piece.indexOf(NEW_LINE, at + 1))
      this.lines++;
    this.crc = crc32(piece, this.crc);
    this.#hash.update(piece);
    done(null, piece);
  }

  /** Of all that came; only once everything has come. */
  get sha256(): string {
    this.#sha256 ??= this.#hash.digest("hex");
    return this.#sha256;
  }
}
