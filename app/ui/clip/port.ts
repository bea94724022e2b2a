import type { ClipInput, ClipResult } from "../../../core/track/clip";
import type { ClipHead, ClipRunResult } from "../../../core/track/clip-run";
import type { WhichRing } from "../../../core/track/mark";
import type { PlateMark } from "../../../core/track/rim";

/** What reads a clip for the page: a worker, which keeps the pictures to itself. */
export interface ClipPort {
  open(file: File): Promise<ClipHead>;
  picture(timeS: number): Promise<{ bitmap: ImageBitmap; timeS: number } | undefined>;
  follow(
    cut: { fromS: number; toS: number; mark: PlateMark; ring: WhichRing; goOn: boolean },
    progress: (share: number) => void,
  ): Promise<ClipRunResult>;
  measure(
    of: Pick<ClipInput, "plateDiameterM" | "up" | "slowedBy" | "settings">,
  ): Promise<ClipResult>;
  path(): Promise<Array<{ timeS: number; xPx: number; yPx: number }>>;
  stop(): Promise<void>;
  close(): void;
}
