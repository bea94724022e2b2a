import { once } from "node:events";
import { createWriteStream } from "node:fs";
import { open, rename, rm, stat } from "node:fs/promises";
import path from "node:path";
import type { Readable } from "node:stream";
import { finished, pipeline } from "node:stream/promises";
import yauzl from "yauzl";
import yazl from "yazl";
import { Measure } from "./measure.server";
import { KeptProblem } from "./problem";

/** What was written of a file in it. */
export interface Written {
  bytes: number;
  sha256: string;
}
/** The same, with its lines. */
export interface Measured extends Written {
  rows: number;
}

/** Every file in it has this time: what holds the same is the same, byte for byte. */
const FIXED_TIME = new Date("2020-01-01T00:00:00Z");
const ENTRY = { mtime: FIXED_TIME, mode: 0o100644, compress: true } as const;

const FULL = new Set(["ENOSPC", "EDQUOT", "EFBIG"]);
const FORBIDDEN = new Set(["EACCES", "EPERM", "EROFS"]);

/** Trouble with the disk as a sentence; anything else as it is. */
export function diskProblem(error: unknown, file: string): unknown {
  const code = (error as { code?: string }).code ?? "";
  const folder = path.dirname(path.resolve(file));
  if (FULL.has(code)) {
    return new KeptProblem(
      "disk-full",
      `The disk of ${folder} is full: nothing was kept. Make room, or name a file on another disk.`,
    );
  }
  if (FORBIDDEN.has(code))
    return new KeptProblem("no-right", `${folder} may not be written by you. Name another folder.`);
  if (code === "ENOENT")
    return new KeptProblem("no-folder", `There is no folder ${folder}. Make it, or name another.`);
  return error;
}

/** Writes files one after the other into one; at its end it stands under its name, or not at all. */
export class ZipWriter {
  readonly #zip = new yazl.ZipFile();
  readonly #written: Promise<void>;
  readonly #part: string;
  #failed: unknown;

  private constructor(readonly file: string) {
    this.#part = `${file}.part`;
    // Everything about everybody: for its owner's eyes only.
    this.#written = pipeline(
      this.#zip.outputStream,
      createWriteStream(this.#part, { mode: 0o600, flush: true }),
    );
    this.#written.catch((error) => {
      this.#failed = error;
    });
  }

  static async create(file: string): Promise<ZipWriter> {
    const there = await stat(file).catch(() => undefined);
    if (there) throw new KeptProblem("there", `${file} is there already. Name a file that is not.`);
    // Before any work: whether it can be written at all.
    try {
      await (await open(`${file}.part`, "w", 0o600)).close();
    } catch (error) {
      throw diskProblem(error, file);
    }
    return new ZipWriter(file);
  }

  async add(name: string, content: Readable): Promise<Measured> {
    const measure = new Measure();
    this.#zip.addReadStream(measure, name, ENTRY);
    content.pipe(measure);
    try {
      await Promise.race([Promise.all([finished(content), finished(measure)]), this.#end()]);
    } catch (error) {
      // Where the disk ends nobody takes what is read: it is read to its end all the same, for a
      // database sends it to the end before it listens again.
      content.unpipe(measure);
      content.resume();
      await finished(content).catch(() => {});
      throw diskProblem(this.#failed ?? error, this.file);
    }
    return { bytes: measure.bytes, rows: measure.lines, sha256: measure.sha256 };
  }

  addText(name: string, text: string): void {
    this.#zip.addBuffer(Buffer.from(text), name, ENTRY);
  }

  /** Only a failure: the file's own end comes last. */
  async #end(): Promise<never> {
    await this.#written;
    throw new Error("The file ended before its contents.");
  }

  /** Closes it and gives it its name; `check` looks at it before. */
  async finish(check: (part: string) => Promise<void>): Promise<number> {
    try {
      this.#zip.end();
      await this.#written;
      await check(this.#part);
      await rename(this.#part, this.file);
      return (await stat(this.file)).size;
    } catch (error) {
      throw diskProblem(error, this.file);
    }
  }

  /** Takes away what was written so far. */
  async abandon(): Promise<void> {
    (this.#zip.outputStream as Readable).destroy();
    await this.#written.catch(() => {});
    await rm(this.#part, { force: true });
  }
}

const BROKEN = "is not whole: a part of it is missing or was changed. Take another copy of it.";

/** Reads such a file; every file that is read from it is compared with what was written. */
export class ZipReader {
  private constructor(
    readonly file: string,
    readonly zip: yauzl.ZipFile,
    readonly entries: ReadonlyMap<string, yauzl.Entry>,
  ) {}

  static async open(file: string, what: string): Promise<ZipReader> {
    const zip = await new Promise<yauzl.ZipFile>((resolve, reject) => {
      yauzl.open(file, { lazyEntries: true, autoClose: false }, (error, opened) =>
        error ? reject(error) : resolve(opened),
      );
    }).catch((error) => {
      const { code } = error as { code?: string };
      if (code === "ENOENT")
        throw new KeptProblem("no-file", `There is no file ${file}. Check its name.`);
      if (code === "EACCES" || code === "EISDIR")
        throw new KeptProblem("no-right", `${file} cannot be read (${code}). Check whose it is.`);
      throw new KeptProblem("broken", `${file} is no ${what}, or ${BROKEN}`);
    });
    const entries = new Map<string, yauzl.Entry>();
    try {
      zip.readEntry();
      zip.on("entry", (entry: yauzl.Entry) => {
        entries.set(entry.fileName, entry);
        zip.readEntry();
      });
      await once(zip, "end");
    } catch {
      zip.close();
      throw new KeptProblem("broken", `${file} ${BROKEN}`);
    }
    return new ZipReader(file, zip, entries);
  }

  close(): void {
    this.zip.close();
  }

  #broken(name: string): KeptProblem {
    return new KeptProblem("broken", `${name} in ${this.file} ${BROKEN}`);
  }

  /** A file in it; the stream fails at its end where it is not what was written. */
  async stream(name: string, wanted?: Written): Promise<Readable> {
    const entry = this.entries.get(name);
    if (!entry) throw this.#broken(name);
    const raw = await new Promise<Readable>((resolve, reject) => {
      this.zip.openReadStream(entry, (error, opened) => (error ? reject(error) : resolve(opened)));
    }).catch(() => {
      throw this.#broken(name);
    });
    const measure = new Measure({
      final: (done) => {
        const right =
          measure.crc === entry.crc32 &&
          (wanted === undefined ||
            (measure.sha256 === wanted.sha256 && measure.bytes === wanted.bytes));
        done(right ? null : this.#broken(name));
      },
    });
    raw.on("error", () => measure.destroy(this.#broken(name)));
    return raw.pipe(measure);
  }

  /** Reads a file of it to its end, to know that it is whole. */
  async verify(name: string, wanted?: Written): Promise<void> {
    const stream = await this.stream(name, wanted);
    stream.resume();
    await finished(stream);
  }

  /** A small file of it as text. */
  async text(name: string, most: number): Promise<string> {
    const entry = this.entries.get(name);
    if (!entry || entry.uncompressedSize > most) throw this.#broken(name);
    const pieces: Buffer[] = [];
    for await (const piece of await this.stream(name)) pieces.push(piece as Buffer);
    return Buffer.concat(pieces).toString("utf8");
  }
}
