import type { MarkFault } from "./mark";
import type { Rim } from "./rim";
import type { LossReason } from "./tracker";

/** What a clip is, or why it cannot be read. */
export type ClipHead =
  | {
      ok: true;
      durationS: number;
      widthPx: number;
      heightPx: number;
      /** Mean pictures a second as the clip plays. */
      rateHz: number;
      /** Pictures a second as it was filmed, where the file says so. */
      filmedHz: number | undefined;
    }
  | { ok: false; reason: "not-a-clip" | "no-pictures" | "cannot-decode" };

/** A stretch of a clip followed from a mark on. */
export interface ClipRun {
  ok: true;
  rim: Rim;
  /** Another ring that stands out, against the taken one: the coach says which is the rim. */
  otherRing: number | undefined;
  /** Where it ended: the cut's end, or where the plate was lost. */
  untilS: number;
  lost: LossReason | undefined;
  stopped: boolean;
}

export type ClipRunResult =
  | ClipRun
  | { ok: false; reason: MarkFault | "no-frame" | "cannot-decode"; timeS?: number };
