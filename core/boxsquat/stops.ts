import type { MeasuredRep } from "../velocity/stream";

/** The stops of a set on the box, from what the stream gave. */
export interface BoxRep {
  rep: number;
  pauseS: number | undefined;
  /** Undefined where the slot sets no smallest stop, or the pause was not measured. */
  stop: "stopped" | "bounce" | undefined;
  /** Bottom against the box, m: positive stayed above it. Undefined without a box height. */
  overBoxM: number | undefined;
  reached: boolean | undefined;
  greatestLoweringMps: number | undefined;
  timeToPeakS: number;
}

/** A bottom within this of the seat has reached the box, m. */
export const REACHED_WITHIN_M = 0.03;

/**
 * Judges each rep of a set on the box: a stop shorter than the slot's smallest stop is a bounce;
 * where none is set nothing is flagged.
 * @param seatM bar height with the athlete seated, m
 */
export function judgeBoxReps(
  reps: ReadonlyArray<
    Pick<MeasuredRep, "pauseS" | "bottomM" | "greatestLoweringMps" | "timeToPeakS">
  >,
  slot: { smallestStopS: number | undefined; seatM: number | undefined },
): BoxRep[] {
  const seatM = slot.seatM !== undefined && Number.isFinite(slot.seatM) ? slot.seatM : undefined;
  return reps.map((rep, i) => {
    const over = seatM === undefined ? undefined : rep.bottomM - seatM;
    return {
      rep: i + 1,
      pauseS: rep.pauseS,
      stop:
        slot.smallestStopS === undefined || rep.pauseS === undefined
          ? undefined
          : rep.pauseS < slot.smallestStopS
            ? "bounce"
            : "stopped",
      overBoxM: over,
      reached: over === undefined ? undefined : over <= REACHED_WITHIN_M,
      greatestLoweringMps: rep.greatestLoweringMps,
      timeToPeakS: rep.timeToPeakS,
    };
  });
}

/** Two bounces one after the other end a set under styles that ask for a stop. */
export function twoBounces(reps: ReadonlyArray<Pick<BoxRep, "stop">>): boolean {
  return reps.some((rep, i) => rep.stop === "bounce" && reps[i - 1]?.stop === "bounce");
}

/** The box was met faster than the coach lets it be: a prompt to look, never a verdict. */
const isDrop = (rep: { contactMps?: number | undefined; mostContactMps?: number | undefined }) =>
  rep.contactMps !== undefined &&
  rep.mostContactMps !== undefined &&
  rep.contactMps > rep.mostContactMps;

/** What the box asks of a rep, in words: "stop 0.55 s · down 0.62, at the box 0.18 m/s". */
export function boxRepWords(rep: {
  pauseS?: number | undefined;
  loweringMps?: number | undefined;
  contactMps?: number | undefined;
  toPeakS?: number | undefined;
  rockM?: number | undefined;
  /** The coach's limit for the speed on meeting the box, m/s; undefined where none is set. */
  mostContactMps?: number | undefined;
}): string {
  const speeds = [
    rep.loweringMps === undefined ? "" : `down ${rep.loweringMps.toFixed(2)}`,
    rep.contactMps === undefined ? "" : `at the box ${rep.contactMps.toFixed(2)}`,
  ].filter(Boolean);
  return [
    rep.pauseS === undefined ? "" : `stop ${rep.pauseS.toFixed(2)} s`,
    speeds.length > 0 ? `${speeds.join(", ")} m/s` : "",
    isDrop(rep) ? "dropped?" : "",
    rep.toPeakS === undefined ? "" : `to peak ${rep.toPeakS.toFixed(2)} s`,
    // A second dip before the drive: a prompt to look, never a verdict.
    rep.rockM === undefined ? "" : `rose ${(100 * rep.rockM).toFixed(1)} cm on the seat: a rock?`,
  ]
    .filter(Boolean)
    .join(" · ");
}
