import { proxy, type Remote, wrap } from "comlink";
import type { LineProblem } from "../../core/reading/line-problems";
import type { ImportedTest, RepImportSettings } from "../../core/reading/rep-rows";
import type { StreamFault, StreamGap } from "../../core/velocity/long-stream";
import type { MeasuredRep, StreamSettings } from "../../core/velocity/stream";

export interface FileHead {
  header: string[];
  sample: string[][];
}

/** Share of the file read, 0–1, and lines so far. */
export type Progress = (share: number, lines: number) => void;

interface Read {
  stopped: boolean;
  problems: LineProblem[];
  problemCount: number;
}

export interface ReadReps extends Read {
  tests: ImportedTest[];
  rows: number;
}

export interface ReadStream extends Read {
  samples: number;
  sets: MeasuredRep[][];
  gaps: StreamGap[];
  gapCount: number;
  /** What the sensor got wrong, by kind; left out, and what follows is measured. */
  faults: StreamFault[];
}

/** What the worker does with a file; nothing of the file leaves the browser. */
export interface FileReading {
  head(file: File): Promise<FileHead>;
  readReps(file: File, settings: RepImportSettings, progress: Progress): Promise<ReadReps>;
  readStream(
    file: File,
    columns: { time: number; position: number },
    settings: Partial<StreamSettings>,
    progress: Progress,
  ): Promise<ReadStream>;
  stop(): void;
}

let remote: Remote<FileReading> | undefined;

function reader(): Remote<FileReading> {
  remote ??= wrap<FileReading>(
    new Worker(new URL("./read-file.worker.ts", import.meta.url), { type: "module" }),
  );
  return remote;
}

export const fileHead = (file: File) => reader().head(file);
export const readReps = (file: File, settings: RepImportSettings, progress: Progress) =>
  reader().readReps(file, settings, proxy(progress));
export const readStream = (
  file: File,
  columns: { time: number; position: number },
  settings: Partial<StreamSettings>,
  progress: Progress,
) => reader().readStream(file, columns, settings, proxy(progress));
export const stopReading = () => reader().stop();
