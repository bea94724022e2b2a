import { expose } from "comlink";
import Papa from "papaparse";
import { delimiterOf } from "../../core/reading/delimiter";
import { type RepImportSettings, RepRows } from "../../core/reading/rep-rows";
import { readDecimal } from "../../core/units/decimal";
import { LongStream, setsOf } from "../../core/velocity/long-stream";
import type { StreamSettings } from "../../core/velocity/stream";
import type { FileHead, FileReading, Progress, ReadReps, ReadStream } from "./read-file";

/** Enough of a file for its header and a few lines. */
const HEAD_BYTES = 64 * 1024;
const CHUNK_BYTES = 1024 * 1024;
const SAMPLE_LINES = 5;

let stopRequested = false;

/** Spreadsheets write UTF-16 now and then; its byte-order mark says so. */
async function encodingOf(file: File): Promise<string> {
  const [first, second] = new Uint8Array(await file.slice(0, 2).arrayBuffer());
  if (first === 0xff && second === 0xfe) return "utf-16le";
  if (first === 0xfe && second === 0xff) return "utf-16be";
  return "utf-8";
}

async function headOf(file: File): Promise<FileHead & { delimiter: string; encoding: string }> {
  const encoding = await encodingOf(file);
  const bytes = await file.slice(0, HEAD_BYTES).arrayBuffer();
  const text = new TextDecoder(encoding).decode(bytes).replace(/^\uFEFF/, "");
  const delimiter = delimiterOf(text);
  const { data } = Papa.parse<string[]>(text.replace(/\r\n?/g, "\n"), {
    delimiter,
    preview: SAMPLE_LINES + 1,
  });
  const [header = [], ...sample] = data;
  return { header: header.map((cell) => cell.trim()), sample, delimiter, encoding };
}

/** Walks a file line by line, a chunk in memory at a time; false where it was stopped. */
async function walk(
  file: File,
  onRow: (cells: string[], line: number) => void,
  progress: Progress,
): Promise<boolean> {
  const { delimiter, encoding } = await headOf(file);
  stopRequested = false;
  let line = 0;
  return new Promise((resolve, reject) => {
    Papa.parse<string[]>(file, {
      delimiter,
      encoding,
      chunkSize: CHUNK_BYTES,
      skipEmptyLines: false,
      chunk(results, parser) {
        for (const cells of results.data) {
          line++;
          if (line > 1) onRow(cells, line);
        }
        void progress(Math.min(1, results.meta.cursor / Math.max(1, file.size)), line);
        if (stopRequested) {
          parser.abort();
          return;
        }
        // A breath between chunks, in which a request to stop can arrive.
        parser.pause();
        setTimeout(() => parser.resume(), 0);
      },
      complete: () => resolve(!stopRequested),
      error: reject,
    });
  });
}

const reading: FileReading = {
  async head(file) {
    const { header, sample } = await headOf(file);
    return { header, sample };
  },

  async readReps(file: File, settings: RepImportSettings, progress: Progress): Promise<ReadReps> {
    const rows = new RepRows(settings);
    const whole = await walk(file, (cells, line) => rows.push(cells, line), progress);
    const tests = rows.finish();
    return {
      stopped: !whole,
      tests,
      rows: rows.rows,
      problems: [...rows.problems.kept],
      problemCount: rows.problems.count,
    };
  },

  async readStream(
    file: File,
    columns: { time: number; position: number },
    settings: Partial<StreamSettings>,
    progress: Progress,
  ): Promise<ReadStream> {
    const stream = new LongStream(settings);
    const whole = await walk(
      file,
      (cells, line) => {
        if (cells.every((cell) => cell.trim() === "")) return;
        const time = readDecimal(cells[columns.time] ?? "");
        const position = readDecimal(cells[columns.position] ?? "");
        if (!time.ok || !position.ok) {
          const at = time.ok ? cells[columns.position] : cells[columns.time];
          stream.problems.add(
            line,
            `${time.ok ? "Position" : "Time"} "${at ?? ""}" is not a number.`,
          );
          return;
        }
        stream.push(time.value, position.value, line);
      },
      progress,
    );
    stream.finish();
    return {
      stopped: !whole,
      samples: stream.samples,
      sets: setsOf(stream.reps),
      gaps: stream.gaps.slice(0, 50),
      gapCount: stream.gapCount,
      faults: stream.faults,
      problems: [...stream.problems.kept],
      problemCount: stream.problems.count,
    };
  },

  stop() {
    stopRequested = true;
  },
};

expose(reading);
