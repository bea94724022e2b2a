/** Which set, or which item of which round, entries disagree about. */
export interface WorkAddress {
  athleteId: string;
  slotId: string;
  setKey?: string;
  round?: number;
  item?: number;
}

/** Entries that disagree: the one that stands and the other, which is kept and does not count. */
export type LogConflict =
  /** Two ends of one set. */
  | { code: "same-set-twice"; address: WorkAddress; kept: string; other: string }
  /** One rep of a set from two detectors. */
  | { code: "two-detectors"; address: WorkAddress; kept: string; other: string }
  /** Two decisions on one call. */
  | { code: "double-decision"; address: WorkAddress; kept: string; other: string }
  /** Two starts or two ends of one item of a round. */
  | { code: "same-item-twice"; address: WorkAddress; kept: string; other: string }
  /** Two corrections of one entry. */
  | { code: "double-correction"; of: string; kept: string; other: string };

/** An entry that does not count here, and why. */
export interface SetAside {
  entryId: string;
  reason: string;
}
