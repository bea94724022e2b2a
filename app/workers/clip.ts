import { proxy, type Remote, wrap } from "comlink";
import type { ClipInput, ClipResult } from "../../core/track/clip";
import type { ClipHead, ClipRunResult } from "../../core/track/clip-run";
import type { WhichRing } from "../../core/track/mark";
import type { PlateMark } from "../../core/track/rim";

export interface ClipPicture {
  bitmap: ImageBitmap;
  timeS: number;
}

/** Share done, 0–1. */
export type ClipProgress = (share: number) => void;

/** A clip in the worker: pictures are read, followed and let go; nothing of them leaves it. */
export interface ClipReading {
  open(file: File): Promise<ClipHead>;
  picture(timeS: number): Promise<ClipPicture | undefined>;
  /** Follows the plate from a mark; `goOn` keeps what an earlier stretch found before it. */
  follow(
    cut: { fromS: number; toS: number; mark: PlateMark; ring: WhichRing; goOn: boolean },
    progress: ClipProgress,
  ): Promise<ClipRunResult>;
  measure(
    of: Pick<ClipInput, "plateDiameterM" | "up" | "slowedBy" | "settings">,
  ): Promise<ClipResult>;
  /** The plate's places as the picture shows them, for its path. */
  path(): Promise<Array<{ timeS: number; xPx: number; yPx: number }>>;
  stop(): void;
}

let remote: { reading: Remote<ClipReading>; worker: Worker } | undefined;

function reader(): Remote<ClipReading> {
  if (!remote) {
    const worker = new Worker(new URL("./clip.worker.ts", import.meta.url), { type: "module" });
    remote = { worker, reading: wrap<ClipReading>(worker) };
  }
  return remote.reading;
}

/** The one clip that is open in this page. */
export const clip = {
  open: (file: File) => reader().open(file),
  picture: (timeS: number) => reader().picture(timeS),
  follow: (cut: Parameters<ClipReading["follow"]>[0], progress: ClipProgress) =>
    reader().follow(cut, proxy(progress)),
  measure: (of: Parameters<ClipReading["measure"]>[0]) => reader().measure(of),
  path: () => reader().path(),
  stop: () => reader().stop(),
  /** Lets go of the clip and everything read from it. */
  close: () => {
    remote?.worker.terminate();
    remote = undefined;
  },
};
